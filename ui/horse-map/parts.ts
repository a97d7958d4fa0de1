import type { TouchZone } from "@/core/know";

/** The parts of the horse that are shown large, so that a thumb finds each zone: its zones from the nose back, and the box of the drawing. */
export const HORSE_PARTS = {
  head: { zones: ["muzzle", "cheek", "ears", "poll"], box: [10, 12, 138, 110] },
  front: { zones: ["neck", "chest", "shoulder", "foreleg upper"], box: [45, 48, 206, 174] },
  middle: { zones: ["girth", "back", "belly", "flank"], box: [160, 80, 138, 116] },
  quarters: { zones: ["thigh", "tail", "behind the tail"], box: [238, 81, 158, 134] },
  "fore leg": { zones: ["knee", "cannon", "fetlock", "hoof"], box: [98, 214, 98, 74] },
  "hind leg": { zones: ["hock", "hind cannon", "hind fetlock", "hind hoof"], box: [256, 205.5, 98, 79] },
} as const satisfies Readonly<
  Record<
    string,
    { readonly zones: readonly TouchZone[]; readonly box: readonly [left: number, top: number, width: number, height: number] }
  >
>;

export type HorsePart = keyof typeof HORSE_PARTS;
export const HORSE_PART_NAMES = Object.keys(HORSE_PARTS) as HorsePart[];

/** The part a zone is shown large in. @example partOfZone("hock") // "hind leg" */
export const partOfZone = (zone: TouchZone): HorsePart =>
  HORSE_PART_NAMES.find((part) => (HORSE_PARTS[part].zones as readonly TouchZone[]).includes(zone)) ?? "front";

/** The height a part is drawn at, in CSS pixels. */
export const PART_HEIGHT_PX = 290;

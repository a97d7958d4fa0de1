/** Kinds of kit, as the trainer sorts them. */
export const KIT_KINDS = [
  "halter",
  "line",
  "stick",
  "whip",
  "target",
  "mat",
  "pole",
  "marker",
  "pouch",
  "feed",
  "roller or harness",
  "other",
] as const;
export type KitKind = (typeof KIT_KINDS)[number];

/** One piece of kit. */
export interface Kit {
  readonly name: string;
  readonly kind: KitKind;
  readonly lengthMetres: number | null;
  /** Of feed: one piece. */
  readonly massGrams: number | null;
  /** Whether left and right buckles were noted on the same holes; null where nobody has looked. */
  readonly bucklesEqual: boolean | null;
}

/** Kinds that have a length the cautions need. */
export const KIT_WITH_LENGTH: readonly KitKind[] = ["line", "stick", "whip", "target", "pole"];
/** Kinds whose buckles are noted. */
export const KIT_WITH_BUCKLES: readonly KitKind[] = ["halter", "roller or harness"];

/** Shortest line for loading and for a horse that leaves, in metres. Common practice, no source. */
export const SHORTEST_SAFE_LINE_METRES = 3;
/** How far a handler's arm carries a stick's grip, in metres. Common practice, no source. */
export const ARM_METRES = 0.6;

/** What the kit is to be used for. */
export interface KitUse {
  /** The behaviour involves loading or a narrow way in. */
  readonly loading: boolean;
  /** This horse has left its handler before. */
  readonly leaves: boolean;
  /** Where the rung puts the handler, in metres from the horse; null where it does not say. */
  readonly handlerMetres: number | null;
  /** Most the horse may carry or draw, in kg, with the advice it comes from; null where nothing limits it. */
  readonly loadLimit: { readonly kg: number; readonly why: string } | null;
}

const metres = (value: number) => `${Math.round(value * 10) / 10} m`;

/**
 * Cautions for the kit in hand, in words; empty where nothing is to be said.
 * Kit whose length is not noted is said to be so rather than passed.
 * @example kitCautions([], use) // []
 */
export function kitCautions(kit: readonly Kit[], use: KitUse): string[] {
  const cautions: string[] = [];
  for (const piece of kit) {
    const { kind, name, lengthMetres } = piece;
    if (kind === "line" && (use.loading || use.leaves)) {
      const what = use.loading ? "loading or a narrow way in" : "a horse that leaves";
      if (lengthMetres === null)
        cautions.push(`${name}: its length is not noted. For ${what} take ${SHORTEST_SAFE_LINE_METRES} m or more.`);
      else if (lengthMetres < SHORTEST_SAFE_LINE_METRES)
        cautions.push(`${name} is ${metres(lengthMetres)}, too short for ${what}: take ${SHORTEST_SAFE_LINE_METRES} m or more.`);
    }
    if ((kind === "stick" || kind === "whip") && use.handlerMetres !== null && lengthMetres !== null) {
      const reach = lengthMetres + ARM_METRES;
      if (reach < use.handlerMetres)
        cautions.push(
          `${name} reaches ${metres(reach)} with the arm; the rung puts you at ${metres(use.handlerMetres)}. It cannot touch from there.`,
        );
    }
    if (use.loadLimit !== null && kind === "roller or harness" && piece.massGrams !== null && piece.massGrams / 1000 > use.loadLimit.kg)
      cautions.push(
        `${name} weighs ${Math.round(piece.massGrams / 100) / 10} kg, over the limit of ${use.loadLimit.kg} kg. ${use.loadLimit.why}`,
      );
    if (KIT_WITH_BUCKLES.includes(kind)) {
      if (piece.bucklesEqual === false) cautions.push(`${name}: left and right buckles are on different holes. Even them before work.`);
      else if (piece.bucklesEqual === null) cautions.push(`${name}: nobody has noted whether left and right buckles are equal.`);
    }
  }
  return cautions;
}

/**
 * Metres in a handler place such as "2 m off", or the usual distance of a named place; null where it has none.
 * @example handlerPlaceMetres("2 m off") // 2
 */
export function handlerPlaceMetres(place: string): number | null {
  const said = /(\d+(?:[.,]\d+)?)\s*m\b/.exec(place)?.[1];
  if (said !== undefined) return Number(said.replace(",", "."));
  if (/head|shoulder/.test(place)) return 0.5;
  if (/hip|behind/.test(place)) return 1.5;
  return null;
}

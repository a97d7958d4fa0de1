import { type PackedEvidence, packEvidence, unpackEvidence } from "@/core/record";
import type { LadderPart, RecorderStart } from "./types";

type PackedPart = Omit<LadderPart, "earlier"> & { readonly earlier: readonly PackedEvidence[] };

/** What the recorder is given, with the trials of its ladders in short: months of them come with the page. */
export type PackedStart = Omit<RecorderStart, "earlier" | "ladders"> & {
  readonly earlier: readonly PackedEvidence[];
  readonly ladders: readonly PackedPart[];
};

/** Packs what the recorder is given; the ladder it begins on is among its ladders, and is packed once. */
export function packStart(start: RecorderStart): PackedStart {
  const known = new Map<readonly unknown[], readonly PackedEvidence[]>();
  const pack = (earlier: LadderPart["earlier"]) => {
    const packed = known.get(earlier) ?? packEvidence(earlier);
    known.set(earlier, packed);
    return packed;
  };
  return { ...start, earlier: pack(start.earlier), ladders: start.ladders.map((part) => ({ ...part, earlier: pack(part.earlier) })) };
}

/** And back, on the device. */
export const unpackStart = (packed: PackedStart): RecorderStart => ({
  ...packed,
  earlier: unpackEvidence(packed.earlier),
  ladders: packed.ladders.map((part) => ({ ...part, earlier: unpackEvidence(part.earlier) })),
});

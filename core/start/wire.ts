import { type PackedEvidence, packEvidence, unpackEvidence } from "../record";
import type { LadderPart } from "./part";
import type { RecorderStart } from "./recorder-start";

type PackedPart = Omit<LadderPart, "earlier"> & { readonly earlier: readonly PackedEvidence[] };

/** What the recorder is given, with the trials of its ladders in short: months of them come with the page. */
export type PackedStart = Omit<RecorderStart, "first" | "parts"> & { readonly first: PackedPart; readonly parts: readonly PackedPart[] };

/**
 * Packs what the recorder is given; the ladder it begins on is among its ladders, and its trials are packed once.
 * @example packStart({ … })
 */
export function packStart({ first, parts, ...start }: RecorderStart): PackedStart {
  const known = new Map<readonly unknown[], readonly PackedEvidence[]>();
  const pack = (part: LadderPart): PackedPart => {
    const earlier = known.get(part.earlier) ?? packEvidence(part.earlier);
    known.set(part.earlier, earlier);
    return { ...part, earlier };
  };
  return { ...start, first: pack(first), parts: parts.map(pack) };
}

/** And back, on the device. @example unpackStart({ … }) */
export function unpackStart({ first, parts, ...packed }: PackedStart): RecorderStart {
  const unpack = (part: PackedPart): LadderPart => ({ ...part, earlier: unpackEvidence(part.earlier) });
  return { ...packed, first: unpack(first), parts: parts.map(unpack) };
}

import type { Strand, StrandValue } from "./strand";

/**
 * How hard a value is on its strand, on a scale where more is harder: the
 * index of the level, or the number with its sign turned where less is harder.
 * @throws RangeError where the value is not of the strand's kind or not one of its levels.
 * @example difficulty(strand, 1) // 1
 */
export function difficulty(strand: Strand, value: StrandValue): number {
  if (strand.kind === "levels") {
    const index = strand.levels.indexOf(String(value));
    if (index < 0) throw new RangeError(`${strand.name}: “${value}” is not one of its levels`);
    return index;
  }
  if (typeof value !== "number" || !Number.isFinite(value)) {
    throw new RangeError(`${strand.name}: a number is needed`);
  }
  return strand.harder === "more" ? value : -value;
}

/**
 * Where each value of a strand stands between the easiest (0) and the hardest
 * (1) of its own row. A row that never changes lies at 0.
 * @example relativeHeights(strand, [3, 3]) // [0, 0]
 */
export function relativeHeights(strand: Strand, values: readonly StrandValue[]): number[] {
  const hardness = values.map((value) => difficulty(strand, value));
  const low = Math.min(...hardness);
  const high = Math.max(...hardness);
  return hardness.map((h) => (high === low ? 0 : (h - low) / (high - low)));
}

import { fisherExact } from "./fisher";
import type { GroupTally } from "./group";
import { logRankFromSorted } from "./latency";

/** Left against right. null where a side holds no trial, or the test has nothing to work on. */
export interface SideComparison {
  readonly fisherP: number | null;
  readonly logRankChiSquared: number | null;
  readonly logRankP: number | null;
  /** (R − L)/(R + L) on success shares; null where both are 0. */
  readonly index: number | null;
}

/**
 * Compares the trials of two sides: Fisher's exact test on met and not met,
 * log-rank on latency, and the index of the success shares. It takes trials
 * as independent, which trials of one session are not quite.
 * @example compareSides(left, right) // { index: 1, … }
 */
export function compareSides(left: GroupTally, right: GroupTally): SideComparison {
  if (left.n === 0 || right.n === 0) return { fisherP: null, logRankChiSquared: null, logRankP: null, index: null };
  const rank = logRankFromSorted([left.sortedWaitings(), right.sortedWaitings()]);
  const l = left.met / left.n;
  const r = right.met / right.n;
  return {
    fisherP: fisherExact(left.met, left.n - left.met, right.met, right.n - right.met),
    logRankChiSquared: rank?.chiSquared ?? null,
    logRankP: rank?.p ?? null,
    index: l + r === 0 ? null : (r - l) / (r + l),
  };
}

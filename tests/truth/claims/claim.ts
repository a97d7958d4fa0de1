import { type Chance, drawExponential } from "@/core/chance";
import type { Counted } from "@/core/evidence";

/** What is asked of a sentence on horses whose truth is known. */
export interface Claim {
  readonly sentence: string;
  /** The horses it was tried on. */
  readonly horses: string;
  /** Said though nothing is there; said where something is; or the truth lies in the range said. */
  readonly asks: "false" | "found" | "covers";
  readonly atMost?: number;
  readonly atLeast?: number;
  /** A whole season a horse: tried on fewer of them in the short form. */
  readonly long?: boolean;
  /** One horse: whether it was so; null where the sentence was not said and nothing is asked. */
  readonly run: (chance: Chance) => boolean | null;
}

export const SEASON = 24;
/** Days differ by so much on the logit: at 0.7 from about 0.52 to 0.83 in two days of three. */
export const DAY_SPREAD = 0.7;
export const logit = (p: number) => Math.log(p / (1 - p));
export const share = (x: number) => 1 / (1 + Math.exp(-x));
export const upTo = (n: number) => Array.from({ length: n }, (_, i) => i);
export const trialsOf = (chance: Chance, n: number, p: number): Counted => ({ met: upTo(n).filter(() => chance() < p).length, of: n });
export const poisson = (chance: Chance, mean: number) => {
  let n = 0;
  for (let left = mean; ; n++) {
    left -= drawExponential(chance, 1);
    if (left < 0) return n;
  }
};

export const SEASON_LOOKS = `looked at after each of ${SEASON} sessions`;

/** Whether a range holds the truth; null where none was said. */
export const holds = (interval: readonly [number, number] | null, truth: number) =>
  interval === null ? null : interval[0] <= truth && truth <= interval[1];

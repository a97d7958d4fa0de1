import type { CountedRate } from "./rate";
import type { Interval } from "./shares";
import { betaQuantile, logGamma } from "./special";

/** One rate held against another. */
export interface RateRatio {
  /** The first rate over the second; infinite where the second counted nothing. */
  readonly ratio: number;
  /** 95 %, exact given the number counted in both; its upper end infinite where the second counted nothing. */
  readonly interval: Interval;
  /** Two-sided. */
  readonly p: number;
}

/** Equal chances differ by less than this where they only differ by rounding. */
const AS_LIKELY = 1 + 1e-7;

function binomialTwoSidedP(k: number, n: number, p: number): number {
  const log = (i: number) =>
    logGamma(n + 1) - logGamma(i + 1) - logGamma(n - i + 1) + (i === 0 ? 0 : i * Math.log(p)) + (i === n ? 0 : (n - i) * Math.log(1 - p));
  const own = Math.exp(log(k));
  let sum = 0;
  for (let i = 0; i <= n; i++) {
    const chance = Math.exp(log(i));
    if (chance <= own * AS_LIKELY) sum += chance;
  }
  return Math.min(1, sum);
}

/**
 * Compares two Poisson rates exactly: given what both counted together, the
 * first count is binomial with the first one's share of the time (Przyborowski
 * & Wilenski 1940; interval after Clopper & Pearson 1934). As R's poisson.test
 * of two counts.
 * @param first counts are whole from 0, minutes above 0; likewise `second`.
 * @returns null where neither counted anything.
 * @throws RangeError where a count is not whole or the time is not above 0.
 * @example rateRatio({ count: 11, minutes: 800 }, { count: 21, minutes: 3011 })?.ratio // 1.971488
 */
export function rateRatio(first: CountedRate, second: CountedRate): RateRatio | null {
  for (const { count, minutes } of [first, second]) {
    if (!Number.isInteger(count) || count < 0) throw new RangeError("rateRatio: a count must be a whole number from 0");
    if (!(minutes > 0)) throw new RangeError("rateRatio: the time must be above 0");
  }
  const n = first.count + second.count;
  if (n === 0) return null;
  const asRatio = (share: number) => (share >= 1 ? Number.POSITIVE_INFINITY : ((share / (1 - share)) * second.minutes) / first.minutes);
  const low = first.count === 0 ? 0 : betaQuantile(0.025, first.count, second.count + 1);
  const high = second.count === 0 ? 1 : betaQuantile(0.975, first.count + 1, second.count);
  return {
    ratio: asRatio(first.count / n),
    interval: [asRatio(low), asRatio(high)],
    p: binomialTwoSidedP(first.count, n, first.minutes / (first.minutes + second.minutes)),
  };
}

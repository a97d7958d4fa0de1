import { incompleteBeta } from "./special";

/** The 97.5 % point of the standard normal distribution. */
export const NORMAL_975 = 1.959963984540054;

/** A lower and an upper bound, both shares from 0 to 1. */
export type Interval = readonly [low: number, high: number];

function checkCounts(name: string, met: number, of: number): void {
  if (!Number.isInteger(met) || !Number.isInteger(of) || met < 0 || of < 0 || met > of) {
    throw new RangeError(`${name}: met and of must be whole numbers with 0 ≤ met ≤ of`);
  }
}

/**
 * 95 % score interval of a share (Wilson 1927).
 * @returns null where there are no trials.
 * @throws RangeError where the counts are not whole or met is above of.
 * @example wilsonInterval(8, 10) // [0.490162, 0.943318]
 */
export function wilsonInterval(met: number, of: number): Interval | null {
  checkCounts("wilsonInterval", met, of);
  return of === 0 ? null : scoreInterval(met / of, of);
}

/**
 * The score interval of a share that rests on so many trials; they need not be whole, as an effective number is not.
 * @throws RangeError where the share is outside [0, 1] or trials is not above 0.
 * @example scoreInterval(0, 1) // [0, …]
 */
export function scoreInterval(share: number, of: number): Interval {
  if (!(share >= 0 && share <= 1) || !(of > 0)) throw new RangeError("scoreInterval: a share from 0 to 1 of more than 0 trials");
  const z2 = NORMAL_975 * NORMAL_975;
  const centre = (share + z2 / (2 * of)) / (1 + z2 / of);
  const half = (NORMAL_975 / (1 + z2 / of)) * Math.sqrt((share * (1 - share)) / of + z2 / (4 * of * of));
  // At the ends the formula is exact; rounding must not carry it past 0 or 1.
  return [share === 0 ? 0 : Math.max(0, centre - half), share === 1 ? 1 : Math.min(1, centre + half)];
}

/**
 * Chance that the true share is at least `target` after `met` of `of`,
 * from Jeffreys' prior Beta(½, ½).
 * @throws RangeError where the counts are not whole, met is above of, or target is outside [0, 1].
 * @example chanceShareAtLeast(0.8, 8, 10) // 0.466504
 */
export function chanceShareAtLeast(target: number, met: number, of: number): number {
  checkCounts("chanceShareAtLeast", met, of);
  return 1 - incompleteBeta(target, met + 0.5, of - met + 0.5);
}

/** Under this many trials a share is called too few to tell. */
export const FEWEST_TRIALS_TO_TELL = 5;

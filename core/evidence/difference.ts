import { FEWEST_TRIALS_TO_TELL, type Interval, wilsonInterval } from "./shares";

/** Met of all, on one occasion or one side. */
export interface Counted {
  readonly met: number;
  readonly of: number;
}

/** A difference of two shares, later less earlier, with its 95 % interval. */
export interface ShareDifference {
  readonly difference: number;
  readonly interval: Interval;
  /** False where either holds too few trials to tell, whatever the interval says. */
  readonly enough: boolean;
}

/**
 * Difference of two independent shares with the 95 % hybrid score interval
 * (Newcombe 1998, method 10): the Wilson bounds of each, combined.
 * @returns null where either holds no trial.
 * @throws RangeError where counts are not whole or met is above of.
 * @example shareDifference({ met: 48, of: 80 }, { met: 56, of: 70 }) // 0.2, 0.0524 to 0.3339
 */
export function shareDifference(earlier: Counted, later: Counted): ShareDifference | null {
  const before = wilsonInterval(earlier.met, earlier.of);
  const after = wilsonInterval(later.met, later.of);
  if (before === null || after === null) return null;
  const p1 = later.met / later.of;
  const p2 = earlier.met / earlier.of;
  const difference = p1 - p2;
  const down = Math.hypot(p1 - after[0], before[1] - p2);
  const up = Math.hypot(after[1] - p1, p2 - before[0]);
  return {
    difference,
    interval: [Math.max(-1, difference - down), Math.min(1, difference + up)],
    enough: earlier.of >= FEWEST_TRIALS_TO_TELL && later.of >= FEWEST_TRIALS_TO_TELL,
  };
}

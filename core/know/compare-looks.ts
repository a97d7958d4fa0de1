import { type ShareDifference, shareDifference } from "../evidence";
import { inHundredths } from "../words";
import { FIRST_LOOK_STEPS, type FirstLook, type FirstLookResult, resultOf } from "./first-look";

/** One step of the battery now and before. */
export interface StepChange {
  readonly key: string;
  readonly side: "L" | "R" | null;
  readonly before: FirstLookResult;
  readonly now: FirstLookResult;
  readonly change: ShareDifference;
  readonly words: string;
}

/** A re-test beside an earlier look. */
export interface LookComparison {
  readonly steps: readonly StepChange[];
  /** All steps both looks hold, taken together; null where they share none. */
  readonly together: (ShareDifference & { readonly before: { met: number; of: number }; readonly now: { met: number; of: number } }) | null;
  readonly words: string;
}

const signed = (share: number) => `${share > 0 ? "+" : share < 0 ? "−" : "±"}${Math.abs(inHundredths(share))}`;

/**
 * A difference of two looks in words. Each look is one day, and what a day does cannot be told from what the horse has learned.
 * @example differenceWords({ … }) // "±0 points: too few to tell."
 */
export function differenceWords({ difference, interval, enough }: ShareDifference): string {
  const points = `${signed(difference)} points`;
  if (!enough) return `${points}: too few to tell.`;
  const range = `${points} between the two days, there ${signed(interval[0])} to ${signed(interval[1])}`;
  if (interval[0] <= 0 && interval[1] >= 0) return `${range}: no difference shown.`;
  return `${range}. One day each: a day alone can do that.`;
}

/**
 * Compares a look with an earlier one, step by step, where both hold the step.
 * @example compareLooks(before, now) // { together: null, … }
 */
export function compareLooks(before: FirstLook, now: FirstLook): LookComparison {
  const steps = FIRST_LOOK_STEPS.flatMap(({ item, side }): StepChange[] => {
    const earlier = resultOf(before, item.key, side);
    const later = resultOf(now, item.key, side);
    if (earlier === null || later === null) return [];
    const change = shareDifference({ met: earlier.met, of: earlier.n }, { met: later.met, of: later.n });
    return change === null ? [] : [{ key: item.key, side, before: earlier, now: later, change, words: differenceWords(change) }];
  });
  const sum = (which: "before" | "now") =>
    steps.reduce((all, step) => ({ met: all.met + step[which].met, of: all.of + step[which].n }), { met: 0, of: 0 });
  const change = shareDifference(sum("before"), sum("now"));
  return {
    steps,
    together: change === null ? null : { ...change, before: sum("before"), now: sum("now") },
    words: change === null ? "The two looks share no item." : differenceWords(change),
  };
}

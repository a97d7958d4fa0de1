import type { MasteryTrial } from "./rule";

/**
 * Trials at least so far apart are of different days, whatever the calendar
 * says: morning and evening are one day, an evening and the next morning two.
 * It needs no time zone, so the pen and the computer judge alike.
 */
export const ANOTHER_DAY_MS = 12 * 3_600_000;

/**
 * Cuts trials into the days they were worked on.
 * @param trials oldest first.
 * @example byDay(trials).length // on how many days the rung was worked
 */
export function byDay<Trial extends Pick<MasteryTrial, "wallMs">>(trials: readonly Trial[]): Trial[][] {
  const days: Trial[][] = [];
  let last = Number.NEGATIVE_INFINITY;
  for (const trial of trials) {
    if (trial.wallMs - last >= ANOTHER_DAY_MS) days.push([]);
    days.at(-1)?.push(trial);
    last = trial.wallMs;
  }
  return days;
}

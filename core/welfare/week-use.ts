import { MILLISECONDS_PER_DAY } from "../units";
import type { Allowance } from "./restrictions";

/** One session of the last days, as the caps see it. */
export interface UsedSession {
  readonly startMs: number;
  readonly workMinutes: number;
  readonly trials: number;
  /** Whether anything on its ladders involves circling. */
  readonly circles: boolean;
  readonly foodGrams: number;
}

/** What is used up of the week and of the day, in sentences for the moment before work. */
export function usedSentences(
  sessions: readonly UsedSession[],
  nowMs: number,
  startOfDayMs: number,
  allowance: Allowance,
  foodLimitGrams: number | null,
): string[] {
  const week = sessions.filter(({ startMs }) => startMs >= nowMs - 7 * MILLISECONDS_PER_DAY && startMs <= nowMs);
  const today = week.filter(({ startMs }) => startMs >= startOfDayMs);
  const sum = (list: readonly UsedSession[], of: (one: UsedSession) => number) => list.reduce((all, one) => all + of(one), 0);
  const count = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;
  const minutes = Math.round(sum(week, ({ workMinutes }) => workMinutes));
  const said = [`Last 7 days: ${count(week.length, "session")}, ${minutes} min of work, ${sum(week, ({ trials }) => trials)} asks.`];
  if (today.length > 0)
    said.push(
      `Today already: ${count(today.length, "session")}, ${Math.round(sum(today, ({ workMinutes }) => workMinutes))} min, ${sum(today, ({ trials }) => trials)} asks.`,
    );
  const circled = week.filter(({ circles }) => circles).length;
  // Where there is to be none at all the caution says so already.
  if (allowance.circlingMinutes !== null && allowance.circlingMinutes.value > 0)
    said.push(
      `Circling in the last 7 days: ${count(circled, "session")}; at most ${allowance.circlingMinutes.value} min in one. ${allowance.circlingMinutes.why}`,
    );
  if (foodLimitGrams !== null) said.push(`Food today: ${Math.round(sum(today, ({ foodGrams }) => foodGrams))} of ${foodLimitGrams} g.`);
  return said;
}

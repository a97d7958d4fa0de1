import { MILLISECONDS_PER_DAY } from "../units";
import { counted } from "../words";

/** One session of the last days, as the caps see it. */
export interface UsedSession {
  readonly startMs: number;
  readonly workMinutes: number;
  readonly trials: number;
  readonly foodGrams: number;
}

/** What is known of a session for the week's sums: its own, and what the ladders worked in it say. */
export interface WeekSession {
  readonly startMs: number;
  readonly workSeconds: number;
  readonly trials: number;
  readonly pieces: number;
  /** Food weighed afterwards, in grams; null where nobody weighed it. */
  readonly weighedGrams: number | null;
  readonly ladders: readonly { readonly pieceGrams: number | null }[];
}

/**
 * A session as the caps see it. Food is what was weighed afterwards, otherwise the pieces by the mass its ladder gives them.
 * @example asUsed({ startMs: 0, workSeconds: 60, trials: 3, pieces: 4, weighedGrams: null, ladders: [{ pieceGrams: 2 }] }).foodGrams // 8
 */
export const asUsed = ({ startMs, workSeconds, trials, pieces, weighedGrams, ladders }: WeekSession): UsedSession => ({
  startMs,
  workMinutes: workSeconds / 60,
  trials,
  foodGrams: weighedGrams ?? pieces * (ladders.find(({ pieceGrams }) => pieceGrams !== null)?.pieceGrams ?? 0),
});

/**
 * What is used up of the week and of the day, in sentences for the moment before work.
 * @param circling what is said of circling, or null where it is no matter.
 * @example usedSentences(sessions, 1781967600000, 1781913600000, "Circling: 12 min.", 200) // 4 of them
 */
export function usedSentences(
  sessions: readonly UsedSession[],
  nowMs: number,
  startOfDayMs: number,
  circling: string | null,
  foodLimitGrams: number | null,
): string[] {
  const week = sessions.filter(({ startMs }) => startMs >= nowMs - 7 * MILLISECONDS_PER_DAY && startMs <= nowMs);
  const today = week.filter(({ startMs }) => startMs >= startOfDayMs);
  const sum = (list: readonly UsedSession[], of: (one: UsedSession) => number) => list.reduce((all, one) => all + of(one), 0);
  const minutes = Math.round(sum(week, ({ workMinutes }) => workMinutes));
  const said = [`Last 7 days: ${counted(week.length, "session")}, ${minutes} min of work, ${sum(week, ({ trials }) => trials)} asks.`];
  if (today.length > 0)
    said.push(
      `Today already: ${counted(today.length, "session")}, ${Math.round(sum(today, ({ workMinutes }) => workMinutes))} min, ${sum(today, ({ trials }) => trials)} asks.`,
    );
  if (circling !== null) said.push(circling);
  if (foodLimitGrams !== null) said.push(`Food today: ${Math.round(sum(today, ({ foodGrams }) => foodGrams))} of ${foodLimitGrams} g.`);
  return said;
}

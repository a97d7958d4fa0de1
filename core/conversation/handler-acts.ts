import { FEWEST_FOR_TREND, type WeeklyTrend, weeklyTrend } from "../evidence";
import { type SessionRecord, workSeconds } from "../record";
import { MILLISECONDS_PER_DAY } from "../units";

/** What one handler did in a session: how often, in how many minutes of work. */
export interface ActCounts {
  readonly minutes: number;
  readonly counts: Readonly<Record<string, number>>;
}

/**
 * What the handler did while work went on, by act.
 * @returns null where nothing of it was counted.
 * @example actCountsOf(record)?.counts.steps
 */
export function actCountsOf(record: SessionRecord, nowMs: number | null = null): ActCounts | null {
  const counts: Record<string, number> = {};
  const { breaks } = record.timeLine;
  const resting = (ms: number) => breaks.some(({ startMs, endMs }) => startMs <= ms && ms < (endMs ?? Number.POSITIVE_INFINITY));
  for (const fact of record.facts) {
    if (fact.type !== "handler" || fact.ms < 0 || resting(fact.ms)) continue;
    const { act, n = 1 } = fact.payload;
    counts[act] = (counts[act] ?? 0) + n;
  }
  return Object.keys(counts).length === 0 ? null : { minutes: workSeconds(record, nowMs) / 60, counts };
}

/** A session's acts with its day. */
export interface DatedActs extends ActCounts {
  readonly startedMs: number;
}

/**
 * How an act of one handler changes a week: the trend of its rate a minute over
 * the sessions in which acts were counted. A session without it counts as one
 * in its time.
 * @param sessions oldest first.
 * @returns null under five sessions.
 * @example actTrend(sessions, "steps") // { sessions: 5, … }
 */
export function actTrend(sessions: readonly DatedActs[], act: string): WeeklyTrend | null {
  const counted = sessions.filter(({ minutes }) => minutes > 0);
  const first = counted[0];
  if (first === undefined || counted.length < FEWEST_FOR_TREND) return null;
  return weeklyTrend(
    counted.map(({ startedMs, minutes, counts }) => ({
      days: (startedMs - first.startedMs) / MILLISECONDS_PER_DAY,
      rate: Math.max(1, counts[act] ?? 0) / minutes,
    })),
  );
}

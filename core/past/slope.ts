import { type DatedValue, type Interval, sessionSlope } from "../evidence";

export type { DatedValue } from "../evidence";

/** How a value changed from session to session: by so much a week. */
export interface WeeklyChange {
  readonly perWeek: number;
  /** 95 %. */
  readonly interval: Interval;
  readonly sessions: number;
}

/**
 * Change a week over sessions, one value a session, with the interval of its slope.
 * @returns null under five sessions, or where they lie on one day.
 * @example weeklyChange([0, 7, 14, 21, 28].map((days) => ({ days, value: days / 70 })))?.perWeek // 0.1
 */
export function weeklyChange(points: readonly DatedValue[]): WeeklyChange | null {
  const line = sessionSlope(points);
  if (line === null) return null;
  const { perDay, reach } = line;
  return { perWeek: perDay * 7, interval: [(perDay - reach) * 7, (perDay + reach) * 7], sessions: points.length };
}

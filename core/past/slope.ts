import { FEWEST_FOR_TREND, type Interval, student975 } from "../evidence";

/** A value at a time, in days. */
export interface DatedValue {
  readonly days: number;
  readonly value: number;
}

/** How a value changed from session to session: by so much a week. */
export interface WeeklyChange {
  readonly perWeek: number;
  /** 95 %. */
  readonly interval: Interval;
  readonly sessions: number;
}

/**
 * Change a week by least squares over sessions, one value a session, with the
 * t interval of its slope (n − 2 degrees).
 * @returns null under five sessions, or where they lie on one day.
 * @example weeklyChange([0, 7, 14, 21, 28].map((days) => ({ days, value: days / 70 })))?.perWeek // 0.1
 */
export function weeklyChange(points: readonly DatedValue[]): WeeklyChange | null {
  const n = points.length;
  if (n < FEWEST_FOR_TREND) return null;
  const meanDays = points.reduce((sum, { days }) => sum + days, 0) / n;
  const mean = points.reduce((sum, { value }) => sum + value, 0) / n;
  let across = 0;
  let products = 0;
  let up = 0;
  for (const { days, value } of points) {
    across += (days - meanDays) ** 2;
    products += (days - meanDays) * (value - mean);
    up += (value - mean) ** 2;
  }
  if (across === 0) return null;
  const slope = products / across;
  const error = Math.sqrt(Math.max(0, up - slope * products) / (n - 2) / across);
  const reach = student975(n - 2) * error;
  return { perWeek: slope * 7, interval: [(slope - reach) * 7, (slope + reach) * 7], sessions: n };
}

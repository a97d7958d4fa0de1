import { sessionSlope, straightLine } from "./session-slope";
import type { Interval } from "./shares";

/** A rate on a day: `days` may have fractions; `rate` is per minute and above 0. */
export interface DatedRate {
  readonly days: number;
  readonly rate: number;
  /** Right answers it was counted from, and the asks; left out where chance within the session is not to be taken off. */
  readonly counted?: { readonly met: number; readonly of: number };
}

function logsOf(points: readonly DatedRate[]): { days: number; value: number }[] {
  if (points.some((p) => !(p.rate > 0))) throw new RangeError("weeklyFactor: every rate must be above 0");
  const met = points.reduce((sum, { counted }) => sum + (counted?.met ?? 0), 0);
  const of = points.reduce((sum, { counted }) => sum + (counted?.of ?? 0), 0);
  // The logarithm of a binomial count varies by about (1 − p)/np.
  const share = Math.min(1, (met + 1) / (of + 2));
  return points.map(({ days, rate, counted }) => ({
    days,
    value: Math.log10(rate),
    ...(counted === undefined || counted.of === 0 ? {} : { drawnVariance: (1 - share) / (share * counted.of) / Math.LN10 ** 2 }),
  }));
}

/**
 * Multiplying factor per week of a rate: least squares on log10(rate) over
 * days, factor 10^(7·slope) (the celeration of Pennypacker, Gutierrez &
 * Lindsley 2003, from memory).
 * @returns null where there are fewer than two distinct days.
 * @throws RangeError where a rate is not above 0.
 * @example weeklyFactor([{days: 0, rate: 2}, {days: 7, rate: 4}]) // 2
 */
export function weeklyFactor(points: readonly DatedRate[]): number | null {
  const line = straightLine(logsOf(points));
  return line === null ? null : 10 ** (7 * line.perDay);
}

/** A factor a week with its 95 % interval. */
export interface WeeklyTrend {
  readonly factor: number;
  readonly interval: Interval;
  readonly sessions: number;
}

/**
 * The factor a week as it may be said: with the interval of its slope, by which
 * neighbouring sessions are alike ({@link sessionSlope}).
 * @returns null under five sessions or where they lie on one day.
 * @throws RangeError where a rate is not above 0.
 * @example weeklyTrend([0, 7, 14, 21, 28].map((days) => ({ days, rate: 2 ** (days / 7) })))?.factor // 2
 */
export function weeklyTrend(points: readonly DatedRate[]): WeeklyTrend | null {
  const line = sessionSlope(logsOf(points));
  if (line === null) return null;
  const { perDay, reach } = line;
  return {
    factor: 10 ** (7 * perDay),
    interval: [10 ** (7 * (perDay - reach)), 10 ** (7 * (perDay + reach))],
    sessions: points.length,
  };
}

import type { Interval } from "./shares";
import { student975 } from "./student";

/** A rate on a day: `days` may have fractions; `rate` is per minute and above 0. */
export interface DatedRate {
  readonly days: number;
  readonly rate: number;
}

/** Least squares of log10(rate) on days: slope a day, and what its error is taken from. */
function leastSquares(points: readonly DatedRate[]): { slope: number; across: number; residual: number } | null {
  if (points.some((p) => !(p.rate > 0))) throw new RangeError("weeklyFactor: every rate must be above 0");
  if (new Set(points.map((p) => p.days)).size < 2) return null;
  const n = points.length;
  const meanDays = points.reduce((sum, p) => sum + p.days, 0) / n;
  const meanLog = points.reduce((sum, p) => sum + Math.log10(p.rate), 0) / n;
  let products = 0;
  let across = 0;
  let up = 0;
  for (const { days, rate } of points) {
    products += (days - meanDays) * (Math.log10(rate) - meanLog);
    across += (days - meanDays) ** 2;
    up += (Math.log10(rate) - meanLog) ** 2;
  }
  const slope = products / across;
  return { slope, across, residual: Math.max(0, up - slope * products) };
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
  const line = leastSquares(points);
  return line === null ? null : 10 ** (7 * line.slope);
}

/** Under this many sessions no trend is said. */
export const FEWEST_FOR_TREND = 5;

/** A factor a week with its 95 % interval. */
export interface WeeklyTrend {
  readonly factor: number;
  readonly interval: Interval;
  readonly sessions: number;
}

/**
 * The factor a week as it may be said: with the interval of its slope, slope ±
 * t₀.₉₇₅ with n − 2 degrees times its standard error.
 * @returns null under five sessions or where they lie on one day.
 * @throws RangeError where a rate is not above 0.
 */
export function weeklyTrend(points: readonly DatedRate[]): WeeklyTrend | null {
  const n = points.length;
  const line = n < FEWEST_FOR_TREND ? null : leastSquares(points);
  if (line === null) return null;
  const error = Math.sqrt(line.residual / (n - 2) / line.across);
  const reach = student975(n - 2) * error;
  return {
    factor: 10 ** (7 * line.slope),
    interval: [10 ** (7 * (line.slope - reach)), 10 ** (7 * (line.slope + reach))],
    sessions: n,
  };
}

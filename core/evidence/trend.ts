/** A rate on a day: `days` may have fractions; `rate` is per minute and above 0. */
export interface DatedRate {
  readonly days: number;
  readonly rate: number;
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
  if (points.some((p) => !(p.rate > 0))) throw new RangeError("weeklyFactor: every rate must be above 0");
  if (new Set(points.map((p) => p.days)).size < 2) return null;
  const n = points.length;
  const meanDays = points.reduce((sum, p) => sum + p.days, 0) / n;
  const meanLog = points.reduce((sum, p) => sum + Math.log10(p.rate), 0) / n;
  let across = 0;
  let squares = 0;
  for (const { days, rate } of points) {
    across += (days - meanDays) * (Math.log10(rate) - meanLog);
    squares += (days - meanDays) ** 2;
  }
  return 10 ** ((7 * across) / squares);
}

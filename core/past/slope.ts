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
 * How alike neighbouring sessions are where few tell, and for how many sessions
 * that counts: yards have days in moods. Chosen on simulated yards of other
 * seeds than those that judge it; no published source.
 */
const USUAL_LIKENESS = 0.3;
const USUAL_COUNTS = 6;
/** With one degree a range says nothing of any horse. */
const FEWEST_DEGREES = 2;
/** More alike than this they would tell next to nothing. */
const MOST_LIKENESS = 0.85;

/**
 * How alike neighbours are beyond a straight line, 0 and up: the correlation of
 * each residual with the next, which comes out too small by about 2/n where a
 * line was taken out (after Marriott & Pope 1954, from memory), drawn towards the usual.
 */
function likenessOf(residuals: readonly number[]): number {
  const n = residuals.length;
  const squares = residuals.reduce((sum, e) => sum + e * e, 0);
  if (squares === 0) return USUAL_LIKENESS;
  const products = residuals.reduce((sum, e, i) => sum + e * (residuals[i + 1] ?? 0), 0);
  const seen = (products / squares) * (n / (n - 1)) + 2 / n;
  const drawn = (n * seen + USUAL_COUNTS * USUAL_LIKENESS) / (n + USUAL_COUNTS);
  return Math.min(MOST_LIKENESS, Math.max(0, drawn));
}

/**
 * Change a week by least squares over sessions, one value a session, with the
 * t interval of its slope. Neighbouring sessions are alike, so n of them are
 * worth n(1 − ρ)/(1 + ρ) (Bartlett 1946, from memory), and its degrees are two fewer than that.
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
  const inOrder = [...points].sort((a, b) => a.days - b.days);
  const likeness = likenessOf(inOrder.map(({ days, value }) => value - mean - slope * (days - meanDays)));
  const worth = (n * (1 - likeness)) / (1 + likeness);
  const error = Math.sqrt((Math.max(0, up - slope * products) / (n - 2) / across) * (n / worth));
  const reach = student975(Math.max(FEWEST_DEGREES, Math.min(n - 2, Math.round(worth) - 2))) * error;
  return { perWeek: slope * 7, interval: [(slope - reach) * 7, (slope + reach) * 7], sessions: n };
}

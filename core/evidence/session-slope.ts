import { student975 } from "./student";

/** A value of a session, at a time in days. */
export interface DatedValue {
  readonly days: number;
  readonly value: number;
}

/** A straight line over sessions. */
export interface SessionSlope {
  /** Of the value, a day. */
  readonly perDay: number;
  /** Standard error of the slope as if sessions were independent. */
  readonly plainError: number;
  /** Half of the 95 % interval of the slope, with neighbouring sessions alike. */
  readonly reach: number;
}

/** Under this many sessions no trend is said. */
export const FEWEST_FOR_TREND = 5;

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

/** Least squares: the slope, what its error is taken from, and what each point lies off the line, by its time; null on one day. */
export function straightLine(
  points: readonly DatedValue[],
): { readonly perDay: number; readonly across: number; readonly residual: number; readonly residuals: readonly number[] } | null {
  const n = points.length;
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
  if (new Set(points.map(({ days }) => days)).size < 2) return null;
  const perDay = products / across;
  const residuals = [...points].sort((a, b) => a.days - b.days).map(({ days, value }) => value - mean - perDay * (days - meanDays));
  return { perDay, across, residual: Math.max(0, up - perDay * products), residuals };
}

/**
 * Least squares over sessions, one value a session, with the reach of its
 * slope: t·SE·√(n/worth). Neighbouring sessions are alike, so n of them are
 * worth n(1 − ρ)/(1 + ρ) (Bartlett 1946, from memory), and the degrees are two
 * fewer than that. Every change a week and every factor a week is read off it.
 * @returns null under five sessions, or where they lie on one day.
 * @example sessionSlope([0, 7, 14, 21, 28].map((days) => ({ days, value: days / 70 })))?.perDay // 1/70
 */
export function sessionSlope(points: readonly DatedValue[]): SessionSlope | null {
  const n = points.length;
  const line = n < FEWEST_FOR_TREND ? null : straightLine(points);
  if (line === null) return null;
  const { perDay, across, residual, residuals } = line;
  const likeness = likenessOf(residuals);
  const worth = (n * (1 - likeness)) / (1 + likeness);
  const plainError = Math.sqrt(residual / (n - 2) / across);
  const degrees = Math.max(FEWEST_DEGREES, Math.min(n - 2, Math.round(worth) - 2));
  return { perDay, plainError, reach: student975(degrees) * plainError * Math.sqrt(n / worth) };
}

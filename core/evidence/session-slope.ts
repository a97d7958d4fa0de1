import { student975 } from "./student";

/** A value of a session, at a time in days. */
export interface DatedValue {
  readonly days: number;
  readonly value: number;
  /** Variance that chance within the session gives its value, p̃q̃/n of a share; left out where it is not known. */
  readonly drawnVariance?: number;
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
 * that counts; what is seen in a few may be too small by as much as the caution.
 * Yards have days in moods. Chosen on simulated yards of other seeds than those
 * that judge it; no published source.
 */
const USUAL_LIKENESS = 0.6;
const USUAL_COUNTS = 8;
const CAUTION = 0.28;
/** Of how sessions differ at least so much is theirs, whatever chance within them could do. */
const LEAST_OF_DAYS = 0.2;
/** Under this share of them days tell nothing of how alike they are. */
const LEAST_KNOWN = 0.05;
/** Degrees of what chance within sessions does, beyond two fewer than they are: it is known and not estimated. */
const DRAWN_DEGREES = 8;
/** More alike than this they would tell next to nothing. */
const MOST_LIKENESS = 0.9;
/** With one degree a range says nothing of any horse. */
const FEWEST_DEGREES = 2;

/**
 * How alike days are beyond a straight line, 0 and up: the correlation of each
 * residual with the next once chance within the sessions is taken off, which
 * comes out too small by about 2/n where a line was taken out (after Marriott &
 * Pope 1954, from memory), drawn towards the usual and put up for caution.
 * @param drawn mean variance that chance within a session gives its value.
 */
function likenessOf(residuals: readonly number[], days: readonly number[], across: number, drawn: number): number {
  const n = residuals.length;
  const mean = days.reduce((sum, one) => sum + one, 0) / n;
  const squares = residuals.reduce((sum, e) => sum + e * e, 0);
  // Taking the line out makes neighbours of independent values a little unlike.
  const unlike = days.slice(1).reduce((sum, one, i) => sum - 1 / n - ((one - mean) * ((days[i] as number) - mean)) / across, 0);
  const products = residuals.reduce((sum, e, i) => sum + e * (residuals[i + 1] ?? 0), 0) - drawn * unlike;
  const ofDays = Math.max(squares - drawn * (n - 2), LEAST_KNOWN * squares);
  const seen = squares === 0 ? USUAL_LIKENESS : (products / ofDays) * (n / (n - 1)) + 2 / n;
  const counts = squares === 0 ? 0 : (n * ofDays) / squares;
  const likeness = (counts * seen + USUAL_COUNTS * USUAL_LIKENESS) / (counts + USUAL_COUNTS) + CAUTION;
  return Math.min(MOST_LIKENESS, Math.max(0, likeness));
}

/** What likeness ρ, falling off as ρ^|i − j| between the i-th and the j-th session, does to a line through them. */
function ofLikeness(days: readonly number[], likeness: number) {
  const n = days.length;
  const mean = days.reduce((sum, one) => sum + one, 0) / n;
  const across = days.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const level = new Array<number>(n).fill(1 / Math.sqrt(n));
  const along = days.map((one) => (one - mean) / Math.sqrt(across));
  /** R·v. */
  const times = (v: readonly number[]) => v.map((_, i) => v.reduce((sum, one, j) => sum + likeness ** Math.abs(i - j) * one, 0));
  const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, one, i) => sum + one * (b[i] as number), 0);
  const [ofLevel, ofAlong] = [times(level), times(along)];
  const [ll, la, aa] = [dot(level, ofLevel), dot(level, ofAlong), dot(along, ofAlong)];
  let squares = n;
  for (let lag = 1; lag < n; lag++) squares += 2 * (n - lag) * likeness ** (2 * lag);
  // Traces of MR and MRMR, M what takes level and line out.
  const left = n - ll - aa;
  const leftTwice = squares - 2 * (dot(ofLevel, ofLevel) + dot(ofAlong, ofAlong)) + ll * ll + 2 * la * la + aa * aa;
  return { slope: aa, left, degrees: (left * left) / leftTwice };
}

/**
 * Least squares: the slope, what its error is taken from, and what each point lies off the line, by its time; null on one day.
 * @example straightLine(points) // { across: 490, … }
 */
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
 * slope. What sessions differ by beyond chance within them is that of days,
 * and neighbouring days are alike, R = ρ^|i − j|: the residuals' squares come to
 * σ²·tr(MR) + s²(n − 2), the slope's variance to (σ²·x′Rx + s²·x′x)/(x′x)², and t
 * has the degrees of both (after Satterthwaite 1946, from memory), tr(MR)²/tr(MRMR)
 * those of days. Every change a week and every factor a week is read off it.
 * Cost grows with sessions squared.
 * @returns null under five sessions, or where they lie on one day.
 * @example sessionSlope([0, 7, 14, 21, 28].map((days) => ({ days, value: days / 70 })))?.perDay // 1/70
 */
export function sessionSlope(points: readonly DatedValue[]): SessionSlope | null {
  const n = points.length;
  const line = n < FEWEST_FOR_TREND ? null : straightLine(points);
  if (line === null) return null;
  const { perDay, across, residual, residuals } = line;
  const drawn = points.reduce((sum, { drawnVariance = 0 }) => sum + drawnVariance, 0) / n;
  const days = points.map((point) => point.days).sort((a, b) => a - b);
  const { slope, left, degrees } = ofLikeness(days, likenessOf(residuals, days, across, drawn));
  const ofDays = (Math.max(residual - drawn * (n - 2), LEAST_OF_DAYS * residual) / left) * slope;
  const share = ofDays + drawn === 0 ? 1 : ofDays / (ofDays + drawn);
  const both = 1 / (share ** 2 / degrees + (1 - share) ** 2 / (n - 2 + DRAWN_DEGREES));
  return {
    perDay,
    plainError: Math.sqrt(residual / (n - 2) / across),
    reach: student975(Math.max(FEWEST_DEGREES, Math.round(both))) * Math.sqrt((ofDays + drawn) / across),
  };
}

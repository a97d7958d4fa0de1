/** How far two observers agree on categories. Shares from 0 to 1. */
export interface KappaAgreement {
  /** Null where chance alone would agree every time. */
  readonly kappa: number | null;
  readonly observed: number;
  readonly expected: number;
  readonly n: number;
}

/**
 * Cohen's κ (Cohen 1960) from a square table: rows are what the first
 * observer said, columns the second; κ = (observed − expected)/(1 − expected).
 * @returns null where the table is empty of counts.
 * @throws RangeError where the table is not square or a count is not a whole number from 0.
 * @example cohenKappa([[20, 5], [10, 15]]) // κ 0.4
 */
export function cohenKappa(table: readonly (readonly number[])[]): KappaAgreement | null {
  const k = table.length;
  if (k === 0 || table.some((row) => row.length !== k)) throw new RangeError("cohenKappa: the table must be square");
  if (table.some((row) => row.some((n) => !Number.isInteger(n) || n < 0)))
    throw new RangeError("cohenKappa: counts must be whole numbers, 0 or more");
  const rows = table.map((row) => row.reduce((sum, n) => sum + n, 0));
  const columns = rows.map((_, j) => table.reduce((sum, row) => sum + (row[j] ?? 0), 0));
  const n = rows.reduce((sum, row) => sum + row, 0);
  if (n === 0) return null;
  const observed = table.reduce((sum, row, i) => sum + (row[i] ?? 0), 0) / n;
  const expected = rows.reduce((sum, row, i) => sum + row * (columns[i] ?? 0), 0) / (n * n);
  return { kappa: expected === 1 ? null : (observed - expected) / (1 - expected), observed, expected, n };
}

/** Two observers' moments of one kind of event over the same stretch, in seconds from its start. */
export interface TimedPair {
  readonly a: readonly number[];
  readonly b: readonly number[];
  readonly toleranceSeconds: number;
  readonly durationSeconds: number;
  readonly intervalSeconds: number;
}

/** Agreement of two event records, each a share from 0 to 1, or null where nothing was recorded at all. */
export interface TimedAgreement {
  readonly total: number | null;
  readonly exactInterval: number | null;
  readonly meanInterval: number | null;
  readonly point: number | null;
}

const smallerOverLarger = (x: number, y: number) => (x === y ? 1 : Math.min(x, y) / Math.max(x, y));

/** The most pairs within the tolerance, each moment used once: taking the earliest free match is best on a line. */
function matches(a: readonly number[], b: readonly number[], tolerance: number): number {
  let i = 0;
  let j = 0;
  let pairs = 0;
  while (i < a.length && j < b.length) {
    const gap = (a[i] as number) - (b[j] as number);
    if (Math.abs(gap) <= tolerance + 1e-9) {
      pairs++;
      i++;
      j++;
    } else if (gap < 0) i++;
    else j++;
  }
  return pairs;
}

/**
 * Agreement of two records of moments (Cooper, Heron & Heward, Applied
 * Behavior Analysis, from memory): total count, smaller over larger; exact
 * count per interval, share of intervals with equal counts; mean count per
 * interval, mean of smaller over larger; point by point, matches within the
 * tolerance over matches and misses.
 * @throws RangeError where a length is not above 0, the tolerance is below 0, or a moment lies outside the stretch.
 * @example timedAgreement(pair) // { total: 1, point: 1, … }
 */
export function timedAgreement(pair: TimedPair): TimedAgreement {
  const { toleranceSeconds, durationSeconds, intervalSeconds } = pair;
  if (!(durationSeconds > 0) || !(intervalSeconds > 0)) throw new RangeError("timedAgreement: the lengths must be above 0");
  if (!(toleranceSeconds >= 0)) throw new RangeError("timedAgreement: the tolerance must be 0 or more");
  const [a, b] = [pair.a, pair.b].map((list) => [...list].sort((x, y) => x - y)) as [number[], number[]];
  if ([...a, ...b].some((t) => !(t >= 0 && t <= durationSeconds)))
    throw new RangeError("timedAgreement: every moment must lie within the stretch");
  const intervals = Math.ceil(durationSeconds / intervalSeconds - 1e-9);
  if (a.length === 0 && b.length === 0) return { total: null, exactInterval: null, meanInterval: null, point: null };
  const counts = (list: readonly number[]) => {
    const out = new Array<number>(intervals).fill(0);
    for (const t of list) {
      const at = Math.min(intervals - 1, Math.floor(t / intervalSeconds));
      out[at] = (out[at] as number) + 1;
    }
    return out;
  };
  const inA = counts(a);
  const inB = counts(b);
  const pairs = matches(a, b, toleranceSeconds);
  return {
    total: smallerOverLarger(a.length, b.length),
    exactInterval: inA.filter((n, i) => n === inB[i]).length / intervals,
    meanInterval: inA.reduce((sum, n, i) => sum + smallerOverLarger(n, inB[i] as number), 0) / intervals,
    point: pairs / (a.length + b.length - pairs),
  };
}

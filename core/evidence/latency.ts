import { chiSquaredUpperTail } from "./special";

/** One time: seconds, and whether it ended in the event (an answer) or was cut off (censored). */
export interface Waiting {
  readonly seconds: number;
  readonly answered: boolean;
}

/** A step of the curve: seconds, share still waiting just after, Greenwood's standard error (null where the share is 0). */
export type SurvivalStep = readonly [seconds: number, share: number, standardError: number | null];

/** The product-limit estimate. */
export interface SurvivalCurve {
  readonly answered: number;
  readonly censored: number;
  readonly medianSeconds: number | null;
  readonly steps: readonly SurvivalStep[];
}

const HALF_TOLERANCE = 1e-12;

/**
 * Product-limit estimate from answer times and censoring times, both sorted
 * rising, in seconds (Kaplan & Meier 1958; variance by Greenwood 1926). At
 * equal times answers come before censorings. The median is the first time
 * at which at most half are still waiting.
 * @example survivalFromSorted(answers, censorings) // { answered: 2, censored: 1, medianSeconds: 2, … }
 */
export function survivalFromSorted(answers: ArrayLike<number>, censorings: ArrayLike<number>): SurvivalCurve {
  const steps: SurvivalStep[] = [];
  let atRisk = answers.length + censorings.length;
  let share = 1;
  let greenwood = 0;
  let medianSeconds: number | null = null;
  let c = 0;
  let a = 0;
  while (a < answers.length) {
    const seconds = answers[a] as number;
    while (c < censorings.length && (censorings[c] as number) < seconds) {
      c++;
      atRisk--;
    }
    let here = 0;
    while (a < answers.length && answers[a] === seconds) {
      a++;
      here++;
    }
    const left = atRisk - here;
    share = left === 0 ? 0 : share * (left / atRisk);
    greenwood = left === 0 ? greenwood : greenwood + here / (atRisk * left);
    steps.push([seconds, share, left === 0 ? null : share * Math.sqrt(greenwood)]);
    if (medianSeconds === null && share <= 0.5 + HALF_TOLERANCE) medianSeconds = seconds;
    atRisk = left;
  }
  return { answered: answers.length, censored: censorings.length, medianSeconds, steps };
}

/** Times in rising order, answers and censorings apart. */
function sortWaitings(waitings: readonly Waiting[]): { answers: Float64Array; censorings: Float64Array } {
  const answers: number[] = [];
  const censorings: number[] = [];
  for (const { seconds, answered } of waitings) {
    if (!(seconds >= 0) || !Number.isFinite(seconds)) {
      throw new RangeError("survival: every time must be a number of seconds, 0 or more");
    }
    (answered ? answers : censorings).push(seconds);
  }
  return { answers: Float64Array.from(answers).sort(), censorings: Float64Array.from(censorings).sort() };
}

/**
 * Product-limit estimate of a list of waitings; see {@link survivalFromSorted}.
 * @throws RangeError where a time is below 0 or not a number.
 * @example survival([{ seconds: 8, answered: true }]) // { answered: 1, censored: 0, medianSeconds: 8, … }
 */
export function survival(waitings: readonly Waiting[]): SurvivalCurve {
  const { answers, censorings } = sortWaitings(waitings);
  return survivalFromSorted(answers, censorings);
}

/** The log-rank test of two or more groups. */
export interface LogRank {
  readonly chiSquared: number;
  readonly degrees: number;
  readonly p: number;
}

/** Times of one group in rising order, as the test wants them. */
export interface SortedWaitings {
  readonly answers: ArrayLike<number>;
  readonly censorings: ArrayLike<number>;
}

function countBelow(sorted: ArrayLike<number>, from: number, seconds: number): number {
  let at = from;
  while (at < sorted.length && (sorted[at] as number) < seconds) at++;
  return at;
}

/** Solves a small symmetric system by elimination with pivoting; null where it is singular. */
function solve(matrix: number[][], right: number[]): number[] | null {
  const n = right.length;
  const rows = matrix.map((row, i) => [...row, right[i] as number]);
  for (let column = 0; column < n; column++) {
    let best = column;
    for (let r = column + 1; r < n; r++) {
      if (Math.abs(rows[r]?.[column] ?? 0) > Math.abs(rows[best]?.[column] ?? 0)) best = r;
    }
    const pivotRow = rows[best] as number[];
    rows[best] = rows[column] as number[];
    rows[column] = pivotRow;
    const pivot = pivotRow[column] as number;
    if (Math.abs(pivot) < 1e-12) return null;
    for (let r = 0; r < n; r++) {
      if (r === column) continue;
      const row = rows[r] as number[];
      const factor = (row[column] as number) / pivot;
      for (let k = column; k <= n; k++) row[k] = (row[k] as number) - factor * (pivotRow[k] as number);
    }
  }
  return rows.map((row, i) => (row[n] as number) / (row[i] as number));
}

/**
 * Log-rank test from sorted times (Mantel 1966, hypergeometric variance).
 * @returns null where fewer than two groups hold a time or no answer can tell them apart.
 * @example logRankFromSorted(groups) // { degrees: 1, … }
 */
export function logRankFromSorted(groups: readonly SortedWaitings[]): LogRank | null {
  const firstAnswer = groups.reduce(
    (least, { answers }) => Math.min(least, answers[0] ?? Number.POSITIVE_INFINITY),
    Number.POSITIVE_INFINITY,
  );
  // A group all of whose waits ended before the first answer has nothing to say, and would make the system singular.
  const held = groups.filter(
    ({ answers, censorings }) =>
      answers.length > 0 || (censorings.length > 0 && (censorings[censorings.length - 1] as number) >= firstAnswer),
  );
  const k = held.length;
  if (k < 2) return null;
  const all = new Float64Array(held.reduce((sum, g) => sum + g.answers.length, 0));
  let filled = 0;
  for (const g of held) for (let i = 0; i < g.answers.length; i++) all[filled++] = g.answers[i] as number;
  all.sort();
  const answersPast = held.map(() => 0);
  const censoringsPast = held.map(() => 0);
  const excess = new Array<number>(k).fill(0);
  const covariance = Array.from({ length: k }, () => new Array<number>(k).fill(0));
  let i = 0;
  while (i < all.length) {
    const seconds = all[i] as number;
    let deaths = 0;
    while (i < all.length && all[i] === seconds) {
      i++;
      deaths++;
    }
    const risk: number[] = [];
    const dead: number[] = [];
    let atRisk = 0;
    held.forEach((g, j) => {
      answersPast[j] = countBelow(g.answers, answersPast[j] as number, seconds);
      censoringsPast[j] = countBelow(g.censorings, censoringsPast[j] as number, seconds);
      const r = g.answers.length + g.censorings.length - (answersPast[j] as number) - (censoringsPast[j] as number);
      let d = 0;
      while (g.answers[(answersPast[j] as number) + d] === seconds) d++;
      risk.push(r);
      dead.push(d);
      atRisk += r;
    });
    const variance = atRisk > 1 ? (deaths * (atRisk - deaths)) / (atRisk - 1) : 0;
    for (let a = 0; a < k; a++) {
      const shareA = (risk[a] as number) / atRisk;
      excess[a] = (excess[a] as number) + (dead[a] as number) - deaths * shareA;
      for (let b = 0; b < k; b++) {
        const shareB = (risk[b] as number) / atRisk;
        const row = covariance[a] as number[];
        row[b] = (row[b] as number) + variance * shareA * ((a === b ? 1 : 0) - shareB);
      }
    }
  }
  const degrees = k - 1;
  const reduced = covariance.slice(0, degrees).map((row) => row.slice(0, degrees));
  const solved = solve(reduced, excess.slice(0, degrees));
  if (solved === null) return null;
  const chiSquared = Math.max(
    0,
    solved.reduce((sum, x, j) => sum + x * (excess[j] as number), 0),
  );
  return { chiSquared, degrees, p: chiSquaredUpperTail(chiSquared, degrees) };
}

/**
 * Log-rank test of lists of waitings.
 * @returns null as {@link logRankFromSorted}.
 * @throws RangeError where a time is below 0 or not a number.
 * @example logRank(groups) // { degrees: 1, … }
 */
export function logRank(groups: readonly (readonly Waiting[])[]): LogRank | null {
  return logRankFromSorted(groups.map(sortWaitings));
}

import { mixedChance } from "../chance";
import { DRAWS, drawnEnough } from "./draws";

/** What one session adds up to: a sum over a number of trials, met answers or seconds alike. */
export interface SessionSum {
  readonly sum: number;
  readonly of: number;
}

/** The test of two lots of sessions that have nothing in common but what they measure. */
export interface SessionPermutation {
  /** Mean of the second lot less mean of the first, every trial counted once. */
  readonly difference: number;
  readonly p: number;
  /** Sessions of either lot that held anything. */
  readonly first: number;
  readonly second: number;
  /** Ways to share the sessions out among the lots: p cannot be smaller than one of them, or two where the lots are as many. */
  readonly ways: number;
}

/** Up to so many ways every one is gone through. */
const EXACT_UP_TO = 20_000;
const TOLERANCE = 1e-12;

const waysOf = (n: number, k: number): number => {
  let ways = 1;
  for (let i = 1; i <= Math.min(k, n - k); i++) ways = (ways * (n - Math.min(k, n - k) + i)) / i;
  return Math.round(ways);
};

/** Whether the split into these k of all sessions differs as much as the one seen. */
type Judge = (chosen: readonly number[]) => boolean;

function exactShare(n: number, k: number, judge: Judge): number {
  const chosen = Array.from({ length: k }, (_, i) => i);
  let asMuch = 0;
  let all = 0;
  for (;;) {
    all++;
    if (judge(chosen)) asMuch++;
    let i = k - 1;
    while (i >= 0 && chosen[i] === n - k + i) i--;
    if (i < 0) return asMuch / all;
    chosen[i] = (chosen[i] as number) + 1;
    for (let j = i + 1; j < k; j++) chosen[j] = (chosen[j - 1] as number) + 1;
  }
}

function drawnShare(n: number, k: number, judge: Judge, seed: string): number {
  const chance = mixedChance(seed);
  const order = Array.from({ length: n }, (_, i) => i);
  let asMuch = 0;
  for (let draw = 0; draw < DRAWS; draw++) {
    for (let i = 0; i < k; i++) {
      const j = i + Math.floor(chance() * (n - i));
      [order[i], order[j]] = [order[j] as number, order[i] as number];
    }
    if (judge(order.slice(0, k))) asMuch++;
  }
  // The split that was seen is one of them, so p is never 0.
  return (asMuch + 1) / (DRAWS + 1);
}

/** A session of one of two lots, with what must be alike for it to be held against one of the other. */
export interface StratifiedSum extends SessionSum {
  readonly stratum: string;
  readonly second: boolean;
}

/**
 * The same within strata: sessions change lots with those of their own stratum
 * alone, so what makes strata differ (a harder rung) makes neither lot look
 * worse. Difference and weights as between two shares, n₁n₂/(n₁ + n₂); 20 000
 * drawn shuffles, the same for the same sessions.
 * @returns null where no stratum holds both lots.
 * @example stratifiedPermutation(sums) // { first: 7, second: 7, … }
 */
export function stratifiedPermutation(sums: readonly StratifiedSum[]): Omit<SessionPermutation, "ways"> | null {
  const strata = new Map<string, StratifiedSum[]>();
  for (const one of sums) {
    if (one.of === 0) continue;
    const list = strata.get(one.stratum);
    if (list === undefined) strata.set(one.stratum, [one]);
    else list.push(one);
  }
  const told = [...strata.values()].filter((list) => list.some(({ second }) => second) && list.some(({ second }) => !second));
  if (told.length === 0) return null;
  const differenceOf = (labels: readonly (readonly boolean[])[]) => {
    let weight = 0;
    let sum = 0;
    for (const [i, list] of told.entries()) {
      const first = { sum: 0, of: 0 };
      const second = { sum: 0, of: 0 };
      for (const [j, one] of list.entries()) {
        const lot = labels[i]?.[j] ? second : first;
        lot.sum += one.sum;
        lot.of += one.of;
      }
      const w = (first.of * second.of) / (first.of + second.of);
      weight += w;
      sum += w * (second.sum / second.of - first.sum / first.of);
    }
    return sum / weight;
  };
  const own = told.map((list) => list.map(({ second }) => second));
  const difference = differenceOf(own);
  const chance = mixedChance(`strata:${told.length}:${difference.toPrecision(12)}`);
  const shuffled = own.map((list) => [...list]);
  let asMuch = 0;
  let draws = 0;
  while (draws < DRAWS) {
    if (drawnEnough(draws, asMuch)) break;
    for (const list of shuffled)
      for (let i = list.length - 1; i > 0; i--) {
        const j = Math.floor(chance() * (i + 1));
        [list[i], list[j]] = [list[j] as boolean, list[i] as boolean];
      }
    if (Math.abs(differenceOf(shuffled)) >= Math.abs(difference) - TOLERANCE) asMuch++;
    draws++;
  }
  const all = told.flat();
  return {
    difference,
    p: (asMuch + 1) / (draws + 1),
    first: all.filter(({ second }) => !second).length,
    second: all.filter(({ second }) => second).length,
  };
}

/**
 * Two lots of sessions, trials of one session resembling each other: p is the
 * share of all ways to share the sessions out among two lots of these sizes
 * whose means differ as much (the randomisation test of Pitman 1937, with the
 * session as its unit, from memory). Exact up to 20 000 ways, above that as
 * many drawn ones, the same for the same sessions.
 * It takes sessions as exchangeable: where one lot lies before the other, what
 * was learnt in between counts too, which whoever shows it has to say.
 * @returns null where a lot holds no session.
 * @example sessionPermutation([{ sum: 2, of: 10 }], [{ sum: 8, of: 10 }])?.p // 1: two sessions say nothing
 */
export function sessionPermutation(first: readonly SessionSum[], second: readonly SessionSum[]): SessionPermutation | null {
  const a = first.filter(({ of }) => of > 0);
  const b = second.filter(({ of }) => of > 0);
  if (a.length === 0 || b.length === 0) return null;
  const all = [...a, ...b];
  const total = all.reduce((so, one) => ({ sum: so.sum + one.sum, of: so.of + one.of }), { sum: 0, of: 0 });
  const differenceOf = (sum: number, of: number) => (total.sum - sum) / (total.of - of) - sum / of;
  const difference = differenceOf(
    a.reduce((so, { sum }) => so + sum, 0),
    a.reduce((so, { of }) => so + of, 0),
  );
  const seen = Math.abs(difference) - TOLERANCE;
  const judge: Judge = (chosen) => {
    let sum = 0;
    let of = 0;
    for (const i of chosen) {
      const one = all[i] as SessionSum;
      sum += one.sum;
      of += one.of;
    }
    return Math.abs(differenceOf(sum, of)) >= seen;
  };
  const ways = waysOf(all.length, a.length);
  const p =
    ways <= EXACT_UP_TO
      ? exactShare(all.length, a.length, judge)
      : drawnShare(all.length, a.length, judge, `lots:${all.length}:${a.length}:${difference.toPrecision(12)}`);
  return { difference, p, first: a.length, second: b.length, ways };
}

import { lowerMedianOf, type StratifiedSum, type SurvivalCurve, stratifiedPermutation, studentTwoSidedP, survival } from "../evidence";
import { counted } from "../words";
import { bySession, type Past, type PastTrial } from "./past";

/** Where a session turned, or that it was stopped before. */
export interface TurnOfSession {
  readonly session: number;
  /** Good answers before it turned, or until it was stopped. */
  readonly good: number;
  readonly turned: boolean;
}

/** When sessions turn, and what stopping early or late did to the next one. */
export interface GoodMoment {
  readonly turns: readonly TurnOfSession[];
  /** Good answers before a session turns; those stopped before are cut off. */
  readonly curve: SurvivalCurve | null;
  /** Whether later trials are worse than earlier ones of the same session, beyond what the session so far lets expect. */
  readonly shown: boolean;
  readonly p: number | null;
  /** Good answers between which a quarter and half of the sessions have turned; null where it is not shown, or too few ever did. */
  readonly usually: readonly [number, number] | null;
  readonly next: NextAfter | null;
  readonly sentence: string;
}

/** The first five of the next session on the behaviour, after sessions that were stopped before they turned and after those that were not. */
export interface NextAfter {
  readonly early: { readonly met: number; readonly of: number; readonly sessions: number };
  readonly late: { readonly met: number; readonly of: number; readonly sessions: number };
  readonly test: ReturnType<typeof stratifiedPermutation>;
  readonly sentence: string;
}

/** Good answers a session begins with before it can turn. */
const FEWEST_GOOD = 3;
/** A time so much longer than the session's own early ones is a slow answer (common practice, no source). */
const SLOWER = 1.5;
const FEWEST_SESSIONS = 6;
/** It is looked at after every session of a season. */
const TURNS_AT = 0.0075;
const CALLED_AT = 0.01;
const FIRST_TRIALS = 5;

/** How bad a trial is beside the session's own early ones: failed, or slower, or less easy; null where nothing tells. */
function worse(trial: PastTrial, early: { readonly seconds: number | null; readonly ease: number | null }): boolean {
  const { outcome, latencySeconds, ease } = trial;
  if (outcome === "miss" || outcome === "refused") return true;
  if (early.seconds !== null && latencySeconds !== null && latencySeconds > SLOWER * early.seconds) return true;
  return early.ease !== null && ease !== null && ease < early.ease;
}

const earlyOf = (good: readonly PastTrial[]) => ({
  seconds: lowerMedianOf(good.flatMap(({ latencySeconds }) => (latencySeconds === null ? [] : [latencySeconds]))),
  ease: lowerMedianOf(good.flatMap(({ ease }) => (ease === null ? [] : [ease]))),
});

const isGood = ({ outcome }: Pick<PastTrial, "outcome">) => outcome === "met";

/** What must be alike for one trial to be held against another: a new rung or the other side is no turn. */
const stratumOf = ({ ladder, version, rung, side }: PastTrial) => JSON.stringify([ladder, version, rung, side]);

/**
 * Where trials in this order turn: two worse ones running on one rung and side,
 * beside its own first three good answers. Good answers count over the session.
 */
function turnOf(trials: readonly PastTrial[]): { good: number; turned: boolean } | null {
  const strata = new Map<string, { early: PastTrial[]; own: ReturnType<typeof earlyOf> | null; bad: number }>();
  let good = 0;
  let told = false;
  for (const trial of trials) {
    const key = stratumOf(trial);
    const here = strata.get(key) ?? { early: [], own: null, bad: 0 };
    strata.set(key, here);
    if (here.own === null) {
      if (isGood(trial)) {
        here.early.push(trial);
        good++;
      }
      if (here.early.length === FEWEST_GOOD) {
        here.own = earlyOf(here.early);
        told = true;
      }
      continue;
    }
    here.bad = worse(trial, here.own) ? here.bad + 1 : 0;
    if (here.bad === 2) return { good, turned: true };
    if (here.bad === 0 && isGood(trial)) good++;
  }
  return told ? { good, turned: false } : null;
}

/** Work of a session that may turn: not the warm-up, not the easy one at its end. */
const workOf = (trials: readonly PastTrial[]) => trials.filter(({ kind, logged }) => kind === "work" && logged !== "late");

/** A beta: how likely a worse trial is in a session, and how much that differs from one to the next. */
interface WorseShare {
  readonly worse: number;
  readonly good: number;
}

/** Worse and other trials of one session on one rung and side. */
interface Counts {
  readonly worse: number;
  readonly good: number;
}

/** Σ log(x + i) over the i under 0, 1, 2 … most. */
function risingLogs(x: number, most: number): Float64Array {
  const sums = new Float64Array(most + 1);
  for (let i = 0; i < most; i++) sums[i + 1] = (sums[i] as number) + Math.log(x + i);
  return sums;
}

/**
 * Log of how likely each session's trials are where it has a share of its own,
 * drawn from the beta. The order of them does not count, and neither does what
 * made the trainer stop.
 */
function likelihoods(sessions: readonly Counts[], { worse, good }: WorseShare): number[] {
  const most = sessions.reduce((n, one) => Math.max(n, one.worse + one.good), 0);
  const [byWorse, byGood, byAll] = [risingLogs(worse, most), risingLogs(good, most), risingLogs(worse + good, most)];
  return sessions.map((one) => (byWorse[one.worse] as number) + (byGood[one.good] as number) - (byAll[one.worse + one.good] as number));
}

/** A beta by the share that is worse and by how many trials a session's own share counts. */
const beta = (share: number, alike: number): WorseShare => ({ worse: share * alike, good: (1 - share) * alike });

/** Sessions may weigh as little as half a trial (each wholly its own) and as much as so many (all alike). */
const [LEAST_ALIKE, MOST_ALIKE] = [0.5, 500];
/** The last step of the search, on the log odds of the share. */
const FINE = 0.005;

/** The beta under which what was seen is likeliest. */
function likeliest(sessions: readonly Counts[]): WorseShare {
  const sumOf = (of: (one: Counts) => number) => sessions.reduce((sum, one) => sum + of(one), 0);
  const at = (share: number, alike: number) => likelihoods(sessions, beta(share, alike)).reduce((x, y) => x + y, 0);
  let share = (sumOf(({ worse }) => worse) + 0.5) / (sumOf(({ worse, good }) => worse + good) + 1);
  let alike = 10;
  let [stepShare, stepAlike] = [0.8, 2];
  let best = at(share, alike);
  while (stepShare > FINE) {
    const before = best;
    for (const turn of [1, -1]) {
      const odds = (share / (1 - share)) * Math.exp(turn * stepShare);
      const found = at(odds / (1 + odds), alike);
      if (found > best) [best, share] = [found, odds / (1 + odds)];
      const n = Math.min(MOST_ALIKE, Math.max(LEAST_ALIKE, alike * Math.exp(turn * stepAlike)));
      const other = at(share, n);
      if (other > best) [best, alike] = [other, n];
    }
    if (best === before) [stepShare, stepAlike] = [stepShare / 2, stepAlike / 2];
  }
  return beta(share, alike);
}

/** A trial counts by how far into the session it lies, up to here. */
const LATE_BY = 20;
/** Half the step by which a parameter is moved, on the log, to see how the likelihood changes. */
const A_LITTLE = 0.01;

const dot = (x: readonly number[], y: readonly number[]) => x.reduce((sum, one, i) => sum + one * (y[i] as number), 0);

/** What is left of a list when what two others explain of it is taken off. */
function leftOf(u: readonly number[], v: readonly number[], w: readonly number[]): number[] {
  const [vv, ww, vw, uv, uw] = [dot(v, v), dot(w, w), dot(v, w), dot(u, v), dot(u, w)];
  const det = vv * ww - vw * vw;
  const apart = det > 1e-9 * vv * ww;
  const byV = apart ? (uv * ww - uw * vw) / det : vv > 0 ? uv / vv : 0;
  const byW = apart ? (uw * vv - uv * vw) / det : 0;
  return u.map((one, i) => one - byV * (v[i] as number) - byW * (w[i] as number));
}

/**
 * Whether later trials are worse than the session so far lets expect: a score
 * test (Rao 1948, from memory) of a chance that rises with the place in the
 * session. Each trial is held against what the trials before it, and how the
 * horse's days differ, make of its chance (a beta mixed with binomials, its
 * parameters the likeliest). So what made the trainer stop is not taken for
 * turning: on a horse that stays as it is the next trial is as likely to be
 * worse as it was said to be, whenever one stops.
 * @returns one-sided p by the spread of the sessions' sums; null where too few have worse ones.
 */
function lateWorseP(lists: readonly (readonly boolean[])[]): number | null {
  const told = lists.filter((bad) => bad.length >= 4);
  if (told.filter((bad) => bad.some(Boolean) && !bad.every(Boolean)).length < FEWEST_SESSIONS) return null;
  const counts = told.map((bad): Counts => {
    const worse = bad.filter(Boolean).length;
    return { worse, good: bad.length - worse };
  });
  const found = likeliest(counts);
  const late = told.map((bad) => {
    let { worse, good } = found;
    let sum = 0;
    for (const [i, one] of bad.entries()) {
      sum += Math.min(i, LATE_BY) * ((one ? 1 : 0) - worse / (worse + good));
      if (one) worse++;
      else good++;
    }
    return sum;
  });
  // The two parameters come from the same trials: what moving them would do is taken off.
  const moved = (worse: number, good: number) =>
    likelihoods(counts, { worse: found.worse * Math.exp(worse * A_LITTLE), good: found.good * Math.exp(good * A_LITTLE) });
  const slope = (good: number) => {
    const [up, down] = [moved(1, good), moved(-1, -good)];
    return up.map((one, i) => (one - (down[i] as number)) / (2 * A_LITTLE));
  };
  const left = leftOf(late, slope(-1), slope(1));
  const sum = left.reduce((x, y) => x + y, 0);
  const spread = Math.sqrt(dot(left, left));
  if (spread === 0) return 1;
  const half = studentTwoSidedP(sum / spread, left.length - 1) / 2;
  return sum > 0 ? half : 1 - half;
}

/** Whether each trial of a session is worse than the middle of its own rung and side, in lists whose order can be looked at. */
function worseByTrial(trials: readonly PastTrial[]): boolean[][] {
  const strata = new Map<string, PastTrial[]>();
  for (const trial of trials) {
    const list = strata.get(stratumOf(trial));
    if (list === undefined) strata.set(stratumOf(trial), [trial]);
    else list.push(trial);
  }
  return [...strata.values()].map((list) => {
    const own = earlyOf(list.filter(isGood));
    return list.map((trial) => worse(trial, own));
  });
}

/**
 * Sessions on one rung are held against each other: a rung that is too hard
 * makes both this session turn and the next begin badly.
 */
function nextAfter(lists: readonly (readonly PastTrial[])[], turns: readonly TurnOfSession[]): NextAfter | null {
  const sums = turns.flatMap(({ session, turned }): StratifiedSum[] => {
    const last = lists[session]?.at(-1);
    if (last === undefined || last.ladder === null) return [];
    const next = lists.find((list, i) => i > session && list.some((trial) => trial.ladder === last.ladder));
    const first = (next ?? []).filter(
      (trial) => trial.ladder === last.ladder && trial.version === last.version && trial.rung === last.rung,
    );
    const five = first.slice(0, FIRST_TRIALS);
    return [
      { stratum: JSON.stringify([last.ladder, last.version, last.rung]), second: turned, sum: five.filter(isGood).length, of: five.length },
    ];
  });
  const told = sums.filter(({ of }) => of > 0);
  const sumOf = (list: readonly StratifiedSum[]) => ({
    met: list.reduce((so, { sum }) => so + sum, 0),
    of: list.reduce((so, { of }) => so + of, 0),
    sessions: list.length,
  });
  const [a, b] = [sumOf(told.filter(({ second }) => !second)), sumOf(told.filter(({ second }) => second))];
  if (a.sessions < 3 || b.sessions < 3) return null;
  const test = stratifiedPermutation(told);
  const counts = `the next session's first ${FIRST_TRIALS} on the same rung: ${a.met} of ${a.of} met after sessions stopped before they turned, ${b.met} of ${b.of} after those that had turned`;
  return {
    early: a,
    late: b,
    test,
    sentence:
      test !== null && test.p < CALLED_AT
        ? `A difference, ${counts}. A bad day may be behind both.`
        : `No difference shown yet in ${counts}.`,
  };
}

/**
 * When to stop: after how many good answers a session turns, by its own early
 * trials on the same rung and side. A session turns where two running failed, took half as long again as
 * its first good ones or were less easy. Most are stopped before, and such a
 * session is cut off there (Kaplan & Meier 1958). Whether sessions turn at all
 * is asked first: any order of trials has two bad ones running somewhere, so
 * later trials have to be worse than the session so far lets expect, at p under 0.0075.
 * @example goodMoment(past).usually // [8, 14]
 */
export function goodMoment(past: Past): GoodMoment {
  const lists = bySession(past).map(workOf);
  const turns = lists.flatMap((trials, session): TurnOfSession[] => {
    const turn = turnOf(trials);
    return turn === null ? [] : [{ session, ...turn }];
  });
  const curve = turns.length === 0 ? null : survival(turns.map(({ good, turned }) => ({ seconds: good, answered: turned })));
  const p = lateWorseP(lists.flatMap(worseByTrial));
  const shown = p !== null && p < TURNS_AT;
  const at = (share: number) => curve?.steps.find(([, left]) => left <= 1 - share + 1e-12)?.[0] ?? null;
  const [quarter, half] = [at(0.25), at(0.5)];
  const usually = shown && quarter !== null ? ([quarter, half ?? quarter] as const) : null;
  const turned = turns.filter((turn) => turn.turned).length;
  const counts = `${turned} of ${counted(turns.length, "session")} turned, the others were stopped before and say only that they had not turned yet`;
  const sentence =
    p === null
      ? `Too few sessions to tell when this horse turns: ${FEWEST_SESSIONS} with good and bad answers are needed.`
      : !shown
        ? `Later asks are no worse than earlier ones, as far as is shown: ${counts}.`
        : usually === null
          ? `Later asks get worse, but too few sessions went on until it turned: ${counts}.`
          : half === null
            ? `A quarter of sessions turn within ${counted(usually[0], "good answer")}: ${counts}.`
            : `Usually turns after ${usually[0]} to ${usually[1]} good answers: ${counts}.`;
  return { turns, curve, shown, p, usually, next: nextAfter(lists, turns), sentence };
}

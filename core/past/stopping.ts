import { mixedChance } from "../chance";
import { type StratifiedSum, type SurvivalCurve, stratifiedPermutation, survival } from "../evidence";
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
  /** Whether later trials are worse than earlier ones of the same session, beyond what shuffled trials show. */
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
const SHUFFLES = 1000;
const CALLED_AT = 0.01;
const FIRST_TRIALS = 5;

const median = (list: readonly number[]): number | null => {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted.length === 0 ? null : (sorted[Math.floor((sorted.length - 1) / 2)] as number);
};

/** How bad a trial is beside the session's own early ones: failed, or slower, or less easy; null where nothing tells. */
function worse(trial: PastTrial, early: { readonly seconds: number | null; readonly ease: number | null }): boolean {
  const { outcome, latencySeconds, ease } = trial;
  if (outcome === "miss" || outcome === "refused") return true;
  if (early.seconds !== null && latencySeconds !== null && latencySeconds > SLOWER * early.seconds) return true;
  return early.ease !== null && ease !== null && ease < early.ease;
}

const earlyOf = (good: readonly PastTrial[]) => ({
  seconds: median(good.flatMap(({ latencySeconds }) => (latencySeconds === null ? [] : [latencySeconds]))),
  ease: median(good.flatMap(({ ease }) => (ease === null ? [] : [ease]))),
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

/** A session's order as a shuffle needs it: how many trials, and how many of them are the fewer kind. */
interface Order {
  /** Places, changed about by every shuffle. */
  readonly places: Uint32Array;
  readonly few: number;
}

/**
 * Share of shuffles, within sessions, in which worse trials lie as late: the
 * sum over sessions of the places of worse ones, less what their number would
 * give, as a share of the session. Only the order within a session counts, so
 * good and bad days do not. Where the good ones are fewer they are drawn: the
 * two sums are each other's opposite, and a shuffle gives either as often as its
 * opposite. Cost grows with the fewer of the two.
 */
function shuffledP(lists: readonly (readonly boolean[])[]): number | null {
  const told = lists.filter((bad) => bad.length >= 4 && bad.some(Boolean) && !bad.every(Boolean));
  if (told.length < FEWEST_SESSIONS) return null;
  let seen = 0;
  const orders = told.map((bad): Order => {
    const n = bad.length;
    let worse = 0;
    for (let i = 0; i < n; i++) {
      if (!bad[i]) continue;
      worse++;
      seen += (i - (n - 1) / 2) / n;
    }
    return { places: Uint32Array.from({ length: n }, (_, i) => i), few: Math.min(worse, n - worse) };
  });
  const chance = mixedChance(`turn:${told.length}:${seen.toPrecision(12)}`);
  let asMuch = 0;
  for (let s = 0; s < SHUFFLES; s++) {
    let late = 0;
    for (const { places, few } of orders) {
      const n = places.length;
      let sum = 0;
      for (let i = 0; i < few; i++) {
        const j = i + Math.floor(chance() * (n - i));
        const place = places[j] as number;
        places[j] = places[i] as number;
        places[i] = place;
        sum += place;
      }
      late += (sum - (few * (n - 1)) / 2) / n;
    }
    if (late >= seen - 1e-9) asMuch++;
  }
  return (asMuch + 1) / (SHUFFLES + 1);
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
 * later trials have to be worse than shuffled ones at p under 0.01.
 * @example goodMoment(past).usually // [8, 14]
 */
export function goodMoment(past: Past): GoodMoment {
  const lists = bySession(past).map(workOf);
  const turns = lists.flatMap((trials, session): TurnOfSession[] => {
    const turn = turnOf(trials);
    return turn === null ? [] : [{ session, ...turn }];
  });
  const curve = turns.length === 0 ? null : survival(turns.map(({ good, turned }) => ({ seconds: good, answered: turned })));
  const p = shuffledP(lists.flatMap(worseByTrial));
  const shown = p !== null && p < CALLED_AT;
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

import { fisherExact, shareDifference, shrinkByKind } from "../evidence";
import type { LadderPlan } from "../ladder";
import { difficulty, type Strand, type StrandKey, type StrandValue } from "../strands";
import { counted } from "../words";
import type { Past, PastTrial } from "./past";

/** How many trials are looked at before and after a raise. */
export const AROUND_A_RAISE = 10;
/** Trials by which it is told how it likely went before: those that met the rule were picked for having gone well. */
const LIKELY_OF = 20;
/** Fewest on either hand for a raise to be held against its past. */
const FEWEST_AROUND = 5;

/** A ladder's plan by the version it is. */
export type PlanOf = (ladder: string, version: number) => LadderPlan | undefined;

/** A strand that got harder. */
export interface HarderStrand {
  readonly key: StrandKey;
  readonly name: string;
  readonly from: StrandValue;
  readonly to: StrandValue;
  readonly unit: string;
  /** Several strands of its own making share the key `own`, so the name tells them apart. */
  readonly kind: string;
}

/** A step up, with what it cost. */
export interface Raise {
  readonly ladder: string;
  readonly version: number;
  readonly from: number;
  readonly to: number;
  readonly side: "L" | "R" | null;
  readonly session: number;
  readonly wallMs: number;
  readonly harder: readonly HarderStrand[];
  /** Met of the last trials before, at most ten. */
  readonly before: { readonly met: number; readonly of: number };
  /** Met of the last on that rung before, at most twenty: what it likely was. */
  readonly likely: { readonly met: number; readonly of: number };
  /** Met of the first after, at most ten. */
  readonly after: { readonly met: number; readonly of: number };
  /** Trials on the new rung, until it was left or the span ended. */
  readonly asks: number;
  /** Asks before the first run of trials, as long as the one before, that was as good; null where none was. */
  readonly cost: number | null;
  /** The word that stood, where any was said in that session before it; whether it was taken. */
  readonly word: { readonly word: string; readonly taken: boolean } | null;
  /** Whether the word spoke for staying, easing or stopping. */
  readonly againstWord: boolean;
  /** The rung was left downwards before it was as good again. */
  readonly wentBack: boolean;
}

const kindOf = ({ key, name }: Strand) => (key === "own" ? `own ${name}` : key);

/**
 * The strands that get harder from one rung of a plan to another, rungs counted from 1.
 * @example harderStrands(plan, 3, 4) // 3 of them
 */
export function harderStrands(plan: LadderPlan, from: number, to: number): HarderStrand[] {
  const [before, after] = [plan.rungs[from - 1], plan.rungs[to - 1]];
  if (before === undefined || after === undefined) return [];
  return plan.strands.flatMap((strand) => {
    const [a, b] = [before.values[strand.id], after.values[strand.id]];
    if (a === undefined || b === undefined) return [];
    // A level that was taken out of the strand has no place on it any more.
    if (strand.kind === "levels" && !(strand.levels.includes(String(a)) && strand.levels.includes(String(b)))) return [];
    return difficulty(strand, b) > difficulty(strand, a)
      ? [{ key: strand.key, name: strand.name, from: a, to: b, unit: strand.unit, kind: kindOf(strand) }]
      : [];
  });
}

const metOf = (trials: readonly PastTrial[]) => trials.filter(({ outcome }) => outcome === "met").length;

/** Asks before the first window of trials as good as the one before; null where none was. A rung left sooner is judged by what it had. */
function costOf(before: { readonly met: number; readonly of: number }, after: readonly PastTrial[]): number | null {
  const window = Math.min(before.of, after.length);
  let met = 0;
  for (const [i, trial] of after.entries()) {
    if (trial.outcome === "met") met++;
    if (i >= window && after[i - window]?.outcome === "met") met--;
    if (i >= window - 1 && met * before.of >= before.met * window) return i + 1 - window;
  }
  return null;
}

const SPOKE_AGAINST = ["Stay", "Ease", "Rest", "Finish", "Stop", "Change side"];

/** A trial worked on a rung of a ladder. */
type WorkedTrial = PastTrial & { readonly ladder: string; readonly version: number; readonly rung: number };
const isWorked = (trial: PastTrial): trial is WorkedTrial =>
  trial.ladder !== null && trial.version !== null && trial.rung !== null && trial.kind === "work";

/** Trials on one rung, one after the other: never none. */
type Run = [WorkedTrial, ...WorkedTrial[]];

/** Runs of work on one rung of one ladder, sides apart, oldest first. */
function runsOf(past: Past): Run[] {
  const byLadder = new Map<string, Run[]>();
  const all: Run[] = [];
  for (const trial of past.trials) {
    if (!isWorked(trial)) continue;
    const key = `${trial.ladder} ${trial.side}`;
    const runs = byLadder.get(key) ?? [];
    const run = runs.at(-1);
    if (run?.[0].rung === trial.rung && run[0].version === trial.version) run.push(trial);
    else {
      const begun: Run = [trial];
      runs.push(begun);
      all.push(begun);
    }
    byLadder.set(key, runs);
  }
  return all;
}

/** The newest run before one of which this holds, of its rung and version. */
function newestBefore(list: readonly Run[], i: number, holds: (first: WorkedTrial) => boolean): Run | undefined {
  for (let j = i - 1; j >= 0; j--) {
    const run = list[j];
    if (run !== undefined && holds(run[0])) return run;
  }
  return undefined;
}

/**
 * Every step up of a past, oldest first: what changed, the share before and
 * after, and how many asks it took until as many trials in a row were as good
 * as the ones before. A step is counted where both hands hold five trials; an
 * easier rung in between (the one a session ends on) is passed over.
 * @example raisesOf(past, planOf) // []
 */
export function raisesOf(past: Past, planOf: PlanOf): Raise[] {
  const runs = runsOf(past);
  const raises: Raise[] = [];
  const byKey = new Map<string, Run[]>();
  for (const run of runs) {
    const [first] = run;
    const key = `${first.ladder} ${first.side}`;
    const list = byKey.get(key);
    if (list === undefined) byKey.set(key, [run]);
    else list.push(run);
  }
  for (const list of byKey.values()) {
    let top: { version: number; rung: number } | null = null;
    for (const [i, run] of list.entries()) {
      const [first] = run;
      const { version, rung } = first;
      if (top !== null && top.version === version && top.rung >= rung) continue;
      top = { version, rung };
      const earlier = newestBefore(list, i, (one) => one.version === version && one.rung < rung);
      if (earlier === undefined) continue;
      const last = earlier.slice(-AROUND_A_RAISE);
      // What was asked on the new rung over all, easier ends of sessions passed over.
      const after: PastTrial[] = [];
      let wentBack = false;
      for (let j = i; j < list.length; j++) {
        const later = list[j];
        const at = later?.[0];
        if (later === undefined || at === undefined || at.version !== version || at.rung > rung) break;
        if (at.rung === rung) {
          after.push(...later);
        } else if (later.length >= FEWEST_AROUND) {
          wentBack = true;
          break;
        }
      }
      if (last.length < FEWEST_AROUND || after.length < FEWEST_AROUND) continue;
      const plan = planOf(first.ladder, version);
      const before = { met: metOf(last), of: last.length };
      const earlierRung = earlier[0].rung;
      const lastTwenty: PastTrial[] = [];
      for (let j = i - 1; j >= 0 && lastTwenty.length < LIKELY_OF; j--) {
        const one = list[j];
        if (one?.[0].version === version && one[0].rung === earlierRung) lastTwenty.unshift(...one);
      }
      lastTwenty.splice(0, lastTwenty.length - LIKELY_OF);
      const session = past.sessions[first.session];
      // What stood before the step: on the new rung the recorder says a word of its own, which is none about going there.
      const begunMs = session?.facts.blocks.findLast(({ startMs }) => startMs <= first.askMs)?.startMs ?? first.askMs;
      const said = session?.facts.words.findLast(({ ms }) => ms <= begunMs);
      const cost = costOf(before, after);
      raises.push({
        ladder: first.ladder,
        version,
        from: earlierRung,
        to: rung,
        side: first.side,
        session: first.session,
        wallMs: (session?.startedMs ?? 0) + first.askMs,
        harder: plan === undefined ? [] : harderStrands(plan, earlierRung, rung),
        before,
        likely: { met: metOf(lastTwenty), of: lastTwenty.length },
        after: { met: metOf(after.slice(0, AROUND_A_RAISE)), of: Math.min(AROUND_A_RAISE, after.length) },
        asks: after.length,
        cost,
        word: said === undefined ? null : { word: said.word, taken: said.taken },
        againstWord: said !== undefined && !said.taken && SPOKE_AGAINST.includes(said.word),
        wentBack: wentBack && cost === null,
      });
    }
  }
  return raises.sort((a, b) => a.wallMs - b.wallMs);
}

/** What a step of one kind of strand costs this horse. */
export interface ChangeCost {
  readonly kind: string;
  readonly name: string;
  readonly raises: number;
  /** Of these so many were never as good again: they count as at least what was asked. */
  readonly open: number;
  readonly asks: number;
  readonly interval: readonly [number, number];
  /** Mean of its own raises alone, as asks. */
  readonly ownAsks: number;
}

/** What changes cost a horse, over all of its raises. */
export interface ChangeCosts {
  readonly kinds: readonly ChangeCost[];
  /** A step of any kind. */
  readonly asks: number;
  readonly raises: number;
}

const asksOf = (log: number) => Math.max(0, 2 ** log - 1);

/**
 * Asks a step costs by what got harder, each kind drawn towards all raises of
 * this horse (see {@link shrinkByKind}), on the logarithm of asks and one.
 * A step never as good again counts as the asks it had, so it costs at least
 * that much. Steps in which more than one strand rose count for none.
 * @returns null where there are too few to tell kinds from chance.
 * @example changeCosts(raises) // { raises: 11, … }
 */
export function changeCosts(raises: readonly Raise[]): ChangeCosts | null {
  const told = raises.flatMap((raise) => {
    const [strand] = raise.harder;
    if (raise.harder.length !== 1 || strand === undefined) return [];
    return [{ key: strand.kind, name: strand.name, value: Math.log2(1 + (raise.cost ?? raise.asks)), open: raise.cost === null }];
  });
  const shrunk = shrinkByKind(told);
  if (shrunk === null) return null;
  return {
    asks: asksOf(shrunk.mean),
    raises: told.length,
    kinds: shrunk.groups
      .map(({ key, n, own, shrunk: mean, interval }) => {
        const of = told.filter((one) => one.key === key);
        return {
          kind: key,
          name: of[0]?.name ?? key,
          raises: n,
          open: of.filter(({ open }) => open).length,
          asks: asksOf(mean),
          interval: [asksOf(interval[0]), asksOf(interval[1])] as const,
          ownAsks: asksOf(own),
        };
      })
      .sort((a, b) => b.asks - a.asks),
  };
}

/** From how many asks a step is worth a split, where it costs that many more than this horse's usual (common practice, no source). */
export const SPLIT_FROM_ASKS = 15;

/**
 * What stands before a rung, in words; null where nothing can be said.
 * @example beforeARung(plan, 3, costs) // "A step in reach cost this horse about 1 ask (1 to 2, from 6)."
 */
export function beforeARung(plan: LadderPlan, rung: number, costs: ChangeCosts | null): string | null {
  const harder = harderStrands(plan, rung - 1, rung);
  if (costs === null || harder.length === 0) return null;
  const parts = harder.flatMap(({ kind, name }) => {
    const cost = costs.kinds.find((one) => one.kind === kind);
    return cost === undefined ? [] : [{ name, cost }];
  });
  if (parts.length === 0) return null;
  const said = parts.map(
    ({ name, cost }) =>
      `${name.toLowerCase()} cost this horse about ${counted(Math.round(cost.asks), "ask")} (${Math.round(cost.interval[0])} to ${Math.round(cost.interval[1])}, from ${cost.raises})`,
  );
  const dear = parts.some(({ cost }) => cost.interval[0] >= SPLIT_FROM_ASKS);
  return `A step in ${said.join("; in ")}.${dear || harder.length > 1 ? " Split it." : ""}`;
}

/** How a step up went, in words. */
export interface RaiseTold {
  /** The first ten after are worse than it likely was before, beyond what so many can do by chance. */
  readonly fell: boolean;
  readonly sentence: string;
}

/**
 * Whether a step was too soon or too big: the first trials after it held
 * against what it likely was before (Newcombe 1998, method 10). Steps are
 * mostly taken after a good run, which by chance alone is followed by a worse
 * one, so the last twenty on the rung count, with a flat prior, as the advice
 * to go up has it, and a drop within the interval is said to be none.
 * @example raiseTold(raise).fell // true
 */
export function raiseTold({ likely, after, cost, asks, wentBack }: Raise): RaiseTold {
  const difference = shareDifference({ met: likely.met + 3, of: likely.of + 6 }, after);
  const fell = difference !== null && difference.interval[1] < 0;
  const regained =
    cost === null
      ? wentBack
        ? `left again after ${counted(asks, "ask")}`
        : `not as good again in ${counted(asks, "ask")}`
      : cost === 0
        ? "as good at once"
        : `as good again after ${counted(cost, "ask")}`;
  return { fell, sentence: `${fell ? "Too soon or too big" : "No drop shown"}; ${regained}.` };
}

/** Steps taken against the word beside those that were not. */
export interface AdviceAndRaises {
  readonly against: { readonly fell: number; readonly of: number };
  readonly otherwise: { readonly fell: number; readonly of: number };
  /** Fisher's exact test, each step for itself. */
  readonly p: number | null;
  readonly sentence: string;
}

/** Whether steps against the word fell more often. Called at p < 0.05. @example adviceAndRaises(raises).p // 0.24 */
export function adviceAndRaises(raises: readonly Raise[]): AdviceAndRaises {
  const said = raises.filter(({ word }) => word !== null);
  const countOf = (list: readonly Raise[]) => ({ fell: list.filter((raise) => raiseTold(raise).fell).length, of: list.length });
  const against = countOf(said.filter(({ againstWord }) => againstWord));
  const otherwise = countOf(said.filter(({ againstWord }) => !againstWord));
  if (against.of === 0 || otherwise.of === 0)
    return {
      against,
      otherwise,
      p: null,
      sentence: against.of === 0 ? "You never went up before the app said so." : "You went up before the app said so every time.",
    };
  const p = fisherExact(against.fell, against.of - against.fell, otherwise.fell, otherwise.of - otherwise.fell);
  const counts = `${against.fell} of ${against.of} steps before the app said so were too soon or too big, ${otherwise.fell} of ${otherwise.of} others`;
  return { against, otherwise, p, sentence: `${p < 0.05 ? "Shown" : "No difference shown yet"}: ${counts}.` };
}

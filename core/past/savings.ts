import { type Interval, signFlip, student975 } from "../evidence";
import { type MasteryRule, passedAfter } from "../mastery";
import { counted } from "../words";
import type { Past, PastTrial } from "./past";
import type { PlanOf } from "./raises";

/** What came second: another side, another person, the same rung after weeks. */
export type SavingKind = "side" | "person" | "rest";

/** A rung learned twice. */
export interface Relearned {
  readonly kind: SavingKind;
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
  /** What came first and second, by side, person or days of rest. */
  readonly first: string;
  readonly second: string;
  /** Asks until the rule held. */
  readonly firstAsks: number;
  /** Of the second time; `open` where the rule was not reached, so that it is at least this. */
  readonly secondAsks: number;
  readonly open: boolean;
}

/** What learning something a second time saves. */
export interface Savings {
  readonly kind: SavingKind;
  readonly rungs: readonly Relearned[];
  /** 1 − second over first, by the geometric mean of the ratios. */
  readonly saving: number | null;
  /** 95 %; null under three rungs. */
  readonly interval: Interval | null;
  readonly p: number | null;
  readonly sentence: string;
}

/** A rest between two sessions on a rung from which it is learned again, in days (common practice, no source). */
export const REST_FROM_DAYS = 14;
const FEWEST_RUNGS = 3;
const CALLED_AT = 0.05;

interface RungKey {
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
}

const KINDS: Readonly<Record<SavingKind, { readonly second: string; readonly none: string }>> = {
  side: { second: "The second side", none: "No rung was learned on both sides in this span." },
  person: { second: "A second person", none: "No rung was learned with two people in this span." },
  rest: { second: `The same rung after ${REST_FROM_DAYS} days of rest or more`, none: "No rung was taken up again after a rest of weeks." },
};

function byRung({ trials }: Past): [RungKey, PastTrial[]][] {
  const rungs = new Map<string, [RungKey, PastTrial[]]>();
  for (const trial of trials) {
    const { ladder, version, rung, kind } = trial;
    if (ladder === null || version === null || rung === null || kind !== "work") continue;
    const key = JSON.stringify([ladder, version, rung]);
    const found = rungs.get(key);
    if (found === undefined) rungs.set(key, [{ ladder, version, rung }, [trial]]);
    else found[1].push(trial);
  }
  return [...rungs.values()];
}

/** Trials of a rung by what may come first and second; each list in the order it was worked. */
function partsOf(kind: SavingKind, trials: readonly PastTrial[], past: Past): [string, PastTrial[]][] {
  if (kind !== "rest") {
    const parts = new Map<string, PastTrial[]>();
    for (const trial of trials) {
      const key = kind === "side" ? trial.side : trial.handler;
      if (key === null) continue;
      const list = parts.get(key);
      if (list === undefined) parts.set(key, [trial]);
      else list.push(trial);
    }
    return [...parts];
  }
  const started = (trial: PastTrial) => past.sessions[trial.session]?.startedMs ?? 0;
  const cut = trials.findIndex((trial, i) => i > 0 && started(trial) - started(trials[i - 1] as PastTrial) >= REST_FROM_DAYS * 86_400_000);
  if (cut < 0) return [];
  const days = Math.round((started(trials[cut] as PastTrial) - started(trials[cut - 1] as PastTrial)) / 86_400_000);
  return [
    ["before", trials.slice(0, cut)],
    [String(days), trials.slice(cut)],
  ];
}

const asks = (rule: MasteryRule, trials: readonly PastTrial[], past: Past) =>
  passedAfter(
    rule,
    trials.map((trial) => ({
      met: trial.outcome === "met",
      clean: trial.clean,
      blockKey: `${trial.session} ${trial.block}`,
      wallMs: (past.sessions[trial.session]?.startedMs ?? 0) + trial.askMs,
    })),
  );

/** Rungs that were learned twice: the rule held the first time, and there was a second. */
function relearned(kind: SavingKind, past: Past, planOf: PlanOf): Relearned[] {
  return byRung(past).flatMap(([key, trials]) => {
    const rule = planOf(key.ladder, key.version)?.mastery;
    const [first, second] = partsOf(kind, trials, past);
    if (rule === undefined || first === undefined || second === undefined) return [];
    // A rule that asks for different days would count days and not asks.
    const oneDay = { ...rule, days: 1 };
    const firstAsks = asks(oneDay, first[1], past);
    if (firstAsks === null) return [];
    const secondAsks = asks(oneDay, second[1], past);
    // What was only begun says nothing.
    if (secondAsks === null && second[1].length < firstAsks) return [];
    return [
      {
        kind,
        ...key,
        first: first[0],
        second: second[0],
        firstAsks,
        secondAsks: secondAsks ?? second[1].length,
        open: secondAsks === null,
      },
    ];
  });
}

/**
 * How many asks less something takes the second time (savings, Ebbinghaus
 * 1885): 1 − second over first, over rungs by the geometric mean, with the t
 * interval of the logarithms and the exact test of their signs. A rung not
 * learned the second time counts with the asks it had, which is too few.
 * @example savingsOf("side", past, planOf).sentence
 */
export function savingsOf(kind: SavingKind, past: Past, planOf: PlanOf): Savings {
  const rungs = relearned(kind, past, planOf);
  const n = rungs.length;
  const { second, none } = KINDS[kind];
  if (n === 0) return { kind, rungs, saving: null, interval: null, p: null, sentence: none };
  const logs = rungs.map(({ firstAsks, secondAsks }) => Math.log(secondAsks / firstAsks));
  const mean = logs.reduce((sum, one) => sum + one, 0) / n;
  const saving = 1 - Math.exp(mean);
  const p = signFlip(logs.map((difference) => ({ difference, weight: 1 })))?.p ?? null;
  if (n < FEWEST_RUNGS)
    return { kind, rungs, saving, interval: null, p, sentence: `${second}: ${counted(n, "rung")} learned twice, too few to tell.` };
  const deviation = Math.sqrt(logs.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (n - 1));
  const reach = (student975(n - 1) * deviation) / Math.sqrt(n);
  const interval: Interval = [1 - Math.exp(mean + reach), 1 - Math.exp(mean - reach)];
  const words = (share: number) => `${Math.round(Math.abs(share) * 100)} %`;
  const shown = p !== null && p < CALLED_AT && (interval[0] > 0 || interval[1] < 0);
  const sentence = !shown
    ? `${second}: no saving shown yet over ${counted(n, "rung")}.`
    : saving > 0
      ? `${second} takes ${words(saving)} fewer asks, over ${counted(n, "rung")}. There is no need to begin lower.`
      : `${second} takes ${words(saving)} more asks, over ${counted(n, "rung")}. Begin a rung lower.`;
  return { kind, rungs, saving, interval, p, sentence };
}

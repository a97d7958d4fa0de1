import type { SessionRecord } from "../record/reduce";
import { secondsWithoutBreaks } from "../record/time";
import type { Advice, AdviceWord } from "./advice";
import { adviceOfKey } from "./keys";

/** A word that was said in the session and not taken. */
export interface DeclinedAdvice {
  readonly word: AdviceWord;
  /** Why it was said; see Advice. */
  readonly why: string;
  readonly numbers: Readonly<Record<string, number>>;
  /** Trials of the running block when it was set aside; 0 where that was before the block began. */
  readonly inBlock: number;
  /** Whether it was said in the running block. */
  readonly thisBlock: boolean;
  /** Trials of the session since then. */
  readonly trialsSince: number;
  /** When, in milliseconds from the start of work, and after how many minutes of it. */
  readonly ms: number;
  readonly minutes: number;
}

/** Words that call for nothing, or that the stop card answers. */
const NOT_DECLINED: ReadonlySet<string> = new Set(["Repeat", "Stop"]);

interface Standing {
  readonly word: string;
  readonly why: string;
  readonly numbers: Readonly<Record<string, number>>;
  readonly ms: number;
  readonly trials: number;
  readonly block: number;
}

/**
 * The words of a session that were declined, oldest first: something else was
 * done, or the block they stood in ended without them. A word that gave way to
 * another in its block was neither taken nor declined.
 * @example declinedAdvice(record) // 2 of them
 */
export function declinedAdvice(record: SessionRecord): DeclinedAdvice[] {
  const found: Standing[] = [];
  let standing: Standing | null = null;
  let trials = 0;
  let block = 0;
  let blockBegan = 0;
  for (const fact of record.facts) {
    if (fact.type === "ask" || fact.type === "trial") trials++;
    else if (fact.type === "block.start" || fact.type === "block.end") {
      if (standing !== null) found.push({ ...(standing as Standing), trials });
      standing = null;
      if (fact.type === "block.end") continue;
      block++;
      blockBegan = trials;
    } else if (fact.type === "word") {
      const { why = "", numbers = {}, taken, did } = fact.payload;
      const word = adviceOfKey(fact.payload.word);
      standing = null;
      if (taken === true || NOT_DECLINED.has(word)) continue;
      const said = { word, why, numbers: numbers as Record<string, number>, ms: fact.ms, trials, block };
      if (did === undefined) standing = said;
      else found.push(said);
    }
  }
  return found.map(({ word, why, numbers, ms, trials: at, block: said }) => ({
    word: word as AdviceWord,
    why,
    numbers,
    inBlock: said === block ? at - blockBegan : 0,
    thisBlock: said === block,
    trialsSince: trials - at,
    ms,
    minutes: secondsWithoutBreaks(0, Math.max(0, ms), record.timeLine.breaks) / 60,
  }));
}

/**
 * The newest decline of a word for a reason, or undefined.
 * @example declineOf(declined, "Go back", "failures") // { word: "Go back", why: "failures", inBlock: 0, … }
 */
export const declineOf = (declined: readonly DeclinedAdvice[] | undefined, word: AdviceWord, why: string): DeclinedAdvice | undefined =>
  declined?.findLast((one) => one.word === word && one.why === why);

/** How often a word was declined for a reason. @example timesDeclined(declined, "Go back", "failures") // 1 */
export const timesDeclined = (declined: readonly DeclinedAdvice[] | undefined, word: AdviceWord, why: string): number =>
  declined?.filter((one) => one.word === word && one.why === why).length ?? 0;

/** By how much a number must have grown since a word was declined for it to be said again. */
const GROWN: Readonly<Record<string, (before: Readonly<Record<string, number>>, now: Readonly<Record<string, number>>) => boolean>> = {
  "session minutes": (before, now) => (now.minutes ?? 0) >= (before.minutes ?? 0) + 3,
  plan: (before, now) => (now.trials ?? 0) >= (before.trials ?? 0) + Math.max(3, 0.5 * (before.of ?? 0)),
  "wrong choices": (before, now) => (now.wrong ?? 0) >= (before.wrong ?? 0) + 2,
  eases: (before, now) => (now.eases ?? 0) > (before.eases ?? 0),
  "planned share": (before, now) => (now.here ?? 0) >= (before.here ?? 0) + (before.planned ?? 1),
  "weaker side": (before, now) => (now.here ?? 0) >= (before.here ?? 0) + 5,
};

/**
 * Whether a word may be said: it was not declined in this session for the same
 * reason, or what speaks for it has grown by a stated step since.
 * @example mayBeSaid(advice) // true
 */
export function mayBeSaid(advice: Advice, declined: readonly DeclinedAdvice[] | undefined): boolean {
  const before = declineOf(declined, advice.word, advice.why);
  return before === undefined || (GROWN[advice.why]?.(before.numbers, advice.numbers) ?? false);
}

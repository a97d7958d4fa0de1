import { FEWEST_TRIALS_TO_TELL, wilsonInterval } from "../evidence";
import type { LadderPlan } from "../ladder";
import { type MasteryProgress, type MasteryRule, masteryProgress, masterySentence, progressByValues } from "../mastery";
import { shortNumber } from "../strands";
import type { Cap } from "../welfare/restrictions";
import { asMasteryTrials, type EvidenceTrial, valuesOf } from "./evidence-scope";

/** The words, from the one that comes first to the one that comes last. */
export const WORDS = ["Rest", "Finish", "Ease", "Raise", "Stay"] as const;
export type Word = (typeof WORDS)[number];

/** A word with its one-line reason and the numbers in it. It advises and never acts by itself. */
export interface Advice {
  readonly word: Word;
  readonly reason: string;
  readonly numbers: Readonly<Record<string, number>>;
}

/** Every threshold of the word. All are settings; the defaults are common practice, no source, unless docs/measures.md says otherwise. */
export interface WordSettings {
  /** Minutes of work after which a rest is due. */
  readonly restAfterMinutes: number;
  /** Trials after which a rest is due. */
  readonly restAfterTrials: number;
  /** Minutes of work after which it is time to finish. */
  readonly finishAfterMinutes: number;
  /** Misses and refusals running that call for easing. */
  readonly easeRun: number;
  /** Misses and refusals among the last `easeWindow` trials that call for easing. */
  readonly easeMisses: number;
  readonly easeWindow: number;
  /** How many trials a word stands before a lower one may take its place. */
  readonly standsForTrials: number;
}

export const DEFAULT_WORD_SETTINGS: WordSettings = {
  restAfterMinutes: 8,
  restAfterTrials: 30,
  finishAfterMinutes: 20,
  easeRun: 3,
  easeMisses: 4,
  easeWindow: 7,
  standsForTrials: 3,
};

/** The goal of a rung whose bar follows the horse's own values. */
export interface ValuesGoal {
  readonly lookBack: number;
  readonly value: number;
  readonly unit: string;
  readonly harder: "more" | "less";
}

/** The goal of a rung, counted from 1, or null where its bar stands still. */
export function valuesGoalOf(plan: LadderPlan, rung: number): ValuesGoal | null {
  const setting = plan.rungs[rung - 1]?.percentile;
  const strand = plan.strands.find(({ id }) => id === plan.workingStrandId);
  const value = strand === undefined ? undefined : plan.rungs[rung - 1]?.values[strand.id];
  if (setting === undefined || strand === undefined || typeof value !== "number") return null;
  return { lookBack: setting.lookBack, value, unit: strand.unit, harder: strand.harder };
}

/** Progress of a list of trials under the rung's rule, or by its values where its bar follows them. */
export function progressOf(rule: MasteryRule, byValues: ValuesGoal | null, trials: readonly EvidenceTrial[]): MasteryProgress {
  return byValues === null
    ? masteryProgress(rule, asMasteryTrials(trials))
    : progressByValues(valuesOf(trials), byValues.lookBack, byValues);
}

/** When the word would be Ease, in words for a card that is read without the app. */
export function easeSentence({ easeRun, easeMisses, easeWindow }: WordSettings = DEFAULT_WORD_SETTINGS): string {
  return `${easeRun} in a row missed or refused, or ${easeMisses} of the last ${easeWindow}: go one rung back.`;
}

/** How a rung is left, in words. */
export function movingOnSentence(rule: MasteryRule, byValues: ValuesGoal | null): string {
  if (byValues === null) return masterySentence(rule);
  const unit = byValues.unit === "" ? "" : ` ${byValues.unit}`;
  return `median of the last ${byValues.lookBack} at ${shortNumber(byValues.value)}${unit}`;
}

/** What the word looks at. */
export interface WordInput {
  readonly rule: MasteryRule;
  /** Whether the rung asks for both sides: the rule must then hold on each. */
  readonly bothSides: boolean;
  /** Where the rung's bar follows the horse's own values: moving on is then judged by them, and shares call for no easing. Null otherwise. */
  readonly byValues?: ValuesGoal | null;
  readonly rung: number;
  readonly rungCount: number;
  /** Evidence of this rung from earlier blocks, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  /** Trials of the running block, oldest first. */
  readonly block: readonly EvidenceTrial[];
  /** Whether the running block counts for moving on: a work block. */
  readonly counts: boolean;
  readonly minutesSinceRest: number;
  readonly trialsSinceRest: number;
  readonly workMinutes: number;
  /** Limits of restrictions and age on the whole session, with where they come from; left out where there are none. */
  readonly limits?: { readonly minutes: Cap<number> | null; readonly trials: Cap<number> | null; readonly sessionTrials: number };
  /** Why the next rung may not be worked today; left out or null where it may. */
  readonly nextBarred?: string | null;
}

const percent = (share: number) => Math.round(share * 100);

/** "8 of 10, could be anywhere from 49 to 94 %", or that they are too few to tell. */
export function shareSentence(met: number, of: number): string {
  const interval = wilsonInterval(met, of);
  if (interval === null) return "No trials yet.";
  if (of < FEWEST_TRIALS_TO_TELL) return `${met} of ${of}: too few to tell.`;
  return `${met} of ${of}, could be anywhere from ${percent(interval[0])} to ${percent(interval[1])} %.`;
}

const failed = (trial: EvidenceTrial) => trial.outcome === "miss" || trial.outcome === "refused";

function easeAdvice(block: readonly EvidenceTrial[], settings: WordSettings, rung: number): Advice | null {
  let run = 0;
  for (let i = block.length - 1; i >= 0 && failed(block[i] as EvidenceTrial); i--) run++;
  const where = rung > 1 ? `Go back to rung ${rung - 1}` : "Ask for less";
  if (run >= settings.easeRun) {
    return { word: "Ease", reason: `${run} misses or refusals running. ${where}.`, numbers: { run } };
  }
  const window = block.slice(-settings.easeWindow);
  const misses = window.filter(failed).length;
  if (misses >= settings.easeMisses) {
    return {
      word: "Ease",
      reason: `${misses} misses or refusals in the last ${window.length}. ${where}.`,
      numbers: { misses, of: window.length },
    };
  }
  return null;
}

/** Progress under the rule on each side the rung names: one entry, or left and right. */
function progressBySide(input: WordInput, evidence: readonly EvidenceTrial[]): { side: "L" | "R" | null; progress: MasteryProgress }[] {
  const goal = input.byValues ?? null;
  if (!input.bothSides) return [{ side: null, progress: progressOf(input.rule, goal, evidence) }];
  return (["L", "R"] as const).map((side) => ({
    side,
    progress: progressOf(
      input.rule,
      goal,
      evidence.filter((t) => t.side === side),
    ),
  }));
}

const SIDE_WORD = { L: "left", R: "right" } as const;

/** Stay or Raise (or Finish on the top rung), by the mastery rule alone. */
function byRule(input: WordInput, block: readonly EvidenceTrial[]): Advice {
  const evidence = input.counts ? [...input.earlier, ...block] : input.earlier;
  const sides = progressBySide(input, evidence);
  const lacking = sides.find(({ progress }) => !progress.passed);
  const rule = movingOnSentence(input.rule, input.byValues ?? null);
  if (lacking === undefined) {
    const met = sides.reduce((sum, s) => sum + s.progress.met, 0);
    const of = sides.reduce((sum, s) => sum + s.progress.of, 0);
    const each = input.bothSides ? " on each side" : "";
    const numbers = { met, of };
    if (input.rule.kind === "first-clean" && input.byValues == null)
      return { word: "Finish", reason: "A clean one at the lightest cue. Stop on it.", numbers };
    if (input.rung >= input.rungCount) return { word: "Finish", reason: `The top rung is met: ${rule}${each}. End on it.`, numbers };
    if (input.nextBarred != null)
      return {
        word: "Finish",
        reason: `${met} of ${of} met${each}; rung ${input.rung + 1} is not for today. ${input.nextBarred} End on this one.`,
        numbers,
      };
    return { word: "Raise", reason: `${met} of ${of} met${each}; the rule is ${rule}. Go to rung ${input.rung + 1}.`, numbers };
  }
  const { side, progress } = lacking;
  const seen =
    input.rule.kind === "run" && input.byValues == null
      ? `${progress.met} in a row`
      : progress.of === 0
        ? "No trials yet"
        : `${progress.met} of the last ${progress.of}`;
  const onSide = side === null ? "" : ` on the ${SIDE_WORD[side]}`;
  return { word: "Stay", reason: `${seen}${onSide}. ${progress.needed}`, numbers: { met: progress.met, of: progress.of } };
}

/** A limit that advice or age sets comes before everything: it is no matter of how the work goes. */
export function limitReached({ limits, workMinutes }: Pick<WordInput, "limits" | "workMinutes">): Advice | null {
  if (limits === undefined) return null;
  const { minutes, trials, sessionTrials } = limits;
  if (minutes !== null && workMinutes >= minutes.value)
    return {
      word: "Finish",
      reason: `${minutes.value} minutes of work, the most for today. ${minutes.why}`,
      numbers: { minutes: minutes.value },
    };
  if (trials !== null && sessionTrials >= trials.value)
    return {
      word: "Finish",
      reason: `${sessionTrials} repetitions, the most for today. ${trials.why}`,
      numbers: { trials: sessionTrials },
    };
  return null;
}

function byClock(input: WordInput, settings: WordSettings): Advice | null {
  const limit = limitReached(input);
  if (limit !== null) return limit;
  if (input.minutesSinceRest >= settings.restAfterMinutes) {
    const minutes = Math.floor(input.minutesSinceRest);
    return { word: "Rest", reason: `${minutes} minutes of work without a break.`, numbers: { minutes } };
  }
  if (input.trialsSinceRest >= settings.restAfterTrials) {
    return { word: "Rest", reason: `${input.trialsSinceRest} asks without a break.`, numbers: { trials: input.trialsSinceRest } };
  }
  if (input.workMinutes >= settings.finishAfterMinutes) {
    const minutes = Math.floor(input.workMinutes);
    return { word: "Finish", reason: `${minutes} minutes of work. End on an easy one.`, numbers: { minutes } };
  }
  return null;
}

const rank = (word: Word) => WORDS.indexOf(word);

/**
 * The word for the present moment: the first rule that applies, Rest before
 * Finish before Ease before Raise before Stay. A word that came from the
 * trials stands for some trials unless a higher one comes; the clock's words
 * come and go with the clock.
 * Cost: one look at the evidence for each trial of the running block.
 */
export function theWord(input: WordInput, settings: WordSettings = DEFAULT_WORD_SETTINGS): Advice {
  const clock = byClock(input, settings);
  if (clock !== null) return clock;
  const judge = (block: readonly EvidenceTrial[]) => {
    const rule = byRule(input, block);
    const ease = input.byValues == null ? easeAdvice(block, settings, input.rung) : null;
    return ease !== null && rank(ease.word) < rank(rule.word) ? ease : rule;
  };
  let standing = judge([]);
  let since = 0;
  for (let n = 1; n <= input.block.length; n++) {
    const fresh = judge(input.block.slice(0, n));
    const held = n - since < settings.standsForTrials;
    const sameWord = fresh.word === standing.word;
    if (sameWord || rank(fresh.word) < rank(standing.word) || !held) {
      if (!sameWord) since = n;
      standing = fresh;
    }
  }
  return standing;
}

import { DEFAULT_MASTERY_RULE, type MasteryRule } from "../mastery";
import type { EvidenceTrial } from "../record/evidence-scope";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { numberWord, numberWordFirst } from "../words";
import type { Advice } from "./advice";
import { declineOf, timesDeclined } from "./declined";
import { type GoBackThresholds, goBackThresholds, shareAskedFor } from "./go-back-chance";
import { progressOf } from "./goal";
import type { AdviceInput } from "./input";

/**
 * A trial that went wrong: something else came, or nothing. A try is on the way and is none.
 * @example failed({ outcome: "miss" }) // true
 */
export const failed = ({ outcome }: Pick<EvidenceTrial, "outcome">) => outcome === "miss" || outcome === "refused";

/** When the word would be Ease, in words for a card that is read without the app. @example goBackSentence() */
export function goBackSentence(rule: MasteryRule = DEFAULT_MASTERY_RULE, settings: YardSettings = DEFAULT_SETTINGS): string {
  const { run, misses, window, refusals, refusalWindow } = goBackThresholds(rule, settings);
  const among = misses > window ? "" : `, or ${misses} of the last ${window}`;
  return `${numberWordFirst(run)} in a row wrong or unanswered${among}, or ${refusals} of the last ${refusalWindow} unanswered: go one rung back.`;
}

/**
 * Failures among the trials from one place up to another that call for easing, in words with their numbers, or null.
 * @example tooManyFailures([{ outcome: "met" }], { … }) // null
 */
export function tooManyFailures(
  trials: readonly Pick<EvidenceTrial, "outcome">[],
  { run, misses, window, refusals = Number.POSITIVE_INFINITY, refusalWindow = 1 }: GoBackThresholds,
  from = 0,
  end = trials.length,
): { words: string; numbers: Record<string, number> } | null {
  let running = 0;
  for (let i = end - 1; i >= from && failed(trials[i] as Pick<EvidenceTrial, "outcome">); i--) running++;
  if (running >= run) return { words: `${numberWordFirst(running)} in a row went wrong.`, numbers: { run: running } };
  const first = Math.max(from, end - window);
  let count = 0;
  for (let i = first; i < end; i++) if (failed(trials[i] as Pick<EvidenceTrial, "outcome">)) count++;
  if (count >= misses) return { words: `${count} of the last ${end - first} went wrong.`, numbers: { misses: count, of: end - first } };
  const since = Math.max(from, end - refusalWindow);
  let refused = 0;
  for (let i = since; i < end; i++) if (trials[i]?.outcome === "refused") refused++;
  if (refused < refusals) return null;
  return { words: `${refused} of the last ${end - since} got no answer.`, numbers: { refused, of: end - since } };
}

/** How many of the blocks a list of trials holds would have heard Ease. @example wentBackBlocks([], thresholds) // 0 */
export function wentBackBlocks(trials: readonly EvidenceTrial[], thresholds: GoBackThresholds): number {
  let count = 0;
  for (let from = 0; from < trials.length; ) {
    const { blockKey } = trials[from] as EvidenceTrial;
    let to = from;
    while (to < trials.length && trials[to]?.blockKey === blockKey) to++;
    for (let end = from + 1; end <= to; end++)
      if (tooManyFailures(trials, thresholds, from, end) !== null) {
        count++;
        break;
      }
    from = to;
  }
  return count;
}

const refusalsOnly = (thresholds: GoBackThresholds): GoBackThresholds => ({
  ...thresholds,
  run: Number.POSITIVE_INFINITY,
  misses: Number.POSITIVE_INFINITY,
});

/** Thresholds that take so many failures more, among as many asks more. */
const raisedBy = (
  { run, misses, window, refusals = Number.POSITIVE_INFINITY, refusalWindow = 1 }: GoBackThresholds,
  more: number,
): GoBackThresholds => ({
  run: run + more,
  misses: misses + more,
  window: window + more,
  refusals: refusals + more,
  refusalWindow: refusalWindow + more,
});

/**
 * Ease for what the trials show: too many failures, tension, or a refusal at the full ask.
 * @example goBackAdvice(input, block, true, settings) // { word: "Go back", why: "failures", … }
 */
export function goBackAdvice(input: AdviceInput, block: readonly EvidenceTrial[], now: boolean, settings: YardSettings): Advice | null {
  const { rung } = input;
  const to = rung > 1 ? { rung: rung - 1 } : {};
  const where = rung > 1 ? `Go back to rung ${rung - 1}.` : "Ask for less.";
  // On a bar that follows the values the share met is held constant by design and says nothing; a refusal does.
  const thresholds = goBackThresholds(input.rule, settings);
  // Once declined it takes a failure more each time, in asks after that.
  const before = declineOf(input.declined, "Go back", "failures");
  const from = before?.thisBlock === true && before.inBlock <= block.length ? before.inBlock : 0;
  const again = before === undefined ? thresholds : raisedBy(thresholds, timesDeclined(input.declined, "Go back", "failures"));
  const found = tooManyFailures(block, input.byValues == null ? again : refusalsOnly(again), from);
  if (found !== null) return { word: "Go back", why: "failures", reason: `${found.words} ${where}`, numbers: found.numbers, ...to };
  const signs = input.tensionSigns ?? 0;
  // On the first rung there is nothing easier: a rest, see limits.ts.
  if (now && rung > 1 && signs >= settings.tensionSigns)
    return {
      word: "Go back",
      why: "tension",
      reason: `${signs} tension signs in ${window(settings)}. ${where}`,
      numbers: { signs },
      ...to,
    };
  return null;
}

/**
 * What one refusal at the clearest cue asks for: one easier ask on this rung, and no step back.
 * @returns the sentence, or null where the last answer was none.
 * @example easierAsk({ … }, block) // "Refused at the clearest cue: one easier ask on this rung first."
 */
export function easierAsk({ fullPhase }: Pick<AdviceInput, "fullPhase">, block: readonly EvidenceTrial[]): string | null {
  const last = block.at(-1);
  const refusedClearest = fullPhase != null && last?.outcome === "refused" && last.phase !== null && last.phase >= fullPhase;
  return refusedClearest ? "Refused at the clearest cue: one easier ask on this rung first." : null;
}

/** The window of tension signs in words. @example window({ … }) // "a minute" */
export const window = ({ tensionWindowSeconds }: YardSettings) => (tensionWindowSeconds === 60 ? "a minute" : `${tensionWindowSeconds} s`);

/** Over this part of the share the rule asks for, no gain calls for no rung in between (chosen with npm run truth). */
const NEAR_THE_RULE = 0.75;

/** Trials by session, oldest first, those long enough to say something. */
function sessionsOf(trials: readonly EvidenceTrial[], least: number): EvidenceTrial[][] {
  const bySession = new Map<string, EvidenceTrial[]>();
  for (const trial of trials) {
    const list = bySession.get(trial.session);
    if (list === undefined) bySession.set(trial.session, [trial]);
    else list.push(trial);
  }
  return [...bySession.values()].filter(({ length }) => length >= least);
}

const shareMet = (trials: readonly EvidenceTrial[]) => trials.filter(({ outcome }) => outcome === "met").length / trials.length;

/** The middle value of a session on its working strand, so that larger is always better; null without values. */
function level(input: AdviceInput, trials: readonly EvidenceTrial[]): number | null {
  const goal = input.byValues ?? null;
  if (goal === null) return shareMet(trials);
  const values = trials.flatMap(({ value }) => (value === null ? [] : [goal.harder === "more" ? value : -value])).sort((a, b) => a - b);
  return values.length === 0
    ? null
    : ((values[Math.floor((values.length - 1) / 2)] as number) + (values[Math.ceil((values.length - 1) / 2)] as number)) / 2;
}

/**
 * Split: Ease has come again on this rung, or some sessions running brought no
 * gain. Only where a rung fits in between.
 * @param wentBackBefore how many earlier blocks on this rung heard Ease; only asked where this one does.
 * @param atEnd the session is over: its one last look.
 * @example addStepAdvice(input, [], null, settings, wentBackBefore, false) // null
 */
export function addStepAdvice(
  input: AdviceInput,
  block: readonly EvidenceTrial[],
  ease: Advice | null,
  settings: YardSettings,
  wentBackBefore: () => number,
  atEnd = false,
): Advice | null {
  if (input.rung <= 1 || input.splittable === false || !input.counts) return null;
  const history = input.history ?? [];
  const put = `Add a step between ${input.rung - 1} and ${input.rung}.`;
  if (ease !== null && input.byValues == null) {
    const eases = 1 + wentBackBefore();
    const declined = declineOf(input.declined, "Add a step", "eases");
    if (eases >= settings.splitAfterEases && (declined === undefined || eases > (declined.numbers.eases ?? 0)))
      return {
        word: "Add a step",
        why: "eases",
        reason: `Rung ${input.rung} has gone wrong ${eases === 2 ? "twice" : `${numberWord(eases)} times`}. ${put}`,
        numbers: { eases },
      };
  }
  // What sessions past say is said before the next one begins, not in the middle of a block: one look, when a session is over.
  if (!atEnd || block.length === 0 || history[0] === undefined || history[0].session === block[0]?.session) return null;
  const sessions = sessionsOf([...history, ...block], settings.noGainTrials).slice(-settings.noGainSessions);
  if (sessions.length < settings.noGainSessions) return null;
  // Only when the session that runs is one of them: yesterday's lack of gain is no news before today's work.
  if (sessions.at(-1)?.[0]?.session !== block[0]?.session) return null;
  const levels = sessions.map((trials) => level(input, trials));
  const first = levels[0];
  if (first == null || levels.some((one) => one === null || one > first)) return null;
  // Near what the rule asks for, the next session may meet it: a plateau there is no wall.
  if (input.byValues == null && shareMet(sessions.flat()) > NEAR_THE_RULE * (shareAskedFor(input.rule) ?? 0.8)) return null;
  const evidence = [...input.earlier, ...block];
  const sides = input.bothSides ? (["L", "R"] as const).map((side) => evidence.filter((trial) => trial.side === side)) : [evidence];
  if (sides.every((side) => progressOf(input.rule, input.byValues ?? null, side).passed)) return null;
  const counts = sessions.map((trials) => trials.length);
  const said =
    input.byValues == null
      ? sessions.map((trials) => `${trials.filter(({ outcome }) => outcome === "met").length} of ${trials.length}`).join(", ")
      : `middle values ${levels.map((one) => Math.abs(Math.round((one as number) * 10) / 10)).join(", ")}`;
  return {
    word: "Add a step",
    why: "no gain",
    reason: `No gain over ${sessions.length} sessions: ${said}. ${put}`,
    numbers: { sessions: sessions.length, trials: counts.reduce((sum, n) => sum + n, 0) },
  };
}

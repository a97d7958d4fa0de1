import type { EvidenceTrial } from "../record/evidence-scope";
import type { YardSettings } from "../settings";
import { type Advice, rankOf } from "./advice";
import { sideAdvice } from "./change-side";
import { clearBest } from "./clear-best";
import { mayBeSaid } from "./declined";
import { addStepAdvice, easierAsk, goBackAdvice, wentBackBlocks } from "./go-back";
import { goBackThresholds } from "./go-back-chance";
import type { AdviceInput } from "./input";
import { movingOn } from "./moving-on";

/**
 * How far back in the running block it is asked which word stood, in times of
 * what a word is held for. What came earlier no longer shows; without the
 * bound the cost would grow with the square of the block.
 */
const REPLAYED_HOLDS = 4;

/** What a rule needs of the past is bounded, except where every trial counts. */
const RULE_LOOKS_BACK = 60;

/** Evidence cut to what the rule can see, both sides' worth. */
function bounded(input: AdviceInput): AdviceInput {
  const { rule, earlier, byValues } = input;
  if (rule.kind === "posterior" || (rule.kind === "share" && rule.window === "block") || byValues != null) return input;
  const far = earlier.length - 4 * RULE_LOOKS_BACK;
  return far > 0 ? { ...input, earlier: earlier.slice(far) } : input;
}

/** The word of the trials alone, as it stood after some trials of the block: no clock in it. */
function atTrial(
  input: AdviceInput,
  block: readonly EvidenceTrial[],
  now: boolean,
  settings: YardSettings,
  wentBackBefore: () => number,
): Advice {
  const best = clearBest(input, block, settings);
  if (best !== null && mayBeSaid(best, input.declined)) return best;
  const moving = movingOn(input, block, settings);
  if (moving.word === "Finish") return moving;
  const ease = goBackAdvice(input, block, now, settings);
  const split = addStepAdvice(input, block, ease, settings, wentBackBefore, now && input.over === true);
  if (split !== null) return split;
  if (ease !== null) return ease;
  const easier = easierAsk(input, block);
  if (easier !== null && moving.word === "Repeat") return { ...moving, reason: `${easier} ${moving.reason}` };
  return sideAdvice(input, block, settings) ?? moving;
}

/**
 * The word of the trials: the one judge of a rung, for the recorder while it
 * is worked and for every page after. A word stands for some trials unless a
 * higher one comes.
 * Cost: a bounded number of looks at the evidence.
 * @example adviceByTrials(input, settings) // { word: "Repeat", why: "", … }
 */
export function adviceByTrials(input: AdviceInput, settings: YardSettings): Advice {
  const seen = bounded(input);
  const { block } = seen;
  const from = Math.max(0, block.length - REPLAYED_HOLDS * settings.standsForTrials);
  let eased: number | null = null;
  const wentBackBefore = () => {
    eased ??= wentBackBlocks(seen.history ?? [], goBackThresholds(seen.rule, settings));
    return eased;
  };
  const judge = (n: number) => atTrial(seen, block.slice(0, n), n === block.length, settings, wentBackBefore);
  let standing = judge(from);
  /** Judgements running that were not the word that stands. */
  let others = 0;
  for (let n = from + 1; n <= block.length; n++) {
    const fresh = judge(n);
    others = fresh.word === standing.word ? 0 : others + 1;
    if (others > 0 && others < settings.standsForTrials && rankOf(fresh.word) > rankOf(standing.word)) continue;
    standing = fresh;
    others = 0;
  }
  return standing;
}

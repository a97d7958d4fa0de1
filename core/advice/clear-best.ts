import type { EvidenceTrial } from "../record/evidence-scope";
import type { YardSettings } from "../settings";
import { shortNumber } from "../strands";
import type { Advice } from "./advice";
import type { AdviceInput } from "./input";

/**
 * A clear best: after enough answers today the last one is the first clean
 * one, or its value passes every value before by a margin. Nothing better is
 * to be had today; end on it.
 * @example clearBest(input, block, settings) // { word: "Finish", why: "first clean", … }
 */
export function clearBest(input: AdviceInput, block: readonly EvidenceTrial[], settings: YardSettings): Advice | null {
  if (!input.counts) return null;
  const last = block.at(-1);
  if (last === undefined || last.outcome !== "met" || !last.clean) return null;
  const before = [...(input.today ?? []), ...block.slice(0, -1)];
  if (before.length < settings.bestAfterTrials) return null;
  if (!before.some(({ clean }) => clean))
    return {
      word: "Finish",
      why: "first clean",
      reason: `The first clean one at the lightest cue, after ${before.length}. End on it.`,
      numbers: { after: before.length },
    };
  const goal = input.byValues ?? null;
  if (goal === null || last.value === null) return null;
  const values = before.flatMap(({ value }) => (value === null ? [] : [value]));
  if (values.length < settings.bestAfterTrials) return null;
  const best = goal.harder === "more" ? Math.max(...values) : Math.min(...values);
  const passes = goal.harder === "more" ? last.value >= best * (1 + settings.bestMargin) : last.value <= best * (1 - settings.bestMargin);
  if (!passes || best <= 0) return null;
  const unit = goal.unit === "" ? "" : ` ${goal.unit}`;
  return {
    word: "Finish",
    why: "clear best",
    reason: `${shortNumber(last.value)}${unit}, a clear best: the best before was ${shortNumber(best)}${unit}. End on it.`,
    numbers: { value: last.value, before: best },
  };
}

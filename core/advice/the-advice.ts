import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import type { Advice } from "./advice";
import { adviceByTrials } from "./by-trials";
import { mayBeSaid } from "./declined";
import type { AdviceInput } from "./input";
import { breakAdvice, finishByPlan } from "./limits";
import { stopAdvice } from "./stop";

/** What a horse's body says is said for as long as it does, also where it was declined; a rest that is due counts that itself. */
const NEVER_SILENT: ReadonlySet<string> = new Set(["breathing", "tension", "minutes", "asks"]);

/** Ease for what wrong choices meet: they have not become rarer, or tension comes with them, or there were as many as may be. */
function wrongChoiceAdvice({ wrong, rung }: AdviceInput): Advice | null {
  if (wrong == null) return null;
  const to = rung > 1 ? { rung: rung - 1 } : {};
  const where = rung > 1 ? `Go back to rung ${rung - 1}.` : "Ask for less.";
  return { word: "Go back", why: "wrong choices", reason: `${wrong.words} ${where}`, numbers: wrong.numbers, ...to };
}

/**
 * The advice for the present moment: the first rule that applies, Stop before
 * Break, Finish, Add a step, Go back, Change side, Up and Repeat; Start before
 * the first ask of a block. Those of the clock,
 * the weather and the signs come and go with them; those of the trials stand
 * for some trials unless a higher one comes. What was declined is not said
 * again for the same reason until what speaks for it has grown.
 * @example theAdvice(input) // { word: "Repeat", why: "", … }
 */
export function theAdvice(input: AdviceInput, settings: YardSettings = DEFAULT_SETTINGS): Advice {
  // Danger, pain, heat, breathing, or advice that allows no more today: a rest before going on would be the wrong word.
  const always = stopAdvice(input);
  if (always !== null) return always;
  for (const advice of [breakAdvice(input, settings), finishByPlan(input, settings), wrongChoiceAdvice(input)])
    if (advice !== null && (NEVER_SILENT.has(advice.why) || mayBeSaid(advice, input.declined))) return advice;
  const byTrials = adviceByTrials(input, settings);
  // Nothing was asked of this block yet: there is nothing to repeat.
  return byTrials.word === "Repeat" && input.block.length === 0 ? { ...byTrials, word: "Start" } : byTrials;
}

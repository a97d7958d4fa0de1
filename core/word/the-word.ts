import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import type { Advice } from "./advice";
import { wordByTrials } from "./by-trials";
import type { WordInput } from "./input";
import { finishByPlan, limitReached, restAdvice, stopAdvice } from "./limits";

/**
 * The word for the present moment: the first rule that applies, Stop before
 * Rest, Finish, Split, Ease, Change side, Raise and Stay. Those of the clock,
 * the weather and the signs come and go with them; those of the trials stand
 * for some trials unless a higher one comes.
 */
export function theWord(input: WordInput, settings: YardSettings = DEFAULT_SETTINGS): Advice {
  // Advice of a veterinarian or age allows no more today: a rest before going on would be the wrong word.
  const outside = stopAdvice(input) ?? limitReached(input) ?? restAdvice(input, settings) ?? finishByPlan(input, settings);
  return outside ?? wordByTrials(input, settings);
}

import { difficulty, GREATEST_STEP_RATIO, type Strand, type StrandValue, stepFaults, valuePath } from "../strands";
import type { Rung } from "./ladder";

/** How much harder a strand gets in a step, as a share of its own way over the whole ladder. */
function relativeRise(strand: Strand, from: StrandValue, to: StrandValue, rungs: readonly Rung[]): number {
  const all = rungs.map((rung) => difficulty(strand, rung.values[strand.id] ?? from));
  const span = Math.max(...all) - Math.min(...all);
  return span === 0 ? 0 : (difficulty(strand, to) - difficulty(strand, from)) / span;
}

/**
 * Splits the step to a rung into as many rungs as the step rules ask for. What
 * the step eases is eased at once. Then each strand that gets harder goes its
 * way alone: levels one by one, numbers in geometric steps rounded to sensible
 * values. The smallest rise comes first, which keeps the rungs in between
 * easiest. The last of the new rungs is the old one.
 * @param number the rung whose step is split, counted from 1.
 * @returns the ladder's rungs with the new ones in place; the same list where the step has no fault.
 * @throws RangeError where there is no step to that rung.
 * @example splitStep(strands, rungs, 2) // 7 of them
 */
export function splitStep(strands: readonly Strand[], rungs: readonly Rung[], number: number): Rung[] {
  const before = rungs[number - 2];
  const here = rungs[number - 1];
  if (before === undefined || here === undefined) throw new RangeError(`splitStep: there is no step to rung ${number}`);
  if (stepFaults(strands, [before.values, here.values]).length === 0) return [...rungs];
  const valueIn = (rung: Rung, strand: Strand) => rung.values[strand.id] as StrandValue;
  const harder = strands
    .filter((strand) => difficulty(strand, valueIn(here, strand)) > difficulty(strand, valueIn(before, strand)))
    .map((strand) => ({ strand, rise: relativeRise(strand, valueIn(before, strand), valueIn(here, strand), rungs) }))
    .sort((a, b) => a.rise - b.rise);
  let values: Record<string, StrandValue> = { ...here.values };
  for (const { strand } of harder) values[strand.id] = valueIn(before, strand);
  const { kept: _, ...settings } = here;
  const put: Rung[] = [];
  for (const { strand } of harder)
    for (const value of valuePath(strand, valueIn(before, strand), valueIn(here, strand), GREATEST_STEP_RATIO).slice(1)) {
      values = { ...values, [strand.id]: value };
      put.push({ ...settings, values });
    }
  const left = stepFaults(strands, [before.values, ...put.map((rung) => rung.values)]);
  // Rounding must never leave a fault behind: better to say so than to hand out a bad ladder.
  if (left.length > 0) throw new RangeError(`splitStep: ${left[0]?.sentence ?? ""}`);
  return [...rungs.slice(0, number - 1), ...put, ...rungs.slice(number)];
}

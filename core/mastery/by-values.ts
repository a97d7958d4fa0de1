import { medianOf } from "../evidence/median";
import { shortNumber } from "../strands";
import type { MasteryProgress } from "./rule";

/**
 * Where a rung stands whose bar follows the horse's own values. There the share
 * met is held constant by design and says nothing; what counts is whether the
 * median of the last values has reached the goal.
 * @param values of answers that held one, oldest first.
 * @param lookBack how many of the last are looked at; fewer do not decide.
 * @example progressByValues([0], 10, { value: 5, unit: "", harder: "more" }) // { passed: false, met: 0, of: 1, … }
 */
export function progressByValues(
  values: readonly number[],
  lookBack: number,
  goal: { readonly value: number; readonly unit: string; readonly harder: "more" | "less" },
): MasteryProgress {
  const last = values.slice(-lookBack);
  const reached = last.filter((value) => (goal.harder === "more" ? value >= goal.value : value <= goal.value)).length;
  const level = medianOf(last);
  const unit = goal.unit === "" ? "" : ` ${goal.unit}`;
  const passed = last.length >= lookBack && level !== null && (goal.harder === "more" ? level >= goal.value : level <= goal.value);
  const needed = passed
    ? ""
    : last.length < lookBack
      ? `${lookBack - last.length} more with a value; then the median of ${lookBack} decides.`
      : `The median of the last ${lookBack} is ${shortNumber(level ?? 0)}${unit}, ${shortNumber(goal.value)}${unit} wanted.`;
  return { passed, met: reached, of: last.length, level, needed };
}

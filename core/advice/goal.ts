import type { LadderPlan } from "../ladder";
import {
  daysWanted,
  everMastered,
  type MasteryProgress,
  type MasteryRule,
  masteryProgress,
  masterySentence,
  progressByValues,
} from "../mastery";
import { asMasteryTrials, type EvidenceTrial, valuesOf } from "../record/evidence-scope";
import { shortNumber } from "../strands";

/** The goal of a rung whose bar follows the horse's own values. */
export interface ValuesGoal {
  readonly lookBack: number;
  readonly value: number;
  readonly unit: string;
  readonly harder: "more" | "less";
}

/**
 * The goal of a rung, counted from 1, or null where its bar stands still.
 * @example valuesGoalOf(plan, 1) // { lookBack: 4, value: 4, unit: "", harder: "more" }
 */
export function valuesGoalOf(plan: LadderPlan, rung: number): ValuesGoal | null {
  const setting = plan.rungs[rung - 1]?.percentile;
  const strand = plan.strands.find(({ id }) => id === plan.workingStrandId);
  const value = strand === undefined ? undefined : plan.rungs[rung - 1]?.values[strand.id];
  if (setting === undefined || strand === undefined || typeof value !== "number") return null;
  return { lookBack: setting.lookBack, value, unit: strand.unit, harder: strand.harder };
}

/** The part of a list of trials a rule can see: most look at the last few only. */
function seenBy(rule: MasteryRule, trials: readonly EvidenceTrial[]): readonly EvidenceTrial[] {
  if (daysWanted(rule) > 1) return trials;
  if (rule.kind === "share" && rule.window === "moving") return trials.slice(-rule.of);
  if (rule.kind === "run") return trials.slice(-rule.length);
  return trials;
}

/**
 * Progress of a list of trials under the rung's rule, or by its values where its bar follows them.
 * @param nowWallMs the present, for a rule over days; left out, the last trial's.
 * @example progressOf({ kind: "run", length: 3 }, null, []) // { passed: false, met: 0, of: 0, … }
 */
export function progressOf(
  rule: MasteryRule,
  byValues: ValuesGoal | null,
  trials: readonly EvidenceTrial[],
  nowWallMs?: number,
): MasteryProgress {
  return byValues === null
    ? masteryProgress(rule, asMasteryTrials(seenBy(rule, trials)), nowWallMs)
    : progressByValues(valuesOf(trials), byValues.lookBack, byValues);
}

/**
 * Whether the rung's rule was passed at any trial of a list, or its values reached the goal at any.
 * @example everPassed(rule, null, trials) // true
 */
export function everPassed(rule: MasteryRule, byValues: ValuesGoal | null, trials: readonly EvidenceTrial[]): boolean {
  if (byValues === null) return everMastered(rule, asMasteryTrials(trials));
  const values = valuesOf(trials);
  const { lookBack } = byValues;
  return values.some((_, i) => progressByValues(values.slice(Math.max(0, i + 1 - lookBack), i + 1), lookBack, byValues).passed);
}

/** How a rung is left, in words. @example movingOnSentence({ kind: "run", length: 3 }, null) // "3 in a row" */
export function movingOnSentence(rule: MasteryRule, byValues: ValuesGoal | null): string {
  if (byValues === null) return masterySentence(rule);
  const unit = byValues.unit === "" ? "" : ` ${byValues.unit}`;
  return `median of the last ${byValues.lookBack} at ${shortNumber(byValues.value)}${unit}`;
}

import { daysWanted } from "../mastery";
import { criterionOf } from "./criterion";
import type { LadderPlan } from "./ladder";

/**
 * How the recorder asks how the horse was: by five grades where the rung takes
 * another grade than soft, by "soft" and "not soft" where soft is asked or the
 * rule names days, not at all where neither is so.
 * @param rung counted from 1.
 * @example calmAsked(plan, 1) // "soft"
 */
export function calmAsked(plan: LadderPlan, rung: number): "grades" | "soft" | null {
  const least = criterionOf(plan, rung).min_ease;
  if (least !== undefined && least !== SOFT) return "grades";
  return least !== undefined || daysWanted(plan.mastery) > 1 ? "soft" : null;
}

const SOFT = 3;
/** What "not soft" is logged as: the mildest grade that is not. */
export const NOT_SOFT_GRADE = 2;

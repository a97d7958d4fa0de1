import type { FieldProblem } from "../../checks/common";
import type { LadderPlan } from "../ladder";
import { planProblems } from "../plan-problems";
import { ladderPlanDocument } from "./plan";

/** The format a plan is written in. A change of what a plan may say takes the next number, and a step that brings older ones forward. */
export const PLAN_FORMAT = 1;

/** A plan as it could be read, or what is wrong with it, place by place. */
export type ReadPlan = { readonly plan: LadderPlan } | { readonly problems: readonly FieldProblem[] };

const pathOf = (path: readonly PropertyKey[]) =>
  path.map((part, i) => (typeof part === "number" ? `[${part}]` : `${i === 0 ? "" : "."}${String(part)}`)).join("");

/**
 * A plan out of the text it is kept as.
 * @param format the format it says it is written in.
 * @returns the plan, read-only in fact; or its problems, where it is no plan of this version.
 * @example readPlanText(PLAN_FORMAT, planText(plan)) // { plan }
 */
export function readPlanText(format: number, text: string): ReadPlan {
  if (format !== PLAN_FORMAT) return { problems: [{ path: "", message: "A newer version wrote it." }] };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { problems: [{ path: "", message: "Its text is not whole." }] };
  }
  const read = ladderPlanDocument.safeParse(value);
  if (!read.success) return { problems: read.error.issues.map(({ path, message }) => ({ path: pathOf(path), message })) };
  const problems = planProblems(read.data);
  return problems.length > 0 ? { problems } : { plan: read.data };
}

/** The text a plan is kept as; keys that hold nothing are not in it. @example planText(plan) // '{"method":"combined",…' */
export const planText = (plan: LadderPlan): string => JSON.stringify(plan);

import { fieldsOf } from "@/core/typed";
import "server-only";
import type { LadderPlan } from "@/core/ladder";
import { type BehaviourInput, behaviourSchema, check, checkLadderPlan } from "@/core/schemas";
import { invalid } from "./respond";

/** The behaviour and the plan of a posted ladder, or the problem to answer with. `beside` names what else the body may hold. */
export function readLadderBody(
  value: unknown,
  beside: readonly string[],
): { behaviour: BehaviourInput; plan: LadderPlan } | { problem: Response } {
  const body = fieldsOf(value);
  const unknown = Object.keys(body).filter((key) => !["behaviour", "plan", ...beside].includes(key));
  const behaviour = check(behaviourSchema, body.behaviour ?? {});
  const plan = checkLadderPlan(body.plan ?? {});
  if (behaviour.ok && plan.ok && unknown.length === 0) return { behaviour: behaviour.value, plan: plan.value };
  return {
    problem: invalid([
      ...unknown.map((path) => ({ path, message: `Not known here: ${path}.` })),
      ...(behaviour.ok ? [] : behaviour.problems.map((p) => ({ ...p, path: `behaviour.${p.path}` }))),
      ...(plan.ok ? [] : plan.problems.map((p) => ({ ...p, path: `plan.${p.path}` }))),
    ]),
  };
}

import "server-only";
import type { LadderPlan } from "@/core/ladder";
import { type BehaviourInput, behaviourSchema, check, checkLadderPlan } from "@/core/schemas";
import { invalid } from "./respond";

const part = (value: unknown, key: string): unknown =>
  typeof value === "object" && value !== null && key in value ? (value as Record<string, unknown>)[key] : undefined;

/** The behaviour and the plan of a posted ladder, or the problem to answer with. */
export function readLadderBody(value: unknown): { behaviour: BehaviourInput; plan: LadderPlan } | { problem: Response } {
  const behaviour = check(behaviourSchema, part(value, "behaviour") ?? {});
  const plan = checkLadderPlan(part(value, "plan") ?? {});
  if (behaviour.ok && plan.ok) return { behaviour: behaviour.value, plan: plan.value };
  return {
    problem: invalid([
      ...(behaviour.ok ? [] : behaviour.problems.map((p) => ({ ...p, path: `behaviour.${p.path}` }))),
      ...(plan.ok ? [] : plan.problems.map((p) => ({ ...p, path: `plan.${p.path}` }))),
    ]),
  };
}

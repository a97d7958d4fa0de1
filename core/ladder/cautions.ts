import { type LadderPlan, methodOf } from "./ladder";
import { METHOD_GUIDES } from "./method-guide";
import type { WayKey } from "./way-values";
import { WAYS, wayOf, waysFor } from "./ways";

/**
 * Cautions of what was chosen where trainers disagree, for the questions that are this ladder's.
 * @example wayCautions(plan, true) // 3 of them
 */
export function wayCautions(plan: LadderPlan, free: boolean): string[] {
  const asked = waysFor(
    plan.strands.map(({ key }) => key),
    plan.strands.map(({ name }) => name),
    free,
  );
  return asked.flatMap(({ key }) => wayOf(plan.ways, key).cautions ?? []);
}

/** Cautions of every method its rungs use, each once. @example methodCautions(plan) // 6 of them */
export function methodCautions(plan: LadderPlan): string[] {
  const methods = new Set(plan.rungs.map((_, i) => methodOf(plan, i + 1)));
  return [...new Set([...methods].flatMap((method) => METHOD_GUIDES[method].cautions))];
}

/**
 * What was chosen where trainers disagree, in words: question and choice, for the questions that are this ladder's.
 * @example chosenWays(plan, true) // 4 of them
 */
export function chosenWays(
  plan: LadderPlan,
  free: boolean,
): { readonly key: WayKey; readonly question: string; readonly choice: string }[] {
  const asked = new Set(
    waysFor(
      plan.strands.map(({ key }) => key),
      plan.strands.map(({ name }) => name),
      free,
    ).map(({ key }) => key),
  );
  return WAYS.filter(({ key }) => asked.has(key)).map(({ key, question }) => ({ key, question, choice: wayOf(plan.ways, key).name }));
}

import type { LadderPlan } from "./ladder";
import { turnsInOnACircle } from "./way-values";

/**
 * What a ladder involves that a restriction may name: what its behaviour says,
 * and what its strands and ways say by themselves.
 * @param said of the behaviour.
 * @param free whether it is worked at liberty, where turning in may be to a circle.
 * @example involvedIn(["tying"], plan, false) // ["tying", "circling"] of a plan with a strand `circle`
 */
export function involvedIn(said: readonly string[], plan: Pick<LadderPlan, "strands" | "ways">, free: boolean): string[] {
  const keys = plan.strands.map(({ key }) => key);
  const round = keys.includes("circle") || (free && turnsInOnACircle(plan.ways));
  return [...new Set([...said, ...(round ? ["circling"] : []), ...(keys.includes("load") ? ["load"] : [])])];
}

/**
 * Whether work goes on a circle, by what it involves: its minutes count against the caps on circling.
 * @example circles(["circling"]) // true
 */
export const circles = (involves: readonly string[]): boolean => involves.includes("circling");

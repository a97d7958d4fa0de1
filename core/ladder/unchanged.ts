import type { Strand } from "../strands";
import type { LadderPlan, Rung } from "./ladder";

/** A strand as its criterion depends on it; its place in the list does not matter. */
const strandSign = ({ key, name, kind, unit, levels, harder }: Strand) =>
  JSON.stringify([key, name, kind, unit, kind === "levels" ? levels : [], harder]);

/**
 * A rung's whole criterion as one text: equal texts ask the same of the horse.
 * What is earned and how fast it is planned for are not part of it.
 */
function criterionSign(plan: LadderPlan, rung: Rung): string {
  const values = plan.strands.map((strand) => `${strandSign(strand)}=${JSON.stringify(rung.values[strand.id])}`).sort();
  const phases = plan.phases.map(({ label, kind }) => [label, kind]);
  // Two strands of a trainer's own making have one key: what is counted is told apart by all of its sign.
  const counted = plan.strands.find(({ id }) => id === plan.workingStrandId);
  const working = counted === undefined ? null : strandSign(counted);
  return JSON.stringify([
    values,
    phases,
    plan.maximumSeconds,
    working,
    rung.percentile ?? null,
    rung.leastMovement ?? null,
    rung.handlerMost ?? [],
  ]);
}

/**
 * Which rungs of an earlier version ask exactly the same in a later one, so
 * that their evidence is carried over: old number → new number, counted from 1.
 * Of rungs that are alike the nearest in order are paired, each once.
 * @example unchangedRungs(before, after) // a map of 2
 */
export function unchangedRungs(before: LadderPlan, after: LadderPlan): Map<number, number> {
  const signs = after.rungs.map((rung) => criterionSign(after, rung));
  const taken = new Set<number>();
  const pairs = new Map<number, number>();
  before.rungs.forEach((rung, i) => {
    const sign = criterionSign(before, rung);
    let best = -1;
    signs.forEach((one, j) => {
      if (one === sign && !taken.has(j) && (best < 0 || Math.abs(j - i) < Math.abs(best - i))) best = j;
    });
    if (best < 0) return;
    taken.add(best);
    pairs.set(i + 1, best + 1);
  });
  return pairs;
}

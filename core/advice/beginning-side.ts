import { type LadderPlan, oneSideADay } from "../ladder";
import type { EvidenceTrial } from "../record/evidence-scope";
import { otherSide } from "../words";

/** The side a session begins on, or null where nothing says. @example beginningSide(plan, trials) // "R" */
export function beginningSide(plan: LadderPlan, trials: readonly EvidenceTrial[]): "L" | "R" | null {
  if (!oneSideADay(plan.ways)) return null;
  const last = trials.findLast(({ side, kind }) => side !== null && kind === "work")?.side;
  return last == null ? null : otherSide(last);
}

import { ruleCheck, USUAL_ASKS_A_DAY } from "../mastery";
import { DEFAULT_SETTINGS } from "../settings";
import { asksBothSides, type LadderPlan, scheduleOf } from "./ladder";
import { reinforcedShare } from "./schedule";

/**
 * Asks of a day as it is planned, for a rule of several days: the same on every screen.
 * What is being typed may be no number yet; then the usual count stands.
 * @example asksADay(8) // 40
 */
export const asksADay = (plannedRepetitions: unknown): number =>
  Number(plannedRepetitions) > 0 ? Math.max(1, Math.round(Number(plannedRepetitions) * DEFAULT_SETTINGS.planBlocks)) : USUAL_ASKS_A_DAY;

/** What a ladder costs a horse of one true success, under its mastery rule. */
export interface ExpectedRepetitions {
  /** Mean repetitions on each rung, both sides together where it asks for both; null where the rule may never be met. */
  readonly byRung: readonly (number | null)[];
  /** Over the whole ladder; null where any rung is. */
  readonly total: number | null;
  /** Reinforced met answers over the whole ladder; null likewise. */
  readonly reinforced: number | null;
}

/**
 * Expected repetitions to climb a ladder, by the exact rule check, for a horse
 * that gets each rung with the same chance on every try. It is a floor for
 * planning, not a forecast: a real horse begins lower on each new rung.
 * A rule of several days has the asks of a planned session a day.
 * Rungs whose bar follows the horse's own values count as many tries as the rule, too.
 * @param p true success on every rung, from 0 to 1.
 * @throws RangeError where p is out of range.
 * @example expectedRepetitions(plan, 0.5) // { byRung: [14, 28], total: 42, reinforced: 10.5 }
 */
export function expectedRepetitions(
  plan: Pick<LadderPlan, "mastery" | "rungs" | "strands" | "schedule" | "plannedRepetitions">,
  p: number,
): ExpectedRepetitions {
  const [row] = ruleCheck(plan.mastery, [p], 0, asksADay(plan.plannedRepetitions));
  const mean = row?.meanTrials ?? null;
  const byRung = plan.rungs.map((_, i) => (mean === null ? null : mean * (asksBothSides(plan, i + 1) ? 2 : 1)));
  if (mean === null) return { byRung, total: null, reinforced: null };
  const known = byRung.map((repetitions) => repetitions ?? 0);
  return {
    byRung,
    total: known.reduce((sum, repetitions) => sum + repetitions, 0),
    reinforced: known.reduce((sum, repetitions, i) => sum + repetitions * p * reinforcedShare(scheduleOf(plan, i + 1)), 0),
  };
}

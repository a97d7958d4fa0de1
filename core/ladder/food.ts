import { type LadderPlan, methodOf, scheduleOf } from "./ladder";
import { reinforcedShare } from "./schedule";

/** Pieces and grams to have in the pouch for a session on a rung. */
export interface FoodPlan {
  readonly pieces: number;
  /** Null where the mass of a piece is not known. */
  readonly grams: number | null;
  /** Whether it fits the day's limit; null where either is not known. */
  readonly withinLimit: boolean | null;
}

/** Kept in hand beyond the pieces expected (common practice, no source). */
const RESERVE = 0.2;

/**
 * Food for so many repetitions on a rung: the expected reinforcers and a fifth
 * more. Null where the rung's method or the ladder's reinforcer uses none.
 * @param rung counted from 1.
 * @param p share of answers that will be met, from 0 to 1.
 * @throws RangeError where repetitions or p are out of range.
 * @example foodPlan(plan, 2, 20, 0.8) // { pieces: 5, grams: 10, withinLimit: true }
 */
export function foodPlan(plan: LadderPlan, rung: number, repetitions: number, p: number): FoodPlan | null {
  if (!(repetitions >= 0) || !(p >= 0 && p <= 1)) throw new RangeError("foodPlan: repetitions from 0 and p from 0 to 1 are needed");
  if (methodOf(plan, rung) === "pressure-release" || plan.feeding.reinforcer !== "food") return null;
  const { pieceGrams, dayLimitGrams } = plan.feeding;
  const pieces = Math.ceil(repetitions * p * reinforcedShare(scheduleOf(plan, rung)) * (1 + RESERVE) - 1e-9);
  const grams = pieceGrams === null ? null : pieces * pieceGrams;
  return { pieces, grams, withinLimit: grams === null || dayLimitGrams === null ? null : grams <= dayLimitGrams };
}

import type * as z from "zod";
import type { feedingDocument, ladderPlanDocument, rungDocument } from "./document/plan";
import type { Schedule } from "./schedule";

/** As their documents say them. */
export type LadderPlan = z.infer<typeof ladderPlanDocument>;
export type Rung = z.infer<typeof rungDocument>;
export type PercentileSetting = NonNullable<Rung["percentile"]>;
export type Feeding = z.infer<typeof feedingDocument>;
export type CueTransfer = NonNullable<LadderPlan["transfer"]>;

export const METHODS = ["pressure-release", "marker-food", "combined"] as const;
/** How the horse is taught. It chooses buttons and words, never the arithmetic. */
export type Method = (typeof METHODS)[number];

export const OFFER_RULES = ["reinforce", "ignore", "settle"] as const;
/** What an answer nobody asked for earns. */
export type OfferRule = (typeof OFFER_RULES)[number];

/** What a plan says where nothing else was chosen. */
export const PLAN_DEFAULTS = {
  holdOnWrong: true,
  firstTouchCentimetres: null,
  transfer: null,
  feeding: { reinforcer: "food", pieceGrams: null, dayLimitGrams: null, where: "", politeSeconds: 0 },
  ways: {},
} as const satisfies Partial<LadderPlan>;

export const FEWEST_RUNGS = 2;
export const MOST_RUNGS = 40;
export const MOST_STRANDS = 12;

/** The schedule of a rung, counted from 1: its own, or the ladder's. @example scheduleOf(plan, 1) // { kind: "every" } */
export function scheduleOf(plan: Pick<LadderPlan, "rungs" | "schedule">, rung: number): Schedule {
  return plan.rungs[rung - 1]?.schedule ?? plan.schedule;
}

/** The method of a rung, counted from 1: its own, or the ladder's. @example methodOf(plan, 1) // "combined" */
export function methodOf(plan: LadderPlan, rung: number): Method {
  return plan.rungs[rung - 1]?.method ?? plan.method;
}

/** The one side a rung, counted from 1, asks for; null where it asks for both, or says nothing. @example sideAsked(plan, 1) // "L" */
export function sideAsked(plan: Pick<LadderPlan, "rungs" | "strands">, rung: number): "L" | "R" | null {
  const side = plan.strands.find(({ key }) => key === "side");
  const value = side === undefined ? undefined : plan.rungs[rung - 1]?.values[side.id];
  return value === "left" ? "L" : value === "right" ? "R" : null;
}

/** Whether a rung, counted from 1, asks for both sides. @example asksBothSides(plan, 3) // true */
export function asksBothSides(plan: Pick<LadderPlan, "rungs" | "strands">, rung: number): boolean {
  const side = plan.strands.find(({ key }) => key === "side");
  return side !== undefined && plan.rungs[rung - 1]?.values[side.id] === "both";
}

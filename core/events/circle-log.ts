import type { CircleOverride, CirclePlan } from "./circle-plan";
import type { Payload } from "./fact";

/** How the log, the store's JSON, files and bodies name what the program names in its own way. */
const NAMES = {
  radius_m: "radiusMetres",
  radius_by: "radiusBy",
  led_first: "ledFirst",
  kit_stage: "kitStage",
  rope_slack: "ropeSlack",
  head_at: "headAt",
  release_checked: "releaseChecked",
  stiffer_first: "stifferFirst",
  session_minutes: "sessionMinutes",
  week_minutes: "weekMinutes",
  week_visits: "weekVisits",
  sessions_a_week: "sessionsAWeek",
  holes_left: "holesLeft",
  holes_right: "holesRight",
  strap_cm: "strapCentimetres",
  slack_hands: "slackHands",
  next_check: "nextCheck",
} as const;

const INSIDE: ReadonlyMap<string, string> = new Map(Object.entries(NAMES));
const LOGGED: ReadonlyMap<string, string> = new Map(Object.entries(NAMES).map(([logged, inside]) => [inside, logged]));

function renamed(value: unknown, names: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(value)) return value.map((one) => renamed(one, names));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [names.get(key) ?? key, renamed(one, names)]));
}

/**
 * What is logged or kept of work on the circle, under the program's own names, at any depth.
 * What has them already stays as it is.
 * @example fromLog({ radius_m: 8 }) // { radiusMetres: 8 }
 */
export const fromLog = (logged: unknown): unknown => renamed(logged, INSIDE);

/** The same under the names it is logged and kept by. @example toLog({ radiusMetres: 8 }) // { radius_m: 8 } */
export const toLog = (inside: unknown): unknown => renamed(inside, LOGGED);

/** A plan as it is logged. */
export type LoggedCirclePlan = Payload<"circle.start">["plan"];

/** What a session on the circle is begun with, as it is sent and kept. */
export interface LoggedBegunCircle {
  readonly plan: LoggedCirclePlan;
  readonly overrides: readonly CircleOverride[];
}

const plans = new WeakMap<object, CirclePlan>();

/** A plan that was logged: one and the same for as long as what was logged is. @example planFromLog(fact.payload.plan).radiusMetres // 8 */
export function planFromLog(logged: LoggedCirclePlan): CirclePlan {
  const known = plans.get(logged);
  if (known !== undefined) return known;
  const plan = fromLog(logged) as CirclePlan;
  plans.set(logged, plan);
  return plan;
}

/** A plan to be logged. @example planToLog(plan).radius_m // 8 */
export const planToLog = (plan: CirclePlan): LoggedCirclePlan => toLog(plan) as LoggedCirclePlan;

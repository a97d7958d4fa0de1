import * as yup from "yup";
import { record } from "../checks/common";
import { CIRCLE_SOUND_NAMES, type CircleSetup, type CircleSound, HAND_KINDS, type KitFit, USUAL_SOUNDS } from "../circle";
import { isDay } from "../day";
import { circleOverridesSchema, circlePlanSchema } from "../events/circle-plan-schema";
import { keysOf, recordOf } from "../typed";
import { todayOf } from "./horse";

const side = () => yup.string<"L" | "R">().oneOf(["L", "R"], "${path}: left or right.");
const day = (label: string) => yup.string().test("day", `${label}: a day such as 2026-03-09.`, (value) => value == null || isDay(value));
const minutes = (label: string, most: number) => yup.number().min(0, `${label}: 0 or more.`).max(most, `${label}: ${most} at most.`);
const cap = (label: string, most: number) =>
  yup.number().min(1, `${label}: 1 or more.`).max(most, `${label}: ${most} at most.`).nullable().default(null);

const loadSchema = (label: string) =>
  record({
    walk: minutes(`${label}, walk`, 60).required(`${label}, walk is missing.`),
    trot: minutes(`${label}, trot`, 60).required(`${label}, trot is missing.`),
    canter: minutes(`${label}, canter`, 60).required(`${label}, canter is missing.`),
    obstacles: yup.boolean().default(false),
  });

const sound = () => yup.string<CircleSound>().oneOf(CIRCLE_SOUND_NAMES, "${path}: not one of the sounds.").required();
const CALLS = keysOf(USUAL_SOUNDS);

/** How one horse works on the circle, as the form sends it. */
export const circleSetupSchema = record({
  ways: yup.string<"both" | "turn">().oneOf(["both", "turn"], "ways: both or turn.").required("ways is missing."),
  stiffer: side().nullable().default(null),
  stiffer_first: yup.boolean().default(false),
  caps: record({
    session_minutes: cap("Minutes a session", 120),
    week_minutes: cap("Minutes a week", 600),
    week_visits: cap("Sessions a week", 14),
  }),
  sounds: record(recordOf(CALLS, sound)).test(
    "each",
    "Sounds: each means one thing alone.",
    (value) => value == null || new Set(Object.values(value)).size === CALLS.length,
  ),
  ramp: record({
    start: loadSchema("Start"),
    goal: loadSchema("Goal"),
    sessions_a_week: yup
      .number()
      .integer("Sessions a week: a whole number.")
      .min(1, "Sessions a week: 1 or more.")
      .max(7, "Sessions a week: 7 at most.")
      .required("Sessions a week are missing."),
    radius_m: yup.number().min(2, "Radius: 2 m or more.").max(30, "Radius: 30 m at most.").required("Radius is missing."),
    since: day("Since").required("Since is missing."),
  })
    .nullable()
    .default(null),
  plan: circlePlanSchema.nullable().default(null),
});
export type CircleSetupInput = Omit<CircleSetup, "changed">;

/** A plan to be kept, as the planner sends it. */
export const keptPlanSchema = record({ plan: circlePlanSchema.required("plan is missing.") });

/** A fit card as the form sends it. */
export const kitFitSchema = record({
  holes_left: yup
    .number()
    .integer("Holes left: a whole number.")
    .min(0, "Holes left: 0 or more.")
    .max(30, "Holes left: 30 at most.")
    .nullable()
    .default(null),
  holes_right: yup
    .number()
    .integer("Holes right: a whole number.")
    .min(0, "Holes right: 0 or more.")
    .max(30, "Holes right: 30 at most.")
    .nullable()
    .default(null),
  strap_cm: yup.number().min(1, "Strap: 1 cm or more.").max(300, "Strap: 300 cm at most.").nullable().default(null),
  slack_hands: yup.number().min(0, "Slack: 0 or more.").max(5, "Slack: 5 hands at most.").nullable().default(null),
  next_check: day("Next check").nullable().default(null),
  note: yup.string().max(400, "Note: at most 400 characters.").default(""),
});
export type KitFitInput = KitFit;

/** Work that was not logged here, entered by hand. */
export const handLoadSchema = record({
  day: day("Day")
    .required("Day is missing.")
    .test("not-future", "Day: today at the latest.", (value, context) => {
      const today = todayOf(context);
      return today === null || value <= today;
    }),
  kind: yup
    .string<(typeof HAND_KINDS)[number]>()
    .oneOf(HAND_KINDS, "Kind: ridden, driven, circle, free or in hand.")
    .required("Kind is missing."),
  minutes: yup.number().min(1, "Minutes: 1 or more.").max(600, "Minutes: 600 at most.").required("Minutes are missing."),
  note: yup.string().max(200, "Note: at most 200 characters.").default(""),
});
export interface HandLoadInput {
  readonly day: string;
  readonly kind: (typeof HAND_KINDS)[number];
  readonly minutes: number;
  readonly note: string;
}

/** What a session on the circle is begun with. */
export const begunCircleSchema = record({
  plan: circlePlanSchema.required("plan is missing."),
  overrides: circleOverridesSchema.default([]),
});

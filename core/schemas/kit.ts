import type * as yup from "yup";
import {
  choiceSchema,
  flagSchema,
  nameSchema,
  optionalDaySchema,
  optionalNumberSchema,
  record,
  textSchema,
  wholeNumberSchema,
} from "../checks/common";
import { KIT_KINDS } from "../welfare/kit";

/** A piece of kit. Length in metres, mass in grams; of feed, the mass of one piece. */
export const kitSchema = record({
  name: nameSchema("Name"),
  kind: choiceSchema("Kind", KIT_KINDS),
  length_m: optionalNumberSchema("Length", 0.05, 60, "m"),
  mass_g: optionalNumberSchema("Mass", 0.1, 500_000, "g"),
  buckles_equal: flagSchema("Buckles").nullable().default(null),
  note: textSchema("Note", 500),
});
export type KitInput = yup.InferType<typeof kitSchema>;

export const PERSON_ROLES = ["handler", "helper", "coach", "owner"] as const;

export const personSchema = record({
  name: nameSchema("Name"),
  role: choiceSchema("Role", PERSON_ROLES),
});
export type PersonInput = yup.InferType<typeof personSchema>;

/** A stretch of practice without a horse: line handling, marking, feeding. */
export const practiceSchema = record({
  day: optionalDaySchema("Day")
    .test("there", "Day is missing.", (value) => value != null)
    .test("not-future", "Day: today at the latest.", (value, context) => {
      const today: unknown = context.options.context?.today;
      return value == null || typeof today !== "string" || value <= today;
    }),
  what: nameSchema("What was practised"),
  minutes: wholeNumberSchema("Minutes", 1, 600, "min"),
  note: textSchema("Note", 500),
});
export type PracticeInput = yup.InferType<typeof practiceSchema>;

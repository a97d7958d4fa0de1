import * as yup from "yup";
import { choiceSchema, EARLIEST_YEAR, nameSchema, optionalDaySchema, optionalNumberSchema, record, textSchema } from "../checks/common";
import { isDay } from "../day";
import { fieldsOf } from "../typed";

export const HORSE_SEXES = ["mare", "gelding", "stallion", "filly", "colt"] as const;
export type HorseSex = (typeof HORSE_SEXES)[number];

/** Horses in work can be older than the product's earliest record date, but not by this much. */
const OLDEST_HORSE_YEARS = 50;

/** The present day, where the check was told it; null where it was not. @example todayOf(context) // "2026-03-09" */
export const todayOf = (context: yup.TestContext): string | null => {
  const today = fieldsOf(context.options.context).today;
  return isDay(today) ? today : null;
};

const restingRates = {
  resting_breaths_per_min: optionalNumberSchema("Resting breathing", 2, 120, "a minute"),
  resting_heart_per_min: optionalNumberSchema("Resting heart rate", 15, 150, "a minute"),
};

/** The horse's own rates at rest, per minute. */
export const restingSchema = record(restingRates);
export type RestingInput = yup.InferType<typeof restingSchema>;

/**
 * A horse as it is added and edited. Heights in cm at the withers, mass in kg,
 * rates per minute. The present day comes in as context `{ today }`, since
 * core has no clock. Where the day of birth is known it decides the year.
 */
export const horseSchema = record({
  name: nameSchema("Name"),
  born_day: optionalDaySchema("Born")
    .test("not-future", "Born: today at the latest.", (value, context) => {
      const today = todayOf(context);
      return value == null || today === null || value <= today;
    })
    .test("fits-year", "Born: the day and the birth year do not fit.", (value, context) => {
      const year: unknown = context.parent.birth_year;
      return value == null || typeof year !== "number" || Number(value.slice(0, 4)) === year;
    }),
  birth_year: yup
    .number()
    .transform((value, original) =>
      original === "" || original === null || original === undefined ? null : typeof original === "object" ? Number.NaN : value,
    )
    .typeError("Birth year: a year is needed, for example 2017.")
    .integer("Birth year: a whole year is needed.")
    .min(EARLIEST_YEAR, `Birth year: ${EARLIEST_YEAR} or later.`)
    .nullable()
    .default(null)
    .test("not-future", "Birth year: this year at the latest.", (value, context) => {
      const today = todayOf(context);
      return value == null || today === null || value <= Number(today.slice(0, 4));
    })
    .test("not-too-old", `Birth year: within the last ${OLDEST_HORSE_YEARS} years.`, (value, context) => {
      const today = todayOf(context);
      return value == null || today === null || value >= Number(today.slice(0, 4)) - OLDEST_HORSE_YEARS;
    }),
  sex: choiceSchema("Sex", HORSE_SEXES).notRequired().nullable().default(null),
  kind: textSchema("Kind", 80),
  height_cm: optionalNumberSchema("Height", 40, 220, "cm"),
  mass_kg: optionalNumberSchema("Mass", 20, 1500, "kg"),
  history: textSchema("History"),
  triggers: textSchema("What worries it", 1000),
  preferred_reinforcers: textSchema("What it works for", 1000),
  ...restingRates,
  // Left out by a form that does not ask: then it stays as it is.
  bears_heat_badly: yup.boolean().optional(),
});

export type HorseInput = yup.InferType<typeof horseSchema>;

/** Why a horse is out of work for now. */
export const AWAY_KINDS = ["turned out to grow", "resting", "sold"] as const;
export type AwayKind = (typeof AWAY_KINDS)[number];

/** Puts a horse away; its history stays. */
export const awaySchema = record({
  kind: choiceSchema("Why", AWAY_KINDS),
  since: optionalDaySchema("Since").test("not-future", "Since: today at the latest.", (value, context) => {
    const today = todayOf(context);
    return value == null || today === null || value <= today;
  }),
  note: textSchema("Note", 500),
});
export type AwayInput = yup.InferType<typeof awaySchema>;

import * as yup from "yup";
import { choiceSchema, EARLIEST_YEAR, nameSchema, optionalNumberSchema, textSchema } from "./common";

export const HORSE_SEXES = ["mare", "gelding", "stallion", "filly", "colt"] as const;
export type HorseSex = (typeof HORSE_SEXES)[number];

/** Horses in work can be older than the product's earliest record date, but not by this much. */
const OLDEST_HORSE_YEARS = 50;

/**
 * A horse as it is added and edited. Heights in cm at the withers, mass in kg.
 * The current year comes in as context `{ year }`, since core has no clock.
 */
export const horseSchema = yup.object({
  name: nameSchema("Name"),
  birth_year: yup
    .number()
    .transform((value, original) => (original === "" || original === null || original === undefined ? null : value))
    .typeError("Birth year: a year is needed, for example 2017.")
    .integer("Birth year: a whole year is needed.")
    .min(EARLIEST_YEAR, `Birth year: ${EARLIEST_YEAR} or later.`)
    .nullable()
    .default(null)
    .test("not-future", "Birth year: this year at the latest.", (value, context) => {
      const year: unknown = context.options.context?.year;
      return value == null || typeof year !== "number" || value <= year;
    })
    .test("not-too-old", `Birth year: within the last ${OLDEST_HORSE_YEARS} years.`, (value, context) => {
      const year: unknown = context.options.context?.year;
      return value == null || typeof year !== "number" || value >= year - OLDEST_HORSE_YEARS;
    }),
  sex: choiceSchema("Sex", HORSE_SEXES).notRequired().nullable().default(null),
  kind: textSchema("Kind", 80),
  height_cm: optionalNumberSchema("Height", 40, 220, "cm"),
  mass_kg: optionalNumberSchema("Mass", 20, 1500, "kg"),
  history: textSchema("History"),
  restrictions: textSchema("Restrictions", 1000),
});

export type HorseInput = yup.InferType<typeof horseSchema>;

export const personSchema = yup.object({
  name: nameSchema("Name"),
  role: choiceSchema("Role", ["handler", "helper", "coach", "owner"] as const),
});
export type PersonInput = yup.InferType<typeof personSchema>;

export const placeSchema = yup.object({
  name: nameSchema("Name"),
  shape: choiceSchema("Shape", ["round", "square", "rectangle"] as const),
  length_m: optionalNumberSchema("Length", 1, 1000, "m"),
  width_m: optionalNumberSchema("Width", 1, 1000, "m"),
});
export type PlaceInput = yup.InferType<typeof placeSchema>;

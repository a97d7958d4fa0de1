import * as yup from "yup";
import { EARLIEST_YEAR, isDay, LATEST_YEAR } from "../day";
import { CONTROL_IN_NAME, CONTROL_IN_TEXT, NAME_MOST_CHARACTERS, TEXT_MOST_CHARACTERS } from "./limits";

export { EARLIEST_YEAR };
export const EARLIEST_WALL_MS = Date.UTC(EARLIEST_YEAR, 0, 1);

export { NAME_MOST_CHARACTERS, TEXT_MOST_CHARACTERS };

const noControl = (pattern: RegExp) => (value: string | undefined | null) => value == null || !pattern.test(value);

/** Only text is text, without the space at its edges: an object or a number is not turned into one. */
const textOnly = (value: string, original: unknown) =>
  typeof original === "string" ? value.trim() : original === null ? undefined : original;

/**
 * An object with these keys and no others: what is not known is refused by its name rather than dropped or kept.
 * @example record(shape)
 */
export const record = <Shape extends yup.ObjectShape>(shape: Shape) =>
  yup
    .object(shape)
    .exact(({ path, properties }: { path: string; properties: string }) =>
      path === "" || path === "this" ? `Not known here: ${properties}.` : `${path}, not known here: ${properties}.`,
    );

/** Only a number, or one typed into a field, is a number: a list or an object is not turned into one. */
const numberOnly = (value: unknown, original: unknown) =>
  typeof original === "number" || typeof original === "string" ? value : Number.NaN;

/** Yes or no, and nothing that could be read as either. @example flagSchema("Buckles") */
export const flagSchema = (label: string) =>
  yup
    .boolean()
    .transform((_value, original: unknown) => original)
    .typeError(`${label}: yes or no.`);

/** A name: one line, trimmed, any script. @example nameSchema("Rig") */
export const nameSchema = (label: string) =>
  yup
    .string()
    .transform(textOnly)
    .typeError(`${label}: text is needed.`)
    .required(`${label} is missing.`)
    .max(NAME_MOST_CHARACTERS, `${label}: at most ${NAME_MOST_CHARACTERS} characters.`)
    .test("control", `${label}: one line of plain text, please.`, noControl(CONTROL_IN_NAME));

/** A longer text, may be empty. @example textSchema("Kind", 80) */
export const textSchema = (label: string, most = TEXT_MOST_CHARACTERS) =>
  yup
    .string()
    .transform(textOnly)
    .typeError(`${label}: text is needed.`)
    .max(most, `${label}: at most ${most} characters.`)
    .test("control", `${label}: plain text, please.`, noControl(CONTROL_IN_TEXT))
    .default("");

/** A number within bounds; an empty field becomes null. @example optionalNumberSchema("Width", 1, 1000, "m") */
export const optionalNumberSchema = (label: string, least: number, most: number, unit: string) =>
  yup
    .number()
    .transform((value, original) => (original === "" || original === null || original === undefined ? null : numberOnly(value, original)))
    .typeError(`${label}: a number is needed.`)
    .min(least, `${label}: from ${least} to ${most}${unit === "" ? "" : ` ${unit}`}.`)
    .max(most, `${label}: from ${least} to ${most}${unit === "" ? "" : ` ${unit}`}.`)
    .nullable()
    .default(null);

/** A calendar day, "2026-03-09"; an empty field becomes null. @example optionalDaySchema("Day") */
export const optionalDaySchema = (label: string) =>
  yup
    .string()
    .transform((_value, original: unknown) => (original === "" || original === undefined ? null : original))
    .typeError(`${label}: a day is needed.`)
    .nullable()
    .default(null)
    .test("day", `${label}: a real day is needed, from ${EARLIEST_YEAR} to ${LATEST_YEAR}.`, (value) => value == null || isDay(value));

/** A required number within bounds. @example numberSchema("Down", 0, 1000, "m") */
export const numberSchema = (label: string, least: number, most: number, unit = "") =>
  yup
    .number()
    .transform((value, original) =>
      original === "" || original === null || original === undefined ? undefined : numberOnly(value, original),
    )
    .typeError(`${label}: a number is needed.`)
    .required(`${label} is missing.`)
    .min(least, `${label}: from ${least} to ${most}${unit === "" ? "" : ` ${unit}`}.`)
    .max(most, `${label}: from ${least} to ${most}${unit === "" ? "" : ` ${unit}`}.`);

/** A required whole number within bounds. @example wholeNumberSchema("Of", 1, 12) */
export const wholeNumberSchema = (label: string, least: number, most: number, unit = "") =>
  numberSchema(label, least, most, unit).integer(`${label}: a whole number is needed.`);

/** One of a list of words. @example choiceSchema("Asked", ["start", "side"]) */
export const choiceSchema = <T extends string>(label: string, choices: readonly T[]) =>
  yup
    .string<T>()
    .transform((_value, original: unknown) => original)
    .typeError(`${label}: choose one of the list.`)
    .required(`${label} is missing.`)
    .oneOf(choices, `${label}: choose one of the list.`);

/** A problem with one field: its path in the input, and what to do. */
export interface FieldProblem {
  readonly path: string;
  readonly message: string;
}

/** The outcome of a check: the cleaned value, or every problem found. */
export type Checked<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly FieldProblem[] };

/** Runs a schema over an unknown value and returns every problem rather than throwing. @example check(schema, 0) // { ok: false, … } */
export function check<T>(schema: yup.Schema<T>, value: unknown, options: { strict?: boolean; context?: object } = {}): Checked<T> {
  try {
    return {
      ok: true,
      value: schema.validateSync(value, { abortEarly: false, strict: options.strict ?? false, context: options.context }),
    };
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return { ok: false, problems: inner.map((e) => ({ path: e.path ?? "", message: e.message })) };
  }
}

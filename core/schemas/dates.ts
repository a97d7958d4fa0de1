import * as yup from "yup";
import { choiceSchema, optionalDaySchema, record, textSchema } from "../checks/common";
import { DATE_KINDS } from "../welfare/dates";

/** A date of a horse as it is added. */
export const horseDateSchema = record({
  kind: choiceSchema("What", DATE_KINDS),
  day: optionalDaySchema("Day").required("Day: when is it?"),
  every_weeks: yup
    .number()
    .transform((value, original: unknown) => (original === "" || original == null ? null : value))
    .nullable()
    .default(null)
    .typeError("Every: a whole number of weeks.")
    .integer("Every: a whole number of weeks.")
    .min(1, "Every: from 1 to 104 weeks.")
    .max(104, "Every: from 1 to 104 weeks."),
  note: textSchema("Note", 200).when("kind", ([kind], schema) => (kind === "other" ? schema.required("Say what it is.") : schema)),
}).required();

export type HorseDateInput = yup.InferType<typeof horseDateSchema>;

/** A date that was done, and on which day. */
export const dateDoneSchema = record({ day: optionalDaySchema("Day").required("Day: when was it done?") }).required();

/** Going against a restriction for today: never without a reason. */
export const goAgainstSchema = record({ reason: textSchema("Reason", 300).required("Say why you go against it.") }).required();

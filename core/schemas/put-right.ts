import * as yup from "yup";
import { EARLIEST_WALL_MS, record, textSchema } from "../checks/common";

/** What is put right of a whole session. What is left out stays; null takes the handler or the place away. */
export const putRightSchema = record({
  horse: yup.string().max(100),
  /** Of another horse: the ladder it counts for there, or none. */
  ladder: yup.string().max(100).nullable(),
  /** Of another horse: whether the ladders it was worked on go along, as new ladders of that horse. */
  take_along: yup.boolean(),
  person: yup.string().max(100).nullable(),
  place: yup.string().max(100).nullable(),
  started_ms: yup.number().min(EARLIEST_WALL_MS, "Begun: not before 1980."),
  reason: textSchema("Why", 500).required("Say why."),
}).required();

export type PutRightInput = yup.InferType<typeof putRightSchema>;

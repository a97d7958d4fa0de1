import * as z from "zod";
import { document, word } from "../documents";
import { TRIALS_COLUMNS } from "./trials-columns";

const columnNames = TRIALS_COLUMNS.map(({ name }) => name);
const cell = z.string().max(200);

/** Which column of a spreadsheet is which, and what its words mean, as the yard remembers it. */
export const trialsMappingDocument = document({
  columns: z.partialRecord(z.enum(columnNames), cell).readonly(),
  outcomes: z.record(cell, word(["met", "try", "miss", "refused"])).readonly(),
});

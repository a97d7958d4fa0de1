import * as z from "zod";
import { NAME_MOST_CHARACTERS } from "../checks/limits";
import { document, list, name, text, word } from "../documents";
import { MOST_LEVELS, STRAND_KEYS } from "./strand";

/**
 * A strand is one dimension of difficulty. A ladder chooses its strands; a
 * rung gives each of them a value.
 */
export const strandDocument = document({
  /** Unique within its ladder. */
  id: z.string().regex(/^[a-z0-9-]{1,40}$/),
  /** Which entry of the catalogue it is, or "own" for one the user made. */
  key: word(STRAND_KEYS),
  name,
  kind: word(["number", "levels"]),
  /** Unit of a number strand: "s", "m", "kg", "" for a count. */
  unit: text,
  /** Levels from easiest to hardest, as this ladder orders them. Empty for a number strand. */
  levels: list(name, MOST_LEVELS),
  /** For a number strand: whether more or less of it is harder. Levels are always harder later in the list. */
  harder: word(["more", "less"]),
  /** How values of this strand stand in a sentence where the usual words would not: by the value as it is written, "{}" for any other. */
  phrases: z.record(z.string().max(NAME_MOST_CHARACTERS), text).optional(),
});

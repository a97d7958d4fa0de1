import * as z from "zod";
import { MOST_CUE_PHASES } from "../cues/phase";
import { document, list, name, number, text, wholeNumber, within } from "../documents";
import { MOST_PREREQUISITES } from "./prerequisite";

/**
 * What another behaviour must have reached: values of its strands, by the
 * strand's name or key, since rungs belong to one horse's ladder; and the
 * clearest cue phase that still counts.
 */
export const prerequisiteDocument = document({
  /** The behaviour's key in the library, or its own name where it is not from there. */
  behaviour: name,
  values: z
    .record(text, z.union([number, text]))
    .readonly()
    .default({}),
  /** At this phase or lighter; left out where any phase counts. */
  maxPhase: within(wholeNumber, [1, MOST_CUE_PHASES]).optional(),
});

export const prerequisitesDocument = list(prerequisiteDocument, MOST_PREREQUISITES);

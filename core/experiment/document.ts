import { list, word } from "../documents";

/** The arms of an experiment, block by block, in the order they were drawn in. */
export const armsDocument = list(word(["A", "B"]));

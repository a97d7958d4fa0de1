import { list, word } from "../documents";
import { INVOLVEMENTS } from "./restrictions";

/** What a behaviour's work involves that a restriction may name. A word that nobody knows makes it unreadable: it may be one that closes the work. */
export const involvementsDocument = list(word(INVOLVEMENTS));

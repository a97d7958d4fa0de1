import type { SessionRecord } from "./reduce";

/** Pieces given so far: in trials and outside them. @example piecesUsed(record) // 8 */
export function piecesUsed(record: Pick<SessionRecord, "trials" | "foodPiecesOutside">): number {
  return record.trials.reduce((sum, { reinforcers }) => sum + (reinforcers ?? 0), record.foodPiecesOutside);
}

/** The food weighed after a session, in grams, or null where nobody weighed it. @example weighedGrams(record) // null */
export const weighedGrams = ({ facts }: Pick<SessionRecord, "facts">): number | null =>
  facts.findLast((fact) => fact.type === "aftercare")?.payload.food_g ?? null;

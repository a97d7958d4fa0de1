/** What an answer that is not met is, in shares of those; the rest are tries. Invented, for the simulated horses and for what is checked against them. */
export const NOT_MET_SHARES = { miss: 0.3, refused: 0.15 } as const;

/** Share of tries among answers that are not met. */
export const TRY_SHARE = 1 - NOT_MET_SHARES.miss - NOT_MET_SHARES.refused;

/** What an answer that is not met turns out to be. @param draw from 0 to 1. @example notMet(draw) // "try" */
export const notMet = (draw: number): "try" | "miss" | "refused" =>
  draw < TRY_SHARE ? "try" : draw < TRY_SHARE + NOT_MET_SHARES.miss ? "miss" : "refused";

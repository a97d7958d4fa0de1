/** So many draws are made where not every way can be gone through. */
export const DRAWS = 20_000;

/** After so many draws a p above this cannot come under what is called, 0.01. */
const CLEARLY_NOTHING: ReadonlyMap<number, number> = new Map([
  [500, 0.08],
  [2000, 0.03],
  [6000, 0.016],
]);

/**
 * Whether a randomisation test may stop drawing: nothing shows, and no further
 * draw will make it show. The p it stops at is that of fewer draws, and rougher.
 * @param asMuch draws so far that came to as much as what was seen.
 * @example drawnEnough(500, 60) // true: p is near 0.12
 */
export const drawnEnough = (draws: number, asMuch: number): boolean => asMuch / draws > (CLEARLY_NOTHING.get(draws) ?? 1);

/** Counts this far apart decide, in milliseconds (common practice, no source). */
export const APART_MS = 3 * 60_000;
/** Breathing and heart counted within this of each other are held against one another, in milliseconds. */
export const TOGETHER_MS = 2 * 60_000;
/** So many breaths a minute above resting are down, however slow the horse rests (8 to 16 is usual at rest; common practice, no source). */
export const DOWN_WITHIN_PER_MINUTE = 8;
/** So many are down for any horse: the slowest usual at rest, and eight (common practice, no source). What is over them says nothing where the resting rate is not known. */
export const ANY_HORSE_DOWN_PER_MINUTE = 16;
/** After hard work or heat the heart has to be under this, and the temperature where it was taken (common practice, no source). */
export const HEART_DOWN_PER_MINUTE = 60;
export const COOL_CELSIUS = 39;
/** A typed resting rate over the first is questioned, over the second it is not used. */
export const RESTING_QUESTIONED_PER_MINUTE = 20;
export const RESTING_MOST_PER_MINUTE = 24;
/** Ten minutes later both are to have fallen by this share of what they were. */
const AGAIN_AFTER_MS = 10 * 60_000;
const CLEAR_FALL = 0.1;

/** A rate, or a temperature, at a moment. */
export interface Reading {
  readonly wallMs: number;
  readonly perMinute: number;
}

/**
 * The resting rate that may be gone by; null where there is none, or it is too high to be one of rest.
 * @example usableResting(12) // 12
 */
export const usableResting = (perMinute: number | null): number | null =>
  perMinute === null || perMinute > RESTING_MOST_PER_MINUTE ? null : perMinute;

/**
 * What is said of a typed resting rate, or null where nothing is.
 * @example restingQuestion(22) // asks for it to be counted again
 */
export function restingQuestion(perMinute: number | null): string | null {
  if (perMinute === null || perMinute <= RESTING_QUESTIONED_PER_MINUTE) return null;
  return perMinute > RESTING_MOST_PER_MINUTE
    ? `${Math.round(perMinute)} a minute is too fast for a horse at rest, so it is not used. Count it again in the stable, in the cool. If it stays so, ask a vet.`
    : `${Math.round(perMinute)} a minute is fast for a horse at rest. Most rest at 8 to 16. Count it once more in quiet.`;
}

/** The most breaths a minute that are down. @example downLimit(11) // 19 */
export const downLimit = (resting: number, withinShare: number): number =>
  resting + Math.max(withinShare * resting, DOWN_WITHIN_PER_MINUTE);

/**
 * Whether two counts, the last one and one three minutes or more before it with none above in between, are at or under the limit.
 * @example twiceDown([], 20) // false
 */
export function twiceDown(sorted: readonly Reading[], limit: number): boolean {
  const last = sorted.at(-1);
  if (last === undefined || last.perMinute > limit) return false;
  for (let i = sorted.length - 1; i >= 0; i--) {
    const one = sorted[i] as Reading;
    if (one.perMinute > limit) return false;
    if (last.wallMs - one.wallMs >= APART_MS) return true;
  }
  return false;
}

/** Breathing that was faster than the heart beat, both counted within two minutes. */
export interface AboveHeart {
  readonly wallMs: number;
  readonly breaths: number;
  readonly heart: number;
}

/**
 * Every time breathing stood above the heart rate, oldest first. @param breaths, hearts in any order.
 * @example aboveHeart([{ wallMs: 0, perMinute: 70 }], [{ wallMs: 60000, perMinute: 60 }])
 */
export function aboveHeart(breaths: readonly Reading[], hearts: readonly Reading[]): AboveHeart[] {
  return [...breaths]
    .sort((a, b) => a.wallMs - b.wallMs)
    .flatMap((breath) => {
      const near = hearts
        .filter((heart) => Math.abs(heart.wallMs - breath.wallMs) <= TOGETHER_MS)
        .sort((a, b) => Math.abs(a.wallMs - breath.wallMs) - Math.abs(b.wallMs - breath.wallMs))[0];
      return near !== undefined && breath.perMinute > near.perMinute
        ? [{ wallMs: breath.wallMs, breaths: breath.perMinute, heart: near.perMinute }]
        : [];
    });
}

/** What to do while breathing stands above the heart rate. */
export const ABOVE_HEART_WORDS =
  "Shade, water over the whole body, moving air. Call the vet now if the horse is dull, unsteady, not sweating, at 40 °C or more, or did only a little work. Otherwise count both again in ten minutes, and call if either has not clearly fallen.";

/**
 * Whether ten minutes have gone since breathing first stood above the heart
 * rate and either has not clearly fallen: then the vet is called.
 * @example notFallen([], []) // false
 */
export function notFallen(breaths: readonly Reading[], hearts: readonly Reading[]): boolean {
  const [first] = aboveHeart(breaths, hearts);
  if (first === undefined) return false;
  const later = (list: readonly Reading[]) =>
    list.filter(({ wallMs }) => wallMs >= first.wallMs + AGAIN_AFTER_MS).sort((a, b) => a.wallMs - b.wallMs)[0];
  const breath = later(breaths);
  const heart = later(hearts);
  return (
    (breath !== undefined && breath.perMinute > first.breaths * (1 - CLEAR_FALL)) ||
    (heart !== undefined && heart.perMinute > first.heart * (1 - CLEAR_FALL))
  );
}

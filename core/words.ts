/**
 * A count with its word, one or many.
 * @example counted(1, "try", "tries") // "1 try"
 */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** A side as an event carries it, in words. */
export const SIDE_WORDS = { L: "left", R: "right" } as const;
export type SideLetter = keyof typeof SIDE_WORDS;

/** The side of a word, as an event carries it. @example sideLetter("left") // "L" */
export const sideLetter = (word: "left" | "right"): SideLetter => (word === "left" ? "L" : "R");
/** @example otherSide("L") // "R" */
export const otherSide = (side: SideLetter): SideLetter => (side === "L" ? "R" : "L");

/** A share as a whole number of hundredths. */
export const inHundredths = (share: number): number => Math.round(share * 100);
/** @example percentWords(0.815) // "82 %" */
export const percentWords = (share: number): string => `${inHundredths(share)} %`;
/** @example percentSpan([0.33, 0.79]) // "33 to 79 %" */
export const percentSpan = ([low, high]: readonly [number, number]): string => `${inHundredths(low)} to ${inHundredths(high)} %`;

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

/** A share as a whole number of hundredths. @example inHundredths(0) // 0 */
export const inHundredths = (share: number): number => Math.round(share * 100);
/** @example percentWords(0.815) // "82 %" */
export const percentWords = (share: number): string => `${inHundredths(share)} %`;
/** @example percentSpan([0.33, 0.79]) // "33 to 79 %" */
export const percentSpan = ([low, high]: readonly [number, number]): string => `${inHundredths(low)} to ${inHundredths(high)} %`;

/**
 * Parts as whole numbers that add up to the whole as it is said: each is
 * rounded down, and what is missing goes to those with the largest rest.
 * @param parts zero or more, in any unit.
 * @example wholeParts([1.6, 10.6]) // [2, 10]: their sum, 12.2, is said as 12
 */
export function wholeParts(parts: readonly number[]): number[] {
  const whole = parts.map(Math.floor);
  const missing = Math.round(parts.reduce((sum, part) => sum + part, 0)) - whole.reduce((sum, part) => sum + part, 0);
  const byRest = parts.map((part, i) => ({ i, rest: part - Math.floor(part) })).sort((a, b) => b.rest - a.rest || a.i - b.i);
  for (const { i } of byRest.slice(0, Math.max(0, missing))) whole[i] = (whole[i] ?? 0) + 1;
  return whole;
}

const NUMBERS = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];

/** A whole number as it is said: in a word up to ten, else in digits. @example numberWord(6) // "six" */
export const numberWord = (n: number): string => NUMBERS[n] ?? String(n);

/** The same at the head of a sentence. @example numberWordFirst(6) // "Six" */
export const numberWordFirst = (n: number): string => {
  const word = numberWord(n);
  return word.charAt(0).toUpperCase() + word.slice(1);
};

/** The advice, from what comes first to what comes last. "Stop" is the stop card after a danger sign; "Start" is said before the first ask. */
export const ADVICE_WORDS = ["Stop", "Break", "Finish", "Add a step", "Go back", "Change side", "Up", "Repeat", "Start"] as const;
export type AdviceWord = (typeof ADVICE_WORDS)[number];

/** An advice with its one-line reason and the numbers in it. It never acts by itself. */
export interface Advice {
  readonly word: AdviceWord;
  /** What it was said for, as a key: an advice that was declined is not said again for the same. */
  readonly why: string;
  readonly reason: string;
  readonly numbers: Readonly<Record<string, number>>;
  /** The rung to go to, where the advice leads to another one; for Finish the sure rung to end on. */
  readonly rung?: number;
}

/** The smaller, the sooner it comes. @example rankOf("Go back") // 4 */
export const rankOf = (word: AdviceWord) => ADVICE_WORDS.indexOf(word);

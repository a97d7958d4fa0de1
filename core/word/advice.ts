/** The words, from the one that comes first to the one that comes last. "Stop" is the stop card after a danger sign. */
export const WORDS = ["Stop", "Rest", "Finish", "Split", "Ease", "Change side", "Raise", "Stay"] as const;
export type Word = (typeof WORDS)[number];

/** A word with its one-line reason and the numbers in it. It advises and never acts by itself. */
export interface Advice {
  readonly word: Word;
  /** What it was said for, as a key: a word that was declined is not said again for the same. */
  readonly why: string;
  readonly reason: string;
  readonly numbers: Readonly<Record<string, number>>;
  /** The rung to go to, where the word leads to another one; for Finish the sure rung to end on. */
  readonly rung?: number;
}

/** The smaller, the sooner it comes. @example rankOf("Ease") // 4 */
export const rankOf = (word: Word) => WORDS.indexOf(word);

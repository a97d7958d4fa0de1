import { ADVICE_WORDS, type Advice, type AdviceWord } from "./advice";

/** The key each advice is written with in events, exported files and pages kept from earlier versions. */
const KEYS: Readonly<Record<AdviceWord, string>> = {
  Stop: "Stop",
  Break: "Rest",
  Finish: "Finish",
  "Add a step": "Split",
  "Go back": "Ease",
  "Change side": "Change side",
  Up: "Raise",
  Repeat: "Stay",
  // Nothing was asked yet: files have always called that Stay.
  Start: "Stay",
};

/** The key an advice is logged with; see the formats document. @example adviceKey("Go back") // "Ease" */
export const adviceKey = (word: AdviceWord): string => KEYS[word];

/** What a logged key is called on screen; a key nobody knows stays as it is. @example adviceOfKey("Ease") // "Go back" */
export const adviceOfKey = (key: string): string => ADVICE_WORDS.find((word) => KEYS[word] === key) ?? key;

/**
 * What is logged of an advice: its key, its reason with the numbers, whether it was taken, and what was done instead.
 * @example adviceLogged(advice, true) // { word: "Raise", why: "rule", reason: "…", numbers: { met: 5 }, taken: true }
 */
export const adviceLogged = ({ word, why, reason, numbers }: Advice, taken: boolean, did?: string) => ({
  word: adviceKey(word),
  why,
  reason,
  numbers: { ...numbers },
  taken,
  ...(did === undefined ? {} : { did }),
});

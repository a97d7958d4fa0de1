import { EARLIEST_YEAR, isDay, LATEST_YEAR } from "@/core/day";
import { FORM_LIMITS, wireProblem } from "@/core/schemas";

/** A value as a cell of a package holds it. */
export type Cell = string | number | null;

/** What is wrong with the value of a column, in words that follow its name; null where nothing is. */
export type Check = (value: Cell) => string | null;

// biome-ignore lint/suspicious/noControlCharactersInRegex: they are exactly what is looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const LONG_TEXT = 4000;
const shown = (value: Cell) => `“${`${value}`.slice(0, 60)}”`;

export const text =
  (most = LONG_TEXT): Check =>
  (value) =>
    typeof value !== "string"
      ? "is no text."
      : value.length > most
        ? `is longer than ${most} characters.`
        : CONTROL.test(value)
          ? "is no plain text."
          : null;
/** Text of any length and kind. */
export const anyText: Check = (value) => (typeof value === "string" ? null : "is no text.");
export const id = text(100);
export const name: Check = (value) => text(80)(value) ?? (String(value).trim() === "" ? "is empty." : null);
export const oneOf =
  (words: readonly string[]): Check =>
  (value) =>
    words.includes(String(value)) ? null : `${shown(value)} is not known here.`;
export const within =
  (least: number, most: number): Check =>
  (value) =>
    typeof value === "number" && value >= least && value <= most ? null : `${shown(value)} is not from ${least} to ${most}.`;
export const flag: Check = (value) => (value === 0 || value === 1 ? null : `${shown(value)} is neither 0 nor 1.`);
export const day: Check = (value) => (isDay(value) ? null : `${shown(value)} is no day from ${EARLIEST_YEAR} to ${LATEST_YEAR}.`);
export const time: Check = (value) =>
  typeof value === "number" && value >= Date.UTC(1900, 0) && value < Date.UTC(LATEST_YEAR + 1, 0)
    ? null
    : `${shown(value)} is no time of ours.`;
/** JSON that holds what it should; never deeper or larger than a form may be. */
export const json =
  (is: (value: unknown) => boolean): Check =>
  (value) => {
    let found: unknown;
    try {
      found = JSON.parse(String(value));
    } catch {
      return "cannot be read.";
    }
    return wireProblem(found, FORM_LIMITS) === null && is(found) ? null : `${shown(value)} is not what belongs there.`;
  };
export const textsOf = (most: number) => (value: unknown) =>
  Array.isArray(value) && value.length <= most && value.every((one) => typeof one === "string" && one.length <= 200);
export const listOf = (most: number, is: (value: unknown) => boolean) => (value: unknown) =>
  Array.isArray(value) && value.length <= most && value.every(is);

/** How many there are of something, or where in a list. */
export const count = within(0, 1_000_000);

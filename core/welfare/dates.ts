import { type Day, dayWords } from "../day";
import { MILLISECONDS_PER_DAY } from "../units";

/** What a date of a horse is about. */
export const DATE_KINDS = ["comes back on", "trim", "fitting", "vet", "other"] as const;
export type DateKind = (typeof DATE_KINDS)[number];

/** One date of a horse. */
export interface HorseDate {
  readonly kind: DateKind;
  readonly day: Day;
  /** Comes again after so many weeks; null where it comes once. */
  readonly everyWeeks: number | null;
  readonly note: string;
}

/** How many days before it is due a date is said in the yard. */
export const SAID_DAYS_BEFORE = 7;

const NAMES: Readonly<Record<DateKind, string>> = {
  "comes back on": "Comes back",
  trim: "Trim",
  fitting: "Fitting",
  vet: "Vet",
  other: "",
};

const utc = (day: Day) => Date.parse(`${day}T00:00:00Z`);

/** Whole days from one day to another; below 0 where it lies before. @example daysBetween("2026-06-01", "2026-06-01") // 0 */
export const daysBetween = (from: Day, to: Day): number => Math.round((utc(to) - utc(from)) / MILLISECONDS_PER_DAY);

/**
 * The day a date falls on next, once it was done: so many weeks after the day it was done.
 * @example dayAfterWeeks("2026-03-02", 6) // "2026-04-13"
 */
export const dayAfterWeeks = (day: Day, weeks: number): Day =>
  new Date(utc(day) + weeks * 7 * MILLISECONDS_PER_DAY).toISOString().slice(0, 10);

const asSentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1).replace(/\.$/, "")}`;

/**
 * A date in words, whenever it is: "Trim on 3 March 2026, every 6 weeks. Farrier at ten."
 * @example dateWords({ … }) // "Worm count, 10 March 2026."
 */
export function dateWords({ kind, day, everyWeeks, note }: HorseDate): string {
  const name = kind === "other" && note !== "" ? asSentence(note) : `${NAMES[kind] || "Other"} on ${dayWords(day)}`;
  const when = kind === "other" && note !== "" ? `${name}, ${dayWords(day)}` : name;
  const again = everyWeeks === null ? "" : `, every ${everyWeeks === 1 ? "week" : `${everyWeeks} weeks`}`;
  return `${when}${again}${kind === "other" || note === "" ? "." : `. ${asSentence(note)}.`}`;
}

/**
 * What the yard says of a date today, or null where it is not due. A date of
 * coming back is said for as long as it lies ahead.
 * @example dueWords(date, "2026-03-10") // "Trim due today"
 */
export function dueWords(date: HorseDate, today: Day): string | null {
  const days = daysBetween(today, date.day);
  const { kind, note, day } = date;
  const [dateOfMonth, month] = dayWords(day).split(" ");
  const on = `${dateOfMonth} ${month}`;
  if (kind === "comes back on") return days > 0 ? `Comes back on ${on}` : days === 0 ? "Comes back today" : `Was to come back on ${on}`;
  if (days > SAID_DAYS_BEFORE) return null;
  const name = kind === "other" && note !== "" ? asSentence(note) : NAMES[kind] || "A date";
  return days > 0 ? `${name} due ${on}` : days === 0 ? `${name} due today` : `${name} was due ${on}`;
}

// What knows time zones is a file of its own: the recorder, which only reads days, does not load it.
export { dayBeginsIn, dayEndsIn, dayIn, startOfDayIn } from "./day-in-zone";

/** The earliest date the product takes: nothing before is a real record here. */
/** The last year a day may be of: what reckons from it stays within four figures. */
export const LATEST_YEAR = 2199;
export const EARLIEST_YEAR = 1980;

/** A calendar day as "2026-03-09". Plain days compare as text and know no time zone. */
export type Day = string;

const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Whether a text is a real day of the calendar, not before the product's earliest year. @example isDay("2026-03-20") // true */
export function isDay(text: unknown): text is Day {
  if (typeof text !== "string") return false;
  const [, year, month, date] = DAY.exec(text) ?? [];
  if (year === undefined) return false;
  const made = new Date(Date.UTC(Number(year), Number(month) - 1, Number(date)));
  return (
    Number(year) >= EARLIEST_YEAR &&
    Number(year) <= LATEST_YEAR &&
    made.getUTCMonth() === Number(month) - 1 &&
    made.getUTCDate() === Number(date)
  );
}

const MONTHS = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];

/** A day in words that no order of day and month can confuse: "3 December 2026". @example dayWords("2026-06-05") // "5 June 2026" */
export function dayWords(day: Day): string {
  const [year, month, date] = day.split("-");
  return `${Number(date)} ${MONTHS[Number(month) - 1] ?? month} ${year}`;
}

/** A day so many days later. @example addDays("2026-02-27", 2) // "2026-03-01" */
export const addDays = (day: Day, days: number): Day =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

/**
 * The day a moment falls on, where the clock is `offsetMinutes` ahead of UTC.
 * @param wallMs milliseconds since 1970.
 * @example dayOf(1775476800000) // "2026-04-06"
 */
export function dayOf(wallMs: number, offsetMinutes = 0): Day {
  return new Date(wallMs + offsetMinutes * 60_000).toISOString().slice(0, 10);
}

/** Whether a text names a time zone this machine knows. @example isTimeZone("UTC") // true */
export function isTimeZone(zone: unknown): zone is string {
  if (typeof zone !== "string" || zone === "") return false;
  try {
    return new Intl.DateTimeFormat("en", { timeZone: zone }).resolvedOptions().timeZone !== "";
  } catch {
    return false;
  }
}

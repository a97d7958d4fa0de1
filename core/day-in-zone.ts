import { TZDate } from "@date-fns/tz";
import { format, startOfDay } from "date-fns";
import type { Day } from "./day";

/**
 * The day a moment falls on in a time zone, summer time and all. @param zone an IANA name, "Europe/Oslo".
 * @example dayIn(1782945000000, "UTC") // "2026-07-01"
 */
export const dayIn = (wallMs: number, zone: string): Day => format(new TZDate(wallMs, zone), "yyyy-MM-dd");

/** When the day of a moment began in a time zone, in milliseconds since 1970. @example startOfDayIn(Date.UTC(2026, 6, 1, 12), "UTC") // its midnight */
export const startOfDayIn = (wallMs: number, zone: string): number => startOfDay(new TZDate(wallMs, zone)).getTime();

/** When a day of the calendar begins in a time zone, in milliseconds since 1970. @example dayBeginsIn("2026-10-25", "UTC") // its midnight */
export function dayBeginsIn(day: Day, zone: string): number {
  const [year, month, date] = day.split("-").map(Number);
  return new TZDate(year ?? 1970, (month ?? 1) - 1, date ?? 1, zone).getTime();
}

/** When the day after begins. @example dayEndsIn("2026-06-09", "UTC") // 1781049600000 */
export function dayEndsIn(day: Day, zone: string): number {
  const [year, month, date] = day.split("-").map(Number);
  return new TZDate(year ?? 1970, (month ?? 1) - 1, (date ?? 1) + 1, zone).getTime();
}

import type { Day } from "../day";
import { DEFAULT_SETTINGS } from "../settings/registry";
import { counted, numberWord } from "../words";

/** An age in whole years and months. `exact` is false where only the birth year is known: then it is the youngest the horse can be. */
export interface Age {
  readonly years: number;
  readonly months: number;
  readonly exact: boolean;
}

/**
 * A caution that follows from a horse's age: it is said and closes nothing,
 * since much is fairly done young. What is closed, a restriction or the yard's
 * own settings close. Common practice, no source; a veterinarian's advice goes before it.
 */
export interface AgeCaution {
  readonly underYears: number;
  readonly sentence: string;
  /** Longest work of a session, in minutes, or null where age sets none. */
  readonly workMinutes: number | null;
  /** Longest circling of a session, in minutes. */
  readonly circlingMinutes: number;
}

const CAUTIONS: readonly AgeCaution[] = [
  {
    underYears: 1,
    sentence: "Under one year: a few minutes at a time, beside its mother or a companion; no hard tying, hardly any circling.",
    workMinutes: 10,
    circlingMinutes: 2,
  },
  {
    underYears: 2,
    sentence: "Under two years: short work, little circling, a wrap that slides and no hard tying, long rests between stages.",
    workMinutes: 15,
    circlingMinutes: 5,
  },
];

/** What the yard's settings cap for the young: under how many years, minutes a session, sessions in seven days (0: only counted). */
export interface YoungCircling {
  readonly years: number;
  readonly minutes: number;
  readonly visits: number;
}

const YOUNG: YoungCircling = {
  years: DEFAULT_SETTINGS.circleYoungYears,
  minutes: DEFAULT_SETTINGS.circleYoungMinutes,
  visits: DEFAULT_SETTINGS.circleYoungVisits,
};

const youngCaution = ({ years, minutes, visits }: YoungCircling): AgeCaution => ({
  underYears: years,
  sentence: `Under ${numberWord(years)} ${years === 1 ? "year" : "years"}: circling at most ${counted(minutes, "minute")}${visits === 0 ? "" : ` and ${visits === 1 ? "once" : `${visits} times`} a week`}.`,
  workMinutes: null,
  circlingMinutes: minutes,
});

const parts = (day: Day) => day.split("-").map(Number) as [number, number, number];

/**
 * Age on a day. A birthday on the 31st is had on a shorter month's last day.
 * @param born a day, or a year alone; of a year alone the last day is taken, so that the horse counts as young as it may be.
 * @param today the day it is asked for.
 * @returns null where the birth lies after the day.
 * @example ageOn({ day: null, year: 2026 }, "2026-11-25") // { years: 0, months: 0, exact: false }
 */
export function ageOn(born: { readonly day: Day | null; readonly year: number | null }, today: Day): Age | null {
  const exact = born.day !== null;
  const from = born.day ?? (born.year === null ? null : `${born.year}-12-31`);
  if (from === null) return null;
  const [bornYear, bornMonth, bornDate] = parts(from);
  const [year, month, date] = parts(today);
  // Of a birth year that is this year nothing but "under one" is known.
  if (!exact && bornYear === year) return { years: 0, months: 0, exact };
  const monthLength = new Date(Date.UTC(year, month, 0)).getUTCDate();
  const whole = (year - bornYear) * 12 + (month - bornMonth) - (date < Math.min(bornDate, monthLength) ? 1 : 0);
  return whole < 0 ? null : { years: Math.floor(whole / 12), months: whole % 12, exact };
}

/**
 * An age in words: "4 years 7 months", "5 months", "9 or 10 years" where only the year is known.
 * @example ageWords({ years: 1, months: 0, exact: true }) // "1 year"
 */
export function ageWords({ years, months, exact }: Age): string {
  if (!exact) return years === 0 ? "up to 1 year" : `${years} or ${years + 1} years`;
  if (years === 0) return counted(months, "month");
  return months === 0 ? counted(years, "year") : `${counted(years, "year")} ${counted(months, "month")}`;
}

/**
 * The caution for an age, the strictest that applies; null for a grown horse.
 * @param young what the yard's settings say of the young.
 * @example ageCaution({ years: 1, months: 3, exact: true }) // { underYears: 2, workMinutes: 15, circlingMinutes: 5, … }
 */
export function ageCaution(age: Age, young: YoungCircling = YOUNG): AgeCaution | null {
  return [...CAUTIONS, youngCaution(young)].find((caution) => age.years < caution.underYears) ?? null;
}

import { addDays, type Day } from "../day";
import { recordOf } from "../typed";
import { type CircleDigest, movingSecondsOf } from "./digest";

/** What a session was for the load book. */
export const LOAD_KINDS = ["circle", "pen", "lines", "free", "in hand", "ridden", "driven"] as const;
export type LoadKind = (typeof LOAD_KINDS)[number];
/** What is entered by hand. */
export const HAND_KINDS = ["ridden", "driven", "circle", "free", "in hand"] as const;

/** Shorter than this, in minutes, nothing was worked on the circle: it counts its minutes and is no session of circling. */
export const VISIT_MINUTES = 1;

/** One session, or one entry by hand. */
export interface LoadEntry {
  readonly day: Day;
  readonly kind: LoadKind;
  readonly minutes: number;
  /** Minutes of them on a circle. */
  readonly circlingMinutes: number;
  readonly digest: CircleDigest | null;
  readonly byHand: boolean;
}

/** One week of the load book, from a Monday. */
export interface LoadWeek {
  readonly monday: Day;
  readonly minutesByKind: Readonly<Record<LoadKind, number>>;
  readonly minutes: number;
  readonly circlingMinutes: number;
  readonly circleSessions: number;
  /** Minutes on the circle by gait and side: "walk L". */
  readonly byGaitSide: Readonly<Record<string, number>>;
  readonly leftMinutes: number;
  readonly rightMinutes: number;
  readonly laps: number;
  readonly metres: number;
  /** Null where no session of the week had a radius. */
  readonly doseGMinutes: number | null;
  /** Circling minutes against the week before, as a share of it; null where that had none or this is the running week. */
  readonly change: number | null;
  readonly running: boolean;
}

/** The Monday of a day's week. @example mondayOf("2026-03-03") // "2026-03-02" */
export const mondayOf = (day: Day): Day => addDays(day, -((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7));

const noKinds = (): Record<LoadKind, number> => recordOf(LOAD_KINDS, () => 0);

/**
 * The load book: every week from the first asked for to the one of today, empty ones too. Cost grows with entries and weeks.
 * @param today the day it is read on; its week still runs.
 * @example loadWeeks(entries, "2026-03-02", "2026-03-25") // 4 of them
 */
export function loadWeeks(entries: readonly LoadEntry[], from: Day, today: Day): LoadWeek[] {
  const weeks: LoadWeek[] = [];
  const byMonday = new Map<Day, LoadEntry[]>();
  for (const entry of entries) {
    const monday = mondayOf(entry.day);
    const list = byMonday.get(monday);
    if (list === undefined) byMonday.set(monday, [entry]);
    else list.push(entry);
  }
  const last = mondayOf(today);
  for (let monday = mondayOf(from); monday <= last; monday = addDays(monday, 7)) {
    const own = byMonday.get(monday) ?? [];
    const minutesByKind = noKinds();
    const byGaitSide: Record<string, number> = {};
    const sums = { minutes: 0, circling: 0, sessions: 0, L: 0, R: 0, laps: 0, metres: 0 };
    let dose: number | null = null;
    for (const { kind, minutes, circlingMinutes, digest } of own) {
      minutesByKind[kind] += minutes;
      sums.minutes += minutes;
      sums.circling += circlingMinutes;
      if (circlingMinutes >= VISIT_MINUTES) sums.sessions++;
      if (digest === null) continue;
      for (const [key, seconds] of Object.entries(digest.seconds)) {
        byGaitSide[key] = (byGaitSide[key] ?? 0) + seconds / 60;
        if (key.startsWith("stand ")) continue;
        sums[key.endsWith(" L") ? "L" : "R"] += seconds / 60;
      }
      sums.laps += Object.values(digest.laps).reduce((sum, laps) => sum + laps, 0);
      sums.metres += digest.metres;
      if (digest.dose !== null) dose = (dose ?? 0) + digest.dose;
    }
    const running = monday === last;
    const before = weeks.at(-1);
    weeks.push({
      monday,
      minutesByKind,
      minutes: sums.minutes,
      circlingMinutes: sums.circling,
      circleSessions: sums.sessions,
      byGaitSide,
      leftMinutes: sums.L,
      rightMinutes: sums.R,
      laps: sums.laps,
      metres: sums.metres,
      doseGMinutes: dose,
      change: running || before === undefined || before.circlingMinutes === 0 ? null : sums.circling / before.circlingMinutes - 1,
      running,
    });
  }
  return weeks;
}

/**
 * The balance of two weeks: minutes each way on the circle in the last fourteen days.
 * @example balanceOf([], "2026-03-17") // { left: 0, right: 0, share: null }
 */
export function balanceOf(
  entries: readonly LoadEntry[],
  today: Day,
): { readonly left: number; readonly right: number; readonly share: number | null } {
  const since = addDays(today, -13);
  let left = 0;
  let right = 0;
  for (const { day, digest } of entries) {
    if (digest === null || day < since || day > today) continue;
    for (const [key, seconds] of Object.entries(digest.seconds)) {
      if (key.startsWith("stand ")) continue;
      if (key.endsWith(" L")) left += seconds / 60;
      else right += seconds / 60;
    }
  }
  return { left, right, share: left + right > 0 ? left / (left + right) : null };
}

/**
 * Circling minutes of a session on the circle: what it moved on a circle or in a pen; long lines without a radius are none.
 * @example circlingMinutesOf(digest) // 0
 */
export const circlingMinutesOf = (digest: CircleDigest): number =>
  digest.form === "lines" && digest.radius === null ? 0 : movingSecondsOf(digest) / 60;

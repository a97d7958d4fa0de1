import type * as z from "zod";
import { mixedChance } from "../chance";
import type { scheduleDocument } from "./document/plan";

/** As its document says it. */
export type Schedule = z.infer<typeof scheduleDocument>;

export const SCHEDULE_KINDS = ["every", "fixed", "variable"] as const;

/** How many ratios a list holds before it begins again. */
export const RATIO_LIST_LENGTH = 12;

/**
 * Ratios of a variable-ratio list, in rising order: Fleshler and Hoffman's
 * progression for variable intervals (1962), t(i) = T·[1 + ln N + (N − i)·ln(N − i)
 * − (N − i + 1)·ln(N − i + 1)], adapted to ratios: the terms are rounded to
 * whole answers, at least 1, so that the list adds up to the mean times its
 * length exactly. The chance that the next answer pays then hardly depends on
 * how many have gone without.
 * @param mean mean ratio, a whole number from 1.
 * @param count ratios in the list, 1 or more.
 * @throws RangeError where either is not a whole number from 1.
 * @example ratioProgression(3, 1) // [3]
 */
export function ratioProgression(mean: number, count = RATIO_LIST_LENGTH): number[] {
  if (!Number.isInteger(mean) || mean < 1) throw new RangeError("ratioProgression: the mean must be a whole number from 1");
  if (!Number.isInteger(count) || count < 1) throw new RangeError("ratioProgression: the count must be a whole number from 1");
  const nLogN = (n: number) => (n === 0 ? 0 : n * Math.log(n));
  const exact = Array.from({ length: count }, (_, k) => mean * (1 + Math.log(count) + nLogN(count - k - 1) - nLogN(count - k)));
  const whole = exact.map((ratio) => Math.max(1, Math.floor(ratio)));
  let over = whole.reduce((sum, ratio) => sum + ratio, 0) - mean * count;
  // What rounding to 1 added is taken from the longest; what rounding down lost goes to the largest remainders.
  for (let i = count - 1; over > 0; i = i === 0 ? count - 1 : i - 1)
    if ((whole[i] as number) > 1) {
      whole[i] = (whole[i] as number) - 1;
      over--;
    }
  const byRemainder = [...exact.keys()].sort(
    (a, b) => (exact[b] as number) - (whole[b] as number) - ((exact[a] as number) - (whole[a] as number)),
  );
  for (let n = 0; over < 0; n++, over++) {
    const i = byRemainder[n % count] as number;
    whole[i] = (whole[i] as number) + 1;
  }
  return whole.sort((a, b) => a - b);
}

/** The list of a variable ratio, shuffled; the same seed gives the same order. @example ratioList(4, 7) // [8, …] */
export function ratioList(mean: number, seed: number): number[] {
  const list = ratioProgression(mean);
  const chance = mixedChance(`ratios:${seed}`);
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor(chance() * (i + 1));
    [list[i], list[j]] = [list[j] as number, list[i] as number];
  }
  return list;
}

/** A schedule as a block carries it: a variable one with the list it follows. */
export type PlayedSchedule = Schedule & { readonly list?: readonly number[] };

/**
 * Whether the nth met answer of a block earns its reinforcer.
 * @param nth counted from 1.
 * @example earnsReinforcer({ kind: "every" }, 1) // true
 */
export function earnsReinforcer(schedule: PlayedSchedule, nth: number): boolean {
  if (schedule.kind === "every") return true;
  // A file may say variable without its list; the mean is then the best that is known.
  const list = schedule.kind === "variable" && schedule.list !== undefined && schedule.list.length > 0 ? schedule.list : [schedule.ratio];
  const round = list.reduce((sum, ratio) => sum + ratio, 0);
  if (round <= 0) return true;
  let place = nth % round;
  if (place === 0) return true;
  for (const ratio of list) {
    place -= ratio;
    if (place === 0) return true;
    if (place < 0) return false;
  }
  return false;
}

/** The schedule in words. @example scheduleSentence({ kind: "every" }) // "every one" */
export function scheduleSentence(schedule: Schedule): string {
  switch (schedule.kind) {
    case "every":
      return "every one";
    case "fixed":
      return `every ${ordinal(schedule.ratio)}`;
    case "variable":
      return `one in ${schedule.ratio} on average, never foreseeable`;
  }
}

function ordinal(n: number): string {
  const teen = n % 100 >= 11 && n % 100 <= 13;
  const ending = teen ? "th" : ({ 1: "st", 2: "nd", 3: "rd" }[n % 10] ?? "th");
  return `${n}${ending}`;
}

/** Share of met answers that a schedule reinforces. @example reinforcedShare({ kind: "every" }) // 1 */
export function reinforcedShare(schedule: Schedule): number {
  return schedule.kind === "every" ? 1 : 1 / schedule.ratio;
}

/**
 * Spreads the rewards out over a ladder: every one while it is new, then every
 * second, then on average every `leanest`-th, so that the last third runs on
 * the leanest. A ladder too short for three parts keeps the richer ones.
 * @returns one schedule for each rung.
 * @throws RangeError where `leanest` is not a whole number from 2.
 * @example thinnedSchedules(8, 4) // [{ kind: "every" }, …]
 */
export function thinnedSchedules(rungs: number, leanest: number): Schedule[] {
  if (!Number.isInteger(leanest) || leanest < 2) throw new RangeError("thinnedSchedules: the leanest ratio must be a whole number from 2");
  const rich = Math.ceil(rungs / 3);
  const middle = Math.ceil((rungs - rich) / 2);
  return Array.from({ length: rungs }, (_, i): Schedule => {
    if (i < rich) return { kind: "every" };
    if (i < rich + middle) return { kind: "fixed", ratio: 2 };
    return { kind: "variable", ratio: leanest };
  });
}

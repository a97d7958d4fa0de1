import { type SidePicture, sidePicture } from "../compare";
import { type Day, dayBeginsIn, dayEndsIn, dayIn } from "../day";
import type { HorsePack, PackLadder, YardFacts } from "../pack";
import { MILLISECONDS_PER_DAY } from "../units";
import type { Allowance } from "../welfare";
import { careOn, heatLower } from "./care";
import { byStanding, type Standing, standing } from "./standing";

/** Said of a horse whose pack a device cannot read. */
export const UNREAD_WORDS =
  "This device cannot read the plans of this horse, or what it did before. You can record. There is no advice, and of what was done today and this week only what this device holds counts.";

/** What is true of a horse on a day: its limits, its sides, where each ladder stands. */
export interface Today {
  readonly day: Day;
  readonly nowMs: number;
  readonly allowance: Allowance;
  /** Every caution in words that holds on the day. */
  readonly cautions: readonly string[];
  /** By how much the bounds of heat lie lower for this horse, in °C. */
  readonly heatLowerCelsius: number;
  readonly sides: SidePicture;
  /** Whether the horse has left in the last weeks. */
  readonly leaves: boolean;
  /** What may be worked first, then the one last worked first. */
  readonly states: readonly (Standing & { readonly ladder: PackLadder })[];
}

/**
 * The moment at which a day is read: now where it is today, otherwise its noon.
 * @param nowMs server wall clock.
 * @example momentOn("2026-06-09", Date.UTC(2026, 5, 1, 6), "UTC") // noon of the ninth
 */
export const momentOn = (day: Day, nowMs: number, timeZone: string): number =>
  dayIn(nowMs, timeZone) === day ? nowMs : Math.round((dayBeginsIn(day, timeZone) + dayEndsIn(day, timeZone)) / 2);

/**
 * What a pack says of a moment: of now, or of any day to come by
 * {@link momentOn}. Cost grows with the trials in it.
 * @param nowMs server wall clock.
 * @param handler who is going to handle, as trials name them; null for whoever worked each ladder last.
 * @example todayOf(pack, yard, momentOn("2026-06-09", nowMs, yard.timeZone)).allowance.noWork
 */
export function todayOf(pack: HorsePack, yard: YardFacts, nowMs: number, handler: string | null = null): Today {
  const { settings } = yard;
  const day = dayIn(nowMs, yard.timeZone);
  const { allowance, sentences } = careOn(pack.horse, pack.restrictions, day, settings);
  const recent = pack.digests.filter(({ startedMs }) => startedMs >= nowMs - settings.sidesDays * MILLISECONDS_PER_DAY);
  const names = new Map(yard.people.map(({ id, name }) => [id, name]));
  const sides = sidePicture(recent.map((digest) => digest.sides));
  const on = {
    nowWallMs: nowMs,
    allowance,
    settings,
    weakerSide: sides.weaker,
    handler,
    names,
    aftermaths: pack.aftermaths,
  };
  return {
    day,
    nowMs,
    allowance,
    cautions: pack.unread === undefined ? sentences : [UNREAD_WORDS, ...sentences],
    heatLowerCelsius: heatLower(pack.horse, day),
    sides,
    leaves: recent.some(({ departures }) => departures > 0),
    states: pack.ladders.map((ladder) => ({ ladder, ...standing(ladder, ladder.trials, on) })).sort(byStanding),
  };
}

import { emptyPack, type HorsePack, horseForward, type PackedYard, unpackHorse, type YardFacts, yardForward } from "../pack";
import { circleState } from "./circle";
import { todayOf } from "./today";

/**
 * A horse's pack as a device kept it, perhaps by another version of the
 * program. It is asked once what holds today, so that one that cannot be
 * worked by is found here and not in the middle of a session.
 * @param nowMs server wall clock.
 * @throws where it cannot be brought forward or worked by.
 * @example readHorse(kept.pack, yard.facts, nowMs).ladders.length
 */
export function readHorse(kept: unknown, facts: YardFacts, nowMs: number): HorsePack {
  const pack = unpackHorse(horseForward(kept));
  todayOf(pack, facts, nowMs);
  circleState(pack, facts, nowMs);
  return pack;
}

/** A horse of whom nothing is known. */
const NOBODY = emptyPack({
  id: "",
  name: "",
  apart: "",
  sample: false,
  away: null,
  bornDay: null,
  birthYear: null,
  restingBreaths: null,
});

/**
 * The same of the yard.
 * @throws where it cannot be brought forward or worked by.
 * @example readYard(kept.yard).facts.timeZone
 */
export function readYard(kept: unknown): PackedYard {
  const yard = yardForward(kept);
  todayOf(NOBODY, yard.facts, yard.nowMs);
  if (yard.horses.some(({ id, name }) => typeof id !== "string" || typeof name !== "string")) throw new TypeError("A horse has no name.");
  return yard;
}

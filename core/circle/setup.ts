import type { Day } from "../day";
import type { CirclePlan, Ways } from "../events/circle-plan";
import { NO_OWN_CAPS, type OwnCircleCaps } from "./caps";
import type { RampLoad } from "./ramp";
import { type CircleCall, type CircleSound, USUAL_SOUNDS } from "./track";

/** A ramp as it was set for a horse. */
export interface SetRamp {
  readonly start: RampLoad;
  readonly goal: RampLoad;
  readonly sessions_a_week: number;
  readonly radius_m: number;
  /** Sessions from this day on count for it. */
  readonly since: Day;
}

/** A sound that was given another meaning, and since when: to the horse it is a new cue. */
export interface ChangedSound {
  readonly call: CircleCall;
  readonly before: CircleSound;
  readonly since: Day;
}

/** How one horse works on the circle. */
export interface CircleSetup {
  readonly ways: Ways;
  /** The stiffer side; null where nobody said. */
  readonly stiffer: "L" | "R" | null;
  readonly stiffer_first: boolean;
  readonly caps: OwnCircleCaps;
  readonly sounds: Readonly<Record<CircleCall, CircleSound>>;
  readonly changed: readonly ChangedSound[];
  readonly ramp: SetRamp | null;
  /** The plan last saved. */
  readonly plan: CirclePlan | null;
}

export const USUAL_SETUP: CircleSetup = {
  ways: "both",
  stiffer: null,
  stiffer_first: false,
  caps: NO_OWN_CAPS,
  sounds: USUAL_SOUNDS,
  changed: [],
  ramp: null,
  plan: null,
};

/** Which side goes first, and why. */
export function firstSide({ stiffer, stiffer_first }: Pick<CircleSetup, "stiffer" | "stiffer_first">): {
  readonly side: "L" | "R";
  readonly why: string;
} {
  if (stiffer === null) return { side: "L", why: "Nobody has said which side is stiffer." };
  const other = stiffer === "L" ? "R" : "L";
  return stiffer_first
    ? { side: stiffer, why: "The stiffer side first: it gets the fresh horse and the longer warm-up." }
    : { side: other, why: "The easier side first: the horse warms up where it is loose, then keeps that on the stiffer one." };
}

import type * as z from "zod";
import { NO_OWN_CAPS } from "./caps";
import type { changedSoundDocument, circleSetupDocument, setRampDocument } from "./document";
import { USUAL_SOUNDS } from "./track";

/** As their documents say them. */
export type SetRamp = z.infer<typeof setRampDocument>;
export type ChangedSound = z.infer<typeof changedSoundDocument>;
export type CircleSetup = z.infer<typeof circleSetupDocument>;

export const USUAL_SETUP: CircleSetup = {
  ways: "both",
  stiffer: null,
  stifferFirst: false,
  caps: NO_OWN_CAPS,
  sounds: USUAL_SOUNDS,
  changed: [],
  ramp: null,
  plan: null,
};

/** Which side goes first, and why. @example firstSide({ stiffer: "L", stifferFirst: true }) // { side: "L", … } */
export function firstSide({ stiffer, stifferFirst }: Pick<CircleSetup, "stiffer" | "stifferFirst">): {
  readonly side: "L" | "R";
  readonly why: string;
} {
  if (stiffer === null) return { side: "L", why: "Nobody has said which side is stiffer." };
  const other = stiffer === "L" ? "R" : "L";
  return stifferFirst
    ? { side: stiffer, why: "The stiffer side first: it gets the fresh horse and the longer warm-up." }
    : { side: other, why: "The easier side first: the horse warms up where it is loose, then keeps that on the stiffer one." };
}

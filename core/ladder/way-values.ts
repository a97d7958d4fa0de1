import type * as z from "zod";
import type { waysDocument } from "./document/plan";

/** As its document says it. */
export type Ways = z.infer<typeof waysDocument>;

export const WAY_KEYS = ["pressure", "directions", "begins", "first", "leaving", "turning-in"] as const;
export type WayKey = (typeof WAY_KEYS)[number];

/**
 * Whether one direction a day is worked, in turn. Apart from the reasons of ways.ts, which the recorder's first script does without.
 * @example oneSideADay({ taught: "release-first" }) // false
 */
export const oneSideADay = (ways: Ways): boolean => ways.directions === "one-a-day";

/**
 * Whether a loose horse in a pen is sent round until it turns in, which is circling; see oneSideADay for why it stands here.
 * @example turnsInOnACircle({ "turning-in": "circle" }) // true
 */
export const turnsInOnACircle = (ways: Ways): boolean => ways["turning-in"] === "circle";

import * as z from "zod";
import { isDay } from "../day";
import { document, flag, list, number, side, wholeNumber, within, word } from "../documents";
import { WAYS } from "../events/circle-plan";
import { circlePlanDocument } from "../events/circle-plan-document";
import { CIRCLE_CALLS, CIRCLE_SOUND_NAMES, USUAL_SOUNDS } from "./track";

const day = z.string().refine(isDay);
const cap = (most: number) => within(number, [1, most]).nullable().default(null);

/** Circling a horse may do by its own caps; null where the yard's settings hold. */
export const ownCircleCapsDocument = document({ session_minutes: cap(120), week_minutes: cap(600), week_visits: cap(14) });

const minutes = within(number, [0, 60]);
/** Minutes of circling of a ramp's start or goal, by gait. */
export const rampLoadDocument = document({ walk: minutes, trot: minutes, canter: minutes, obstacles: flag.default(false) });

/** A ramp as it was set for a horse. */
export const setRampDocument = document({
  start: rampLoadDocument,
  goal: rampLoadDocument,
  sessions_a_week: within(wholeNumber, [1, 7]),
  radius_m: within(number, [2, 30]),
  /** Sessions from this day on count for it. */
  since: day,
});

const call = word(CIRCLE_CALLS);
const sound = word(CIRCLE_SOUND_NAMES);

/** A sound that was given another meaning, and since when: to the horse it is a new cue. */
export const changedSoundDocument = document({ call, before: sound, since: day });

/** How one horse works on the circle. Its type is read off this; what was never said is as usual. */
export const circleSetupDocument = document({
  ways: word(WAYS).default("both"),
  /** The stiffer side; null where nobody said. */
  stiffer: side.nullable().default(null),
  stiffer_first: flag.default(false),
  caps: ownCircleCapsDocument.default({ session_minutes: null, week_minutes: null, week_visits: null }),
  sounds: z
    .record(call, sound)
    .readonly()
    .refine((sounds) => new Set(Object.values(sounds)).size === CIRCLE_CALLS.length, "Sounds: each means one thing alone.")
    .default(USUAL_SOUNDS),
  changed: list(changedSoundDocument, 20).default([]),
  ramp: setRampDocument.nullable().default(null),
  /** The plan last saved. */
  plan: circlePlanDocument.nullable().default(null),
});

/** How kit with buckles fits one horse. */
export const kitFitDocument = document({
  holes_left: within(wholeNumber, [0, 30]).nullable().default(null),
  holes_right: within(wholeNumber, [0, 30]).nullable().default(null),
  strap_cm: within(number, [1, 300]).nullable().default(null),
  /** Slack, as a hand's breadth: how many fit. */
  slack_hands: within(number, [0, 5]).nullable().default(null),
  next_check: day.nullable().default(null),
  note: z.string().max(400).default(""),
});

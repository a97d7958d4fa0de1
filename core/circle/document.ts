import * as z from "zod";
import { isDay } from "../day";
import { document, flag, list, number, side, wholeNumber, within, word } from "../documents";
import { fromLog } from "../events/circle-log";
import { WAYS } from "../events/circle-plan";
import { circlePlanDocument } from "../events/circle-plan-document";
import { CIRCLE_CALLS, CIRCLE_SOUND_NAMES, USUAL_SOUNDS } from "./track";

const day = z.string().refine(isDay);
const cap = (most: number) => within(number, [1, most]).nullable().default(null);

/** Circling a horse may do by its own caps; null where the yard's settings hold. */
export const ownCircleCapsDocument = document({ sessionMinutes: cap(120), weekMinutes: cap(600), weekVisits: cap(14) });

const minutes = within(number, [0, 60]);
/** Minutes of circling of a ramp's start or goal, by gait. */
export const rampLoadDocument = document({ walk: minutes, trot: minutes, canter: minutes, obstacles: flag.default(false) });

/** A ramp as it was set for a horse. */
export const setRampDocument = document({
  start: rampLoadDocument,
  goal: rampLoadDocument,
  sessionsAWeek: within(wholeNumber, [1, 7]),
  radiusMetres: within(number, [2, 30]),
  /** Sessions from this day on count for it. */
  since: day,
});

const call = word(CIRCLE_CALLS);
const sound = word(CIRCLE_SOUND_NAMES);

/** A sound that was given another meaning, and since when: to the horse it is a new cue. */
export const changedSoundDocument = document({ call, before: sound, since: day });

/** How one horse works on the circle. Its type is read off this; what was never said is as usual. */
const setupShape = document({
  ways: word(WAYS).default("both"),
  /** The stiffer side; null where nobody said. */
  stiffer: side.nullable().default(null),
  stifferFirst: flag.default(false),
  caps: ownCircleCapsDocument.default({ sessionMinutes: null, weekMinutes: null, weekVisits: null }),
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

export const circleSetupDocument = z.preprocess(fromLog, setupShape);

/** How kit with buckles fits one horse. */
const fitShape = document({
  holesLeft: within(wholeNumber, [0, 30]).nullable().default(null),
  holesRight: within(wholeNumber, [0, 30]).nullable().default(null),
  strapCentimetres: within(number, [1, 300]).nullable().default(null),
  /** Slack, as a hand's breadth: how many fit. */
  slackHands: within(number, [0, 5]).nullable().default(null),
  nextCheck: day.nullable().default(null),
  note: z.string().max(400).default(""),
});
export const kitFitDocument = z.preprocess(fromLog, fitShape);

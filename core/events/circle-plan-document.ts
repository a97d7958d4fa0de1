import * as z from "zod";
import { document, flag, list, number, side, within, word } from "../documents";
import { fromLog } from "./circle-log";
import { CIRCLE_BOUNDS, CIRCLE_FORMS, CIRCLE_GAITS, KIT_STAGES, MOST_SEGMENTS, RADIUS_BY, TRANSITIONS_BY, WAYS } from "./circle-plan";

const line = (most = 80) =>
  z
    .string()
    .max(most)
    .regex(/^\P{Cc}*$/u);
const gait = word(CIRCLE_GAITS);

/** One stretch of a plan. */
export const circleSegmentDocument = document({ gait, side, minutes: within(number, CIRCLE_BOUNDS.minutes) });

/** Long lines and driving steps: what is on and who is where. */
export const linesSetupDocument = document({
  /** Two lines on a circle, walking behind, or straight out. */
  step: line().regex(/\S/),
  blinkers: word(["on", "off", "none"]).default("none"),
  traces: flag.default(false),
  breeching: flag.default(false),
  /** Somebody leads at the head. */
  head: line().default(""),
  traffic: word(["L", "R", "none"]).default("none"),
  /** A steady companion alongside: its name, on which side, its rope slack or not, where its head stands. */
  companion: document({ name: line().regex(/\S/), side, ropeSlack: flag.default(true), headAt: line().default("") })
    .nullable()
    .default(null),
  /** Whether the quick release was tried before. */
  releaseChecked: flag.default(false),
});

/** What a session on the circle is to be. Its type is read off this; kept and logged it has the names of the log, which are read here; what older plans left out is filled in. */
const planShape = document({
  form: word(CIRCLE_FORMS),
  /** Null in long lines away from a circle, and in a pen. */
  radiusMetres: within(number, CIRCLE_BOUNDS.radius).nullable().default(null),
  radiusBy: word(RADIUS_BY).default("line"),
  segments: z.array(circleSegmentDocument).min(1).max(MOST_SEGMENTS).readonly(),
  transitions: document({
    by: word(TRANSITIONS_BY).default("will"),
    every: within(number, CIRCLE_BOUNDS.every).nullable().default(null),
    /** The gait whose transitions are asks of the ladder; null: every one. */
    to: gait.nullable().default(null),
  }).default({ by: "will", every: null, to: null }),
  obstacles: list(line().min(1), 8).default([]),
  ledFirst: flag.default(false),
  ways: word(WAYS).default("both"),
  kit: z.string().max(100).nullable().default(null),
  kitStage: word(KIT_STAGES).nullable().default(null),
  lines: linesSetupDocument.nullable().default(null),
}).refine(({ form, radiusMetres }) => form !== "circle" || radiusMetres !== null, "Radius: it is needed on a circle.");
export const circlePlanDocument = z.preprocess(fromLog, planShape);

/** A caution gone against with a word of why. */
export const circleOverrideDocument = document({ key: z.string().min(1).max(40), why: line(200).min(1) });

/** What a session on the circle was begun with: its plan, or the word against a used-up cap. */
export const begunCircleDocument = z.union([
  document({ plan: circlePlanDocument, overrides: list(circleOverrideDocument, 12).default([]) }),
  document({ against: z.string() }),
]);

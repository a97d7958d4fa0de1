import type * as z from "zod";
import type { circleOverrideDocument, circlePlanDocument, circleSegmentDocument, linesSetupDocument } from "./circle-plan-document";

/** On a line round the handler, driven loose in a pen, or in long lines with the handler behind. */
export const CIRCLE_FORMS = ["circle", "pen", "lines"] as const;
export type CircleForm = (typeof CIRCLE_FORMS)[number];

/** Gaits a segment may ask for, from the slowest. */
export const CIRCLE_GAITS = ["stand", "walk", "trot", "canter"] as const;
export type CircleGait = (typeof CIRCLE_GAITS)[number];

/** How the radius was found. */
export const RADIUS_BY = ["line", "paces", "metres"] as const;
/** When transitions come. */
export const TRANSITIONS_BY = ["will", "time", "quarter", "lap"] as const;
/** Both ways in one session, or one way a day in turn. */
export const WAYS = ["both", "turn"] as const;
export type Ways = (typeof WAYS)[number];

/** The stages of new kit, in order. */
export const KIT_STAGES = ["one part", "the other part", "both loose", "led in hand", "on the circle"] as const;
export type KitStage = (typeof KIT_STAGES)[number];

/** As their documents say them. */
export type CircleSegment = z.infer<typeof circleSegmentDocument>;
export type LinesSetup = z.infer<typeof linesSetupDocument>;
export type CirclePlan = z.infer<typeof circlePlanDocument>;
export type CircleOverride = z.infer<typeof circleOverrideDocument>;

/** The least and the most of the numbers of a plan: metres, minutes, and minutes or laps between transitions. */
export const CIRCLE_BOUNDS = { radius: [2, 30], minutes: [0.25, 60], every: [0.25, 60] } as const;

/** Most segments of a plan. */
export const MOST_SEGMENTS = 24;

import * as yup from "yup";
import { CUE_KINDS, PRESSURE_PROFILES } from "../cues/phase";
import { circleOverridesSchema, circlePlanSchema } from "./circle-plan-schema";
import { HEAT_REASONS } from "./heat-reasons";
import { PARTS } from "./parts";
import { REINFORCERS } from "./reinforcers";

/**
 * Raised with every change of what events may carry. Readers of one version
 * read every earlier one: what is taken out of here is read no more, but stays in the log.
 */
export const EVENT_SCHEMA_VERSION = 7;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
/** The id of an event or of what it names. @example uuid().required() */
export const uuid = () => yup.string().matches(UUID, "${path}: a UUID is needed.");
const shortText = () => yup.string().max(200, "${path}: at most 200 characters.");
const longText = () => yup.string().max(4000, "${path}: at most 4000 characters.");
/** A number that is never below nought. @example zeroOrMore().required() */
export const zeroOrMore = () => yup.number().min(0, "${path}: 0 or more.");
/** A whole number from the least to the most. @example whole(1, 9) */
export const whole = (least: number, most: number) =>
  yup
    .number()
    .integer("${path}: a whole number is needed.")
    .min(least, `\${path}: ${least} or more.`)
    .max(most, `\${path}: ${most} at most.`);
const flag = () => whole(0, 1);
const oneOf = <T extends string>(...words: readonly T[]) => yup.string<T>().oneOf(words, `\${path}: one of ${words.join(", ")}.`);
const phase = () => whole(1, 20);
const sideWord = () => oneOf("L", "R", "both", "");

/**
 * What one type of event carries. A correction of any tap may say that work
 * went on in the silence after it, so that key belongs to every type.
 */
const carries = <Shape extends yup.ObjectShape>(shape: Shape) => yup.object({ ...shape, went_on: yup.boolean() });
const nothing = () => carries({});
const OUTCOMES = ["met", "try", "miss", "refused"] as const;

const scheduleSchema = yup
  .object({
    kind: oneOf("every", "fixed", "variable").required(),
    ratio: whole(1, 100),
    list: yup.array().of(whole(1, 1000).required()).max(100, "${path}: at most 100 ratios."),
  })
  .default(undefined)
  .optional();

/** A criterion is the sentence alone, or the sentence with its limits. */
const criterionSchema = yup.lazy((value: unknown) =>
  typeof value === "string"
    ? yup.string().max(1000, "${path}: at most 1000 characters.")
    : yup
        .object({
          sentence: yup.string().max(1000).required("${path} is missing."),
          max_phase: phase(),
          max_latency_s: zeroOrMore(),
          stay_s: zeroOrMore(),
          min_ease: whole(0, 4),
          side: oneOf("left", "right", "both"),
          working: yup
            .object({
              strand: shortText().required(),
              unit: shortText().defined(),
              target: yup.number().required(),
              harder: oneOf("more", "less").required(),
              percentile: yup
                .object({
                  look_back: whole(1, 100).required(),
                  wanted_share: yup.number().min(0, "${path}: from 0 to 1.").max(1, "${path}: from 0 to 1.").required(),
                  earlier: yup.array().of(yup.number().required()).max(100, "${path}: at most 100 values.").required(),
                  draw: whole(1, 2),
                })
                .default(undefined)
                .optional(),
            })
            .default(undefined)
            .optional(),
          phases: yup.array().of(shortText().required()).max(20),
          schedule: scheduleSchema,
          dwell_s: yup.array().of(zeroOrMore().required()).max(20),
          max_s: zeroOrMore(),
          polite_s: zeroOrMore(),
          handler_place: shortText(),
          company: shortText(),
          // The lowest grade of the movement that still counts, and what 0 to 4 are called.
          min_movement: whole(0, 4),
          movement: yup.array().of(shortText().required()).max(5),
          // The most of what the handler may do within one ask.
          handler_most: yup
            .array()
            .of(yup.object({ act: shortText().required(), most: whole(0, 100).required() }))
            .max(10),
        })
        .default(undefined)
        .optional(),
);

/** What a correction may put right of a trial, whichever way it was logged; see core's putRight. */
const rightSchema = yup
  .object({
    outcome: oneOf(...OUTCOMES),
    phase: phase(),
    side: oneOf("L", "R"),
    value: yup.number(),
    ease: whole(0, 4),
    movement: whole(0, 4),
    zone: shortText(),
    note: longText(),
  })
  .default(undefined)
  .optional();

/** Seconds by which a session's time is put right: twenty years at the most. */
const shift = () => yup.number().min(-6.4e8).max(6.4e8);

/** The columns of trials.csv a whole-trial event may carry. */
const wholeTrial = carries({
  outcome: oneOf(...OUTCOMES).required("${path} is missing."),
  t_s: zeroOrMore().nullable(),
  side: sideWord().nullable(),
  phase: phase().nullable(),
  wrong_before: whole(0, 1000).nullable(),
  latency_s: zeroOrMore().nullable(),
  waited_s: zeroOrMore().nullable(),
  release_lag_s: yup.number().nullable(),
  mark_lag_s: yup.number().nullable(),
  feed_delay_s: yup.number().nullable(),
  released: flag().nullable(),
  marked: flag().nullable(),
  reinforced: flag().nullable(),
  reinforcers: whole(0, 1000).nullable(),
  value: yup.number().nullable(),
  unit: shortText().nullable(),
  ended_by: oneOf("criterion", "left", "handler", "").nullable(),
  ease: whole(0, 4).nullable(),
  movement: whole(0, 4).nullable(),
  faults: longText().nullable(),
  logged: oneOf("tally", "timed", "film", "late", "").nullable(),
  zone: shortText().nullable(),
  note: longText().nullable(),
  right: rightSchema,
});

/** Every type of event with what it carries, also those no screen makes yet: the one definition of type, check and format. */
export const payloadSchemas = {
  "session.start": carries({
    horse: shortText().required(),
    handler: shortText(),
    place: shortText(),
    plan: shortText(),
    method: oneOf("pressure-release", "marker-food", "combined").required(),
    shift_s: shift(),
  }),
  preflight: carries({
    air_c: yup.number().min(-60).max(60).nullable(),
    humidity: yup.number().min(0).max(100).nullable(),
    // Where the horse works: in the sun, or in shade or under cloud.
    sky: oneOf("sun", "shade", "").nullable(),
    wind: shortText().nullable(),
    gear: yup.object({ helmet: yup.boolean(), gloves: yup.boolean(), boots: yup.boolean() }).default(undefined).optional(),
    checks: yup.array().of(shortText().required()).max(50),
    // What was looked at and found wanting, and the pieces of food brought in so far: a second filling adds to the first.
    open: yup.array().of(shortText().required()).max(50),
    pouch: whole(0, 1000).nullable(),
    // Why a little work is begun though it is too hot.
    heat_reason: oneOf(...HEAT_REASONS),
    skipped: yup.boolean(),
  }),
  "block.start": carries({
    block: whole(1, 10_000).required("${path} is missing."),
    behaviour: shortText().required("${path} is missing."),
    ladder: shortText(),
    version: whole(1, 100_000),
    rung: yup.lazy((value: unknown) =>
      typeof value === "string" ? shortText().required() : whole(1, 1000).required("${path} is missing."),
    ),
    criterion: criterionSchema,
    side: sideWord(),
    kind: oneOf("warm-up", "work", "probe", "sure"),
    planned: whole(0, 1000).nullable(),
    // The experiment it is worked for, as which of the two, and as which of its blocks.
    tries: yup
      .object({
        id: uuid().required(),
        arm: oneOf("A", "B").required(),
        n: whole(1, 100).required(),
        // Which way that is, and what it changes of the plan.
        way: shortText(),
        reinforcer: oneOf(...REINFORCERS),
        cue: oneOf(...CUE_KINDS),
        profile: oneOf(...PRESSURE_PROFILES),
        zone: shortText(),
        kit: shortText(),
      })
      .default(undefined)
      .optional(),
  }),
  ask: carries({ phase: phase().nullable(), right: rightSchema }),
  phase: carries({ phase: phase().required("${path} is missing."), by: oneOf("press") }),
  // "refused" closes an ask the horse would not answer; the phase is the one in force.
  response: carries({ answer: oneOf("met", "try", "wrong", "refused").required("${path} is missing."), phase: phase().nullable() }),
  criterion: nothing(),
  release: nothing(),
  // Heard by the device itself: how alike the sound was to the one it was taught.
  mark: carries({ heard: yup.number().min(0).max(1) }),
  feed: carries({ pieces: whole(0, 100), where: shortText() }),
  reinforce: carries({ what: oneOf("scratch", "rest", "away", "other").required("${path} is missing.") }),
  trial: wholeTrial,
  offer: carries({ earned: oneOf("reinforced", "ignored", "settled") }),
  measure: carries({
    strand: shortText().required("${path} is missing."),
    value: yup.number().required("${path} is missing."),
    unit: shortText(),
  }),
  stay: carries({
    ended_by: oneOf("criterion", "left", "handler").required("${path} is missing."),
    handler_distance_m: zeroOrMore().nullable(),
  }),
  signal: carries({
    name: shortText().required("${path} is missing."),
    class: oneOf("ease", "tension", "danger", "pain", "count").required("${path} is missing."),
    // The way it was going, on a circle.
    side: oneOf("L", "R"),
  }),
  // The horse chose wrong: one tap, or a span until wrong.end where it goes on.
  wrong: carries({
    did: shortText(),
    met: shortText(),
    began: oneOf("first step", "edge", "far off"),
    zone: shortText(),
    metres: zeroOrMore().max(1000),
    goes_on: yup.boolean(),
    // How long it took, where that is only known afterwards.
    seconds: zeroOrMore().max(36_000),
  }),
  "wrong.end": nothing(),
  // The horse's own time: it looks at something by its own will, or comes to stand and lower its head.
  "own.start": carries({ what: oneOf("looks", "settles").required("${path} is missing."), at: shortText() }),
  "own.end": carries({ what: oneOf("looks", "settles").required("${path} is missing."), ended_by: oneOf("horse", "handler") }),
  // What the handler did.
  handler: carries({ act: shortText().required("${path} is missing."), n: whole(1, 100) }),
  // Who is at the horse from here on, in which part; the one who handles is whose evidence it is.
  with: carries({
    who: shortText().required("${path} is missing."),
    person: shortText(),
    part: oneOf(...PARTS).required("${path} is missing."),
    leaves: yup.boolean(),
  }),
  // Moving away as the reinforcer, before the horse does, and how near it had come.
  retreat: carries({ distance_m: zeroOrMore().max(1000), zone: shortText() }),
  rig: carries({
    checks: yup.array().of(shortText().required()).max(50),
    open: yup.array().of(shortText().required()).max(50),
    side: sideWord(),
    skipped: yup.boolean(),
  }),
  // A chain run as a whole: its links by name, each as it is reached, and how it ended.
  "run.start": carries({
    chain: shortText().required("${path} is missing."),
    name: shortText(),
    direction: oneOf("forward", "backward"),
    links: yup.array().of(shortText().required()).min(1).max(12).required("${path} is missing."),
    // Of a backward chain the run begins on this link.
    from: whole(1, 12),
  }),
  link: carries({ link: whole(1, 12).required("${path} is missing.") }),
  "run.end": carries({ link: whole(1, 12), reason: shortText(), did: shortText(), stopped: yup.boolean() }),
  depart: carries({ to: shortText(), from: shortText() }),
  return: carries({ to: shortText(), from: shortText() }),
  zone: carries({ zone: shortText().required("${path} is missing.") }),
  sample: carries({
    question: shortText().required("${path} is missing."),
    answer: shortText().required("${path} is missing."),
    observer: shortText(),
    // Which beep it answers and how far apart they are, so that two observers can be put side by side.
    beep: whole(1, 100_000),
    interval_s: yup.number().min(1).max(600),
  }),
  touch: carries({
    zone: shortText().required("${path} is missing."),
    side: sideWord(),
    tool: shortText(),
    grade: whole(0, 4).required("${path} is missing."),
  }),
  gait: carries({ gait: shortText().required("${path} is missing."), direction: shortText(), radius_m: zeroOrMore().nullable() }),
  // Work on the circle, in a pen or in long lines: its plan, from which the clock follows, and what was gone against.
  "circle.start": carries({ plan: circlePlanSchema.required("${path} is missing."), overrides: circleOverridesSchema }),
  // A segment is begun now, by its place from 0; the one that runs goes on for so many seconds more.
  "circle.go": carries({ segment: whole(0, 23).required("${path} is missing.") }),
  "circle.more": carries({ seconds: whole(1, 3600).required("${path} is missing.") }),
  // What a transition was asked with, each time; the gait that comes ends it.
  aid: carries({
    aid: oneOf("voice", "whip", "smaller", "line").required("${path} is missing."),
    to: shortText().required("${path} is missing."),
  }),
  "circle.out": nothing(),
  lap: nothing(),
  "slack.start": nothing(),
  "slack.end": nothing(),
  "circle.rated": carries({ easy: yup.boolean().required("${path} is missing.") }),
  // The way down: begun, handed to somebody, cooled, or left with the reason.
  cool: carries({
    did: oneOf("starts", "handed", "cooled", "left").required("${path} is missing."),
    // Whether the horse looked bright as its breath was down.
    bright: yup.boolean(),
    who: shortText(),
    reason: shortText(),
  }),
  // In long lines: a stop, a turn, a straight stretch, something that changed.
  "lines.step": carries({
    what: shortText().required("${path} is missing."),
    side: oneOf("L", "R"),
    metres: zeroOrMore().max(5000),
    note: shortText(),
  }),
  breath: carries({
    taps_ms: yup.array().of(zeroOrMore().required()).min(2, "${path}: two taps or more.").max(1000).required("${path} is missing."),
  }),
  "break.start": carries({ reason: shortText() }),
  "break.end": carries({ reason: shortText() }),
  word: carries({
    word: shortText().required("${path} is missing."),
    reason: longText(),
    numbers: yup.object().default(undefined).optional(),
    taken: yup.boolean(),
    did: shortText(),
    // What it was said for, as a key: a word that was declined is not said again for the same.
    why: shortText(),
  }),
  override: carries({
    of: uuid().required("${path} is missing."),
    from: oneOf(...OUTCOMES).nullable(),
    to: oneOf(...OUTCOMES).required("${path} is missing."),
    reason: longText(),
  }),
  // A note of the finish says which of its three questions it answers.
  note: carries({ text: longText().required("${path} is missing."), about: oneOf("better", "next", "handler") }),
  safety: carries({
    what: longText().required("${path} is missing."),
    then: longText(),
    // Somebody fell or was hurt.
    hurt: oneOf("fall", "injury"),
    // Why work went on after a second danger sign.
    why: longText(),
    // The line was given at once: a safety release, which is no reinforcement and nobody's fault.
    release: yup.boolean(),
    // A note for the veterinarian, after a sign of pain.
    vet: yup.boolean(),
    ends: yup.boolean(),
  }),
  "block.end": nothing(),
  "session.end": nothing(),
  aftercare: carries({
    breathing: yup
      .array()
      .of(yup.object({ wall_ms: yup.number().required(), per_min: zeroOrMore().required() }))
      .max(200),
    walked_off: yup.boolean(),
    legs: longText(),
    kit: longText(),
    food_g: zeroOrMore().nullable(),
  }),
  correct: carries({
    event: uuid().required("${path} is missing."),
    strike: yup.boolean(),
    payload: yup.object().default(undefined).optional(),
    reason: longText(),
  }),
  undo: carries({ event: uuid().required("${path} is missing.") }),
} as const satisfies Readonly<Record<string, yup.AnyObjectSchema>>;

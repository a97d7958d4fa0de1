import * as yup from "yup";
import { type Checked, check, EARLIEST_WALL_MS, record } from "./common";

/** Every event type of the formats document, also those no screen makes yet. */
export const EVENT_TYPES = [
  "session.start",
  "preflight",
  "block.start",
  "ask",
  "phase",
  "response",
  "criterion",
  "release",
  "mark",
  "feed",
  "reinforce",
  "trial",
  "offer",
  "measure",
  "stay",
  "signal",
  "depart",
  "return",
  "zone",
  "sample",
  "touch",
  "gait",
  "breath",
  "break.start",
  "break.end",
  "word",
  "override",
  "note",
  "safety",
  "block.end",
  "session.end",
  "aftercare",
  "correct",
  "undo",
] as const;
export type EventType = (typeof EVENT_TYPES)[number];

/** One time-stamped fact, as it travels and as it is stored. Times in milliseconds. */
export interface SessionEvent {
  readonly id: string;
  readonly session: string;
  /** Device and person. */
  readonly recorder: string;
  /** One page load of that recorder. */
  readonly load: string;
  /** Counts within the load, from 0. */
  readonly seq: number;
  /** Monotonic within the load. */
  readonly mono_ms: number;
  readonly wall_ms: number;
  readonly type: EventType;
  readonly payload: Readonly<Record<string, unknown>>;
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
const uuid = () => yup.string().matches(UUID, "${path}: a UUID is needed.");
const shortText = () => yup.string().max(200, "${path}: at most 200 characters.");
const longText = () => yup.string().max(4000, "${path}: at most 4000 characters.");
const zeroOrMore = () => yup.number().min(0, "${path}: 0 or more.");
const whole = (least: number, most: number) =>
  yup
    .number()
    .integer("${path}: a whole number is needed.")
    .min(least, `\${path}: ${least} or more.`)
    .max(most, `\${path}: ${most} at most.`);
const flag = () => whole(0, 1);
const oneOf = <T extends string>(...words: readonly T[]) => yup.string<T>().oneOf(words, `\${path}: one of ${words.join(", ")}.`);
const phase = () => whole(1, 20);
const sideWord = () => oneOf("L", "R", "both", "");
const nothing = () => yup.object();
const OUTCOMES = ["met", "try", "miss", "refused"] as const;

const scheduleSchema = yup
  .object({
    kind: oneOf("every", "fixed", "variable").required(),
    ratio: whole(1, 100),
    list: yup.array().of(whole(1, 1000).required()).max(100, "${path}: at most 100 ratios."),
  })
  .default(undefined);

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
                })
                .default(undefined),
            })
            .default(undefined),
          phases: yup.array().of(shortText().required()).max(20),
          schedule: scheduleSchema,
          dwell_s: yup.array().of(zeroOrMore().required()).max(20),
          max_s: zeroOrMore(),
          polite_s: zeroOrMore(),
          handler_place: shortText(),
          company: shortText(),
        })
        .default(undefined),
);

/** What a correction may put right of a trial, whichever way it was logged; see core's putRight. */
const rightSchema = yup
  .object({
    outcome: oneOf(...OUTCOMES),
    phase: phase(),
    side: oneOf("L", "R"),
    value: yup.number(),
    ease: whole(0, 4),
    zone: shortText(),
    note: longText(),
  })
  .default(undefined);

/** Seconds by which a session's time is put right: twenty years at the most. */
const shift = () => yup.number().min(-6.4e8).max(6.4e8);

/** The columns of trials.csv a whole-trial event may carry. */
const wholeTrial = yup.object({
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
  faults: longText().nullable(),
  logged: oneOf("tally", "timed", "film", "late", "").nullable(),
  zone: shortText().nullable(),
  note: longText().nullable(),
  right: rightSchema,
});

/** What each type of event carries. */
export const payloadSchemas: Readonly<Record<EventType, yup.AnyObjectSchema>> = {
  "session.start": yup.object({
    horse: shortText().required(),
    handler: shortText(),
    place: shortText(),
    plan: shortText(),
    method: oneOf("pressure-release", "marker-food", "combined").required(),
    shift_s: shift(),
  }),
  preflight: yup.object({
    air_c: yup.number().min(-60).max(60).nullable(),
    humidity: yup.number().min(0).max(100).nullable(),
    wind: shortText().nullable(),
    gear: yup.object({ helmet: yup.boolean(), gloves: yup.boolean(), boots: yup.boolean() }),
    checks: yup.array().of(shortText().required()).max(50),
    // What was looked at and found wanting, and the pieces of food brought in so far: a second filling adds to the first.
    open: yup.array().of(shortText().required()).max(50),
    pouch: whole(0, 1000).nullable(),
    skipped: yup.boolean(),
  }),
  "block.start": yup.object({
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
  }),
  ask: yup.object({ phase: phase().nullable(), right: rightSchema }),
  phase: yup.object({ phase: phase().required("${path} is missing."), by: oneOf("press") }),
  // "refused" closes an ask the horse would not answer; the phase is the one in force.
  response: yup.object({ answer: oneOf("met", "try", "wrong", "refused").required("${path} is missing."), phase: phase().nullable() }),
  criterion: nothing(),
  release: nothing(),
  mark: nothing(),
  feed: yup.object({ pieces: whole(0, 100), where: shortText() }),
  reinforce: yup.object({ what: oneOf("scratch", "rest", "away", "other").required("${path} is missing.") }),
  trial: wholeTrial,
  offer: yup.object({ earned: oneOf("reinforced", "ignored", "settled") }),
  measure: yup.object({
    strand: shortText().required("${path} is missing."),
    value: yup.number().required("${path} is missing."),
    unit: shortText(),
  }),
  stay: yup.object({
    ended_by: oneOf("criterion", "left", "handler").required("${path} is missing."),
    handler_distance_m: zeroOrMore().nullable(),
  }),
  signal: yup.object({
    name: shortText().required("${path} is missing."),
    class: oneOf("ease", "tension", "danger").required("${path} is missing."),
  }),
  depart: yup.object({ to: shortText(), from: shortText() }),
  return: yup.object({ to: shortText(), from: shortText() }),
  zone: yup.object({ zone: shortText().required("${path} is missing.") }),
  sample: yup.object({
    question: shortText().required("${path} is missing."),
    answer: shortText().required("${path} is missing."),
    observer: shortText(),
    // Which beep it answers and how far apart they are, so that two observers can be put side by side.
    beep: whole(1, 100_000),
    interval_s: yup.number().min(1).max(600),
  }),
  touch: yup.object({
    zone: shortText().required("${path} is missing."),
    side: sideWord(),
    tool: shortText(),
    grade: whole(0, 4).required("${path} is missing."),
  }),
  gait: yup.object({ gait: shortText().required("${path} is missing."), direction: shortText(), radius_m: zeroOrMore().nullable() }),
  breath: yup.object({
    taps_ms: yup.array().of(zeroOrMore().required()).min(2, "${path}: two taps or more.").max(1000).required("${path} is missing."),
  }),
  "break.start": yup.object({ reason: shortText() }),
  "break.end": yup.object({ reason: shortText() }),
  word: yup.object({
    word: shortText().required("${path} is missing."),
    reason: longText(),
    numbers: yup.object(),
    taken: yup.boolean(),
    did: shortText(),
  }),
  override: yup.object({
    of: uuid().required("${path} is missing."),
    from: oneOf(...OUTCOMES).nullable(),
    to: oneOf(...OUTCOMES).required("${path} is missing."),
    reason: longText(),
  }),
  // A note of the finish says which of its three questions it answers.
  note: yup.object({ text: longText().required("${path} is missing."), about: oneOf("better", "next", "handler") }),
  safety: yup.object({ what: longText().required("${path} is missing."), then: longText() }),
  "block.end": nothing(),
  "session.end": nothing(),
  aftercare: yup.object({
    breathing: yup
      .array()
      .of(yup.object({ wall_ms: yup.number().required(), per_min: zeroOrMore().required() }))
      .max(200),
    walked_off: yup.boolean(),
    legs: longText(),
    kit: longText(),
    food_g: zeroOrMore().nullable(),
  }),
  correct: yup.object({
    event: uuid().required("${path} is missing."),
    strike: yup.boolean(),
    payload: yup.object().default(undefined),
    reason: longText(),
  }),
  undo: yup.object({ event: uuid().required("${path} is missing.") }),
};

const envelope = record({
  id: uuid().required("id is missing."),
  session: uuid().required("session is missing."),
  recorder: yup.string().min(1).max(100, "recorder: at most 100 characters.").required("recorder is missing."),
  load: uuid().required("load is missing."),
  seq: whole(0, 10_000_000).required("seq is missing."),
  mono_ms: zeroOrMore().max(1e12).required("mono_ms is missing."),
  wall_ms: yup.number().min(-1e14).max(1e14).required("wall_ms is missing."),
  type: yup.string<EventType>().oneOf(EVENT_TYPES, "type: not a type of event.").required("type is missing."),
  payload: yup.object().required("payload is missing."),
});

/** Greatest size of one event's payload, in characters of JSON. */
export const PAYLOAD_MOST_CHARACTERS = 20_000;

/** Checks one event: the envelope, then its payload by its type. Nothing is converted. */
export function checkEvent(value: unknown): Checked<SessionEvent> {
  const head = check(envelope, value, { strict: true });
  if (!head.ok) return head;
  const event = head.value as SessionEvent;
  const payload = checkPayload(event.type, event.payload);
  if (!payload.ok) return payload;
  return { ok: true, value: event };
}

const UPPER = /[A-F]/;
const lower = (id: string) => (UPPER.test(id) ? id.toLowerCase() : id);

/** An event with its ids, and the one it points at, in small letters: ids compare without case. */
export function withIdsInOneCase(event: SessionEvent): SessionEvent {
  const { id, session, load, payload, type } = event;
  const key = type === "undo" || type === "correct" ? "event" : type === "override" ? "of" : null;
  const pointed = key === null ? undefined : payload[key];
  const moved = key !== null && typeof pointed === "string" && UPPER.test(pointed);
  if (!UPPER.test(`${id}${session}${load}`) && !moved) return event;
  return {
    ...event,
    id: lower(id),
    session: lower(session),
    load: lower(load),
    ...(moved ? { payload: { ...payload, [key]: lower(pointed) } } : {}),
  };
}

/** Checks the payload of a type of event. Keys the product does not know are kept as they are. */
export function checkPayload(type: EventType, payload: unknown): Checked<Record<string, unknown>> {
  const checked = check(payloadSchemas[type], payload, { strict: true });
  if (!checked.ok)
    return { ok: false, problems: checked.problems.map((p) => ({ ...p, path: p.path === "" ? "payload" : `payload.${p.path}` })) };
  if (JSON.stringify(payload).length > PAYLOAD_MOST_CHARACTERS) {
    return { ok: false, problems: [{ path: "payload", message: `At most ${PAYLOAD_MOST_CHARACTERS} characters.` }] };
  }
  return { ok: true, value: payload as Record<string, unknown> };
}

/**
 * Whether an event's wall clock, put right by the device's offset to the
 * server, lies in a time the product takes: 1980 to a day from now.
 */
export function wallClockPlausible(wallMs: number, offsetMs: number, serverNowMs: number): boolean {
  const corrected = wallMs + offsetMs;
  return corrected >= EARLIEST_WALL_MS && corrected <= serverNowMs + 86_400_000;
}

import * as yup from "yup";
import { type Checked, check, EARLIEST_WALL_MS, type FieldProblem, record } from "../checks/common";
import { checkEvent, SESSION_KINDS, type SessionEvent, type SessionKind, wallClockPlausible, withIdsInOneCase } from "../events";
import { fieldsOf } from "../typed";
import { begunCircleSchema } from "./circle";

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** A name given in passing: one line, or nothing. */
const nameOnTheSpot = (label: string) =>
  yup
    .string()
    .max(80, `${label}: at most 80 characters.`)
    .test("line", `${label}: one line of plain text, please.`, (value) => value === undefined || !/\p{Cc}/u.test(value));

/**
 * A session about to begin. Its id is made on the device, so that asking twice
 * makes one. Work has the ladder it begins on, or none for a free start; the
 * others have none. One written down later says when it began.
 */
export const newSessionSchema = record({
  id: yup.string().matches(UUID, "id: a UUID is needed.").required("id is missing."),
  horse: yup.string().max(100).required("Horse is missing."),
  kind: yup.string<SessionKind>().oneOf(SESSION_KINDS, "kind: not a kind of session.").default("work"),
  ladder: yup.string().min(1, "Choose a ladder to work on.").max(100).nullable().default(null),
  person: yup.string().max(100).nullable(),
  place: yup.string().max(100).nullable(),
  start_rung: yup
    .number()
    .integer()
    .min(1)
    .max(100)
    .nullable()
    .default(null)
    .test("there", "The rung to start on is missing.", (value, context) => (context.parent.ladder ?? null) === null || value != null),
  // Begun on a device, at this time, perhaps with no server: what it says has happened and is not asked again.
  made_ms: yup.number().min(EARLIEST_WALL_MS, "Made: not before 1980.").nullable().default(null),
  // Named on the spot: found by the name, or made.
  person_name: nameOnTheSpot("Handler"),
  place_name: nameOnTheSpot("Place"),
  started_ms: yup.number().min(EARLIEST_WALL_MS, "Begun: not before 1980.").nullable().default(null),
  kit: yup.array().of(yup.string().max(100).required()).max(50, "kit: at most 50 pieces.").default([]),
  // Of a session on the circle: its plan, and what was gone against.
  circle: begunCircleSchema.nullable().default(null),
  // Why a ladder on the circle is worked though a cap is used up.
  against: nameOnTheSpot("Why").default(""),
  // Said where another session of the horse is running and a second is wanted all the same.
  beside: yup.boolean().default(false),
});

/** A batch of events as it is posted. */
export interface PostedBatch {
  readonly store: string;
  readonly recorder: string;
  readonly clocks: Readonly<Record<string, number>>;
  readonly events: readonly SessionEvent[];
}

const batchSchema = record({
  store: yup.string().max(100).required("store is missing."),
  recorder: yup.string().max(100).required("recorder is missing."),
  clocks: yup.object().default({}),
  events: yup.array().required("events are missing.").max(2000, "events: at most 2000 at once."),
});

/** Greatest believable difference between a device's clock and the server's: a hundred years: a phone may think it is 1970. */
const MOST_OFFSET_MS = 100 * 366 * 86_400_000;

/** Page loads of a batch: a device sends two hundred taps at once, each of them of one. */
const MOST_LOADS = 200;

const isLoaded = (event: unknown): event is { readonly load: string } =>
  typeof event === "object" && event !== null && "load" in event && typeof event.load === "string";

/**
 * Checks a posted batch whole: one bad event refuses it, and the problems
 * name the event by its place in the batch.
 * @example checkBatch(3, 1777939200000) // { ok: false, … }
 */
export function checkBatch(value: unknown, serverNowMs: number): Checked<PostedBatch> {
  const head = check(batchSchema, value, { strict: true });
  if (!head.ok) return head;
  const { store, recorder, events } = head.value;
  const clocks = fieldsOf(head.value.clocks);
  const problems: FieldProblem[] = [];
  const byLoad: Record<string, number> = {};
  const loads = new Set(events.flatMap((event: unknown) => (isLoaded(event) ? [event.load.toLowerCase()] : [])));
  if (loads.size > MOST_LOADS) problems.push({ path: "events", message: `events: of at most ${MOST_LOADS} page loads at once.` });
  for (const [load, offset] of Object.entries(clocks)) {
    // The clock of a load is told with its taps and by nothing else.
    if (!loads.has(load.toLowerCase())) {
      problems.push({ path: `clocks.${load.slice(0, 40)}`, message: "A clock of a page load without a tap in the batch." });
      continue;
    }
    if (!UUID.test(load) || typeof offset !== "number" || !(Math.abs(offset) <= MOST_OFFSET_MS)) {
      problems.push({ path: `clocks.${load.slice(0, 40)}`, message: "An offset in milliseconds by page load is needed." });
      continue;
    }
    byLoad[load.toLowerCase()] = offset;
  }
  const good: SessionEvent[] = [];
  events.forEach((event: unknown, i) => {
    const checked = checkEvent(event);
    if (!checked.ok) {
      problems.push(...checked.problems.map((p) => ({ path: `events[${i}].${p.path}`, message: p.message })));
      return;
    }
    const offset = clocks[checked.value.load];
    if (!wallClockPlausible(checked.value.wall_ms, typeof offset === "number" ? offset : 0, serverNowMs)) {
      problems.push({ path: `events[${i}].wall_ms`, message: "The time lies before 1980 or in the future." });
    }
    good.push(withIdsInOneCase(checked.value));
  });
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 50) };
  return { ok: true, value: { store, recorder, clocks: byLoad, events: good } };
}

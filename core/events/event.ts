import * as yup from "yup";
import { type Checked, check, EARLIEST_WALL_MS, record } from "../checks/common";
import { BATCH_LIMITS, wireProblem } from "../checks/wire";
import { keysOf } from "../typed";
import type { EventType, Payload, SessionEvent } from "./fact";
import { PARTS, type Part } from "./parts";
import { payloadSchemas, uuid, whole, zeroOrMore } from "./payloads";

/** Every event type of the formats document. */
export const EVENT_TYPES = keysOf(payloadSchemas);

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
  part: yup.string<Part>().oneOf(PARTS, "part: not a part at the horse.").optional(),
});

/** Greatest size of one event's payload, in characters of JSON. */
export const PAYLOAD_MOST_CHARACTERS = 20_000;
/** How much of what the product does not know one event may carry along. */
export const UNKNOWN_MOST_KEYS = 20;
export const UNKNOWN_MOST_CHARACTERS = 4000;

/** Checks one event: the envelope, then its payload by its type. Nothing is converted. @example checkEvent(value) // { ok: true, … } */
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

/**
 * An event with its ids, and the one it points at, in small letters: ids compare without case.
 * @example withIdsInOneCase(event) // { recorder: "phone:a", seq: 0, mono_ms: 1.5, … }
 */
export function withIdsInOneCase(event: SessionEvent): SessionEvent {
  const { id, session, load } = event;
  const same = UPPER.test(`${id}${session}${load}`) ? { ...event, id: lower(id), session: lower(session), load: lower(load) } : event;
  if (same.type === "override" && UPPER.test(same.payload.of)) return { ...same, payload: { ...same.payload, of: lower(same.payload.of) } };
  if (same.type === "undo" && UPPER.test(same.payload.event))
    return { ...same, payload: { ...same.payload, event: lower(same.payload.event) } };
  if (same.type === "correct" && UPPER.test(same.payload.event))
    return { ...same, payload: { ...same.payload, event: lower(same.payload.event) } };
  return same;
}

/**
 * Keys of a payload that its schema does not name. They are kept with it, and read by nothing.
 * @example unknownKeys("mark", { phase: 2 }) // ["phase"]
 */
export function unknownKeys(type: EventType, payload: object): string[] {
  const known = payloadSchemas[type].fields;
  return Object.keys(payload).filter((key) => !(key in known));
}

/**
 * Checks the payload of a type of event. Keys the product does not know are
 * kept as they are, so many and so much of them.
 * @example checkPayload("phase", { phase: "2" }) // { ok: false, … }
 */
export function checkPayload<Type extends EventType>(type: Type, payload: unknown): Checked<Payload<Type>> {
  const unfit = wireProblem(payload, BATCH_LIMITS);
  if (unfit !== null) return { ok: false, problems: [{ path: "payload", message: unfit }] };
  const checked = check<unknown>(payloadSchemas[type], payload, { strict: true });
  if (!checked.ok)
    return { ok: false, problems: checked.problems.map((p) => ({ ...p, path: p.path === "" ? "payload" : `payload.${p.path}` })) };
  const refused = (message: string): Checked<never> => ({ ok: false, problems: [{ path: "payload", message }] });
  const given = payload as Payload<Type> & Readonly<Record<string, unknown>>;
  if (JSON.stringify(given).length > PAYLOAD_MOST_CHARACTERS) return refused(`At most ${PAYLOAD_MOST_CHARACTERS} characters.`);
  const unknown = unknownKeys(type, given);
  if (unknown.length > UNKNOWN_MOST_KEYS) return refused(`At most ${UNKNOWN_MOST_KEYS} keys that are not known here.`);
  if (JSON.stringify(unknown.map((key) => [key, given[key]])).length > UNKNOWN_MOST_CHARACTERS)
    return refused(`At most ${UNKNOWN_MOST_CHARACTERS} characters in keys that are not known here.`);
  return { ok: true, value: given };
}

/**
 * Whether an event's wall clock, put right by the device's offset to the
 * server, lies in a time the product takes: 1980 to a day from now.
 * @example wallClockPlausible(1777852800000, 0, 1777939200000) // true
 */
export function wallClockPlausible(wallMs: number, offsetMs: number, serverNowMs: number): boolean {
  const corrected = wallMs + offsetMs;
  return corrected >= EARLIEST_WALL_MS && corrected <= serverNowMs + 86_400_000;
}

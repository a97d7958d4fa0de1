import type { EventType, Payload, SessionEvent } from "../events";
import type { PlacedEvent } from "./clock";

/** Whether a payload has the shape of its type of event, and then the payload. */
export type PayloadCheck = <Type extends EventType>(
  type: Type,
  payload: unknown,
) => { readonly ok: true; readonly value: Payload<Type> } | { readonly ok: false };

/** An event with what was put right laid over its payload, or as it is where that would not have its type's shape. */
function laidOver<Type extends EventType>(
  event: SessionEvent & { readonly type: Type },
  change: object,
  check: PayloadCheck,
): SessionEvent {
  const merged = check(event.type, { ...event.payload, ...change });
  return merged.ok ? ({ ...event, payload: merged.value } as SessionEvent) : event;
}

/** The events that count, in order, and how many were taken out. */
export interface EffectiveEvents {
  readonly events: readonly PlacedEvent[];
  readonly undone: number;
  readonly struck: number;
}

/** One event for each id: a batch sent twice changes nothing. @example withoutDuplicates(events) // 3 of them */
export function withoutDuplicates(events: Iterable<SessionEvent>): SessionEvent[] {
  const byId = new Map<string, SessionEvent>();
  for (const event of events) if (!byId.has(event.id)) byId.set(event.id, event);
  return [...byId.values()];
}

/**
 * The events that are taken back, by id: each recorder takes back its own, and
 * taking back an undo brings the first event back.
 * @param placed every event of the session in its order in time.
 * @example undoneOf(placeEvents(events)).has(event.id)
 */
export function undoneOf(placed: readonly PlacedEvent[]): ReadonlySet<string> {
  const undone = new Set<string>();
  if (!placed.some(({ event }) => event.type === "undo")) return undone;
  const byId = new Map(placed.map(({ event }) => [event.id, event]));
  // From the last to the first, so that undoing an undo brings the first event back.
  for (let i = placed.length - 1; i >= 0; i--) {
    const event = placed[i]?.event;
    if (event?.type !== "undo" || undone.has(event.id)) continue;
    const target = byId.get(event.payload.event);
    if (target !== undefined && target.recorder === event.recorder) undone.add(target.id);
  }
  return undone;
}

/**
 * Applies undo and correct. Each recorder undoes its own events; anyone may
 * correct, strike an event and bring it back. A correction's payload is laid over the original's; one that would
 * leave a payload of the wrong shape is passed over. The originals stay in
 * the log.
 * @example effectiveEvents([], check) // { events: [], undone: 0, struck: 0 }
 */
export function effectiveEvents(placed: readonly PlacedEvent[], check: PayloadCheck): EffectiveEvents {
  let rewriting = false;
  for (const { event } of placed) if (event.type === "undo" || event.type === "correct") rewriting = true;
  if (!rewriting) return { events: placed, undone: 0, struck: 0 };
  const byId = new Map(placed.map(({ event }) => [event.id, event]));
  const undone = undoneOf(placed);
  const struck = new Set<string>();
  const edited = new Map<string, SessionEvent>();
  for (const { event } of placed) {
    if (event.type !== "correct" || undone.has(event.id)) continue;
    const target = byId.get(event.payload.event);
    if (target === undefined || target.type === "correct" || target.type === "undo") continue;
    if (event.payload.strike === true) struck.add(target.id);
    else if (event.payload.strike === false) struck.delete(target.id);
    else if (event.payload.payload !== undefined)
      edited.set(target.id, laidOver(edited.get(target.id) ?? target, event.payload.payload, check));
  }
  const events: PlacedEvent[] = [];
  for (const { event, ms } of placed) {
    if (event.type === "undo" || event.type === "correct") continue;
    if (undone.has(event.id) || struck.has(event.id)) continue;
    events.push({ event: edited.get(event.id) ?? event, ms });
  }
  return { events, undone: undone.size, struck: struck.size };
}

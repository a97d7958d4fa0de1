import type { EventType, SessionEvent } from "../schemas/event";
import type { PlacedEvent } from "./clock";

/** Whether a payload has the shape of its type of event. */
export type PayloadCheck = (type: EventType, payload: Record<string, unknown>) => { readonly ok: boolean };

/** The events that count, in order, and how many were taken out. */
export interface EffectiveEvents {
  readonly events: readonly PlacedEvent[];
  readonly undone: number;
  readonly struck: number;
}

/** One event for each id: a batch sent twice changes nothing. */
export function withoutDuplicates(events: Iterable<SessionEvent>): SessionEvent[] {
  const byId = new Map<string, SessionEvent>();
  for (const event of events) if (!byId.has(event.id)) byId.set(event.id, event);
  return [...byId.values()];
}

function undoneIds(placed: readonly PlacedEvent[], byId: ReadonlyMap<string, SessionEvent>): Set<string> {
  const undone = new Set<string>();
  // From the last to the first, so that undoing an undo brings the first event back.
  for (let i = placed.length - 1; i >= 0; i--) {
    const event = placed[i]?.event;
    if (event?.type !== "undo" || undone.has(event.id)) continue;
    const target = byId.get(String(event.payload.event));
    if (target !== undefined && target.recorder === event.recorder) undone.add(target.id);
  }
  return undone;
}

/**
 * Applies undo and correct. Each recorder undoes its own events; anyone may
 * correct, strike an event and bring it back. A correction's payload is laid over the original's; one that would
 * leave a payload of the wrong shape is passed over. The originals stay in
 * the log.
 */
export function effectiveEvents(placed: readonly PlacedEvent[], check: PayloadCheck): EffectiveEvents {
  let rewriting = false;
  for (const { event } of placed) if (event.type === "undo" || event.type === "correct") rewriting = true;
  if (!rewriting) return { events: placed, undone: 0, struck: 0 };
  const byId = new Map(placed.map(({ event }) => [event.id, event]));
  const undone = undoneIds(placed, byId);
  const struck = new Set<string>();
  const edited = new Map<string, Record<string, unknown>>();
  for (const { event } of placed) {
    if (event.type !== "correct" || undone.has(event.id)) continue;
    const target = byId.get(String(event.payload.event));
    if (target === undefined || target.type === "correct" || target.type === "undo") continue;
    if (event.payload.strike === true) struck.add(target.id);
    else if (event.payload.strike === false) struck.delete(target.id);
    else if (typeof event.payload.payload === "object" && event.payload.payload !== null) {
      const merged = { ...(edited.get(target.id) ?? target.payload), ...event.payload.payload };
      if (check(target.type, merged).ok) edited.set(target.id, merged);
    }
  }
  const events: PlacedEvent[] = [];
  for (const { event, ms } of placed) {
    if (event.type === "undo" || event.type === "correct") continue;
    if (undone.has(event.id) || struck.has(event.id)) continue;
    const payload = edited.get(event.id);
    events.push(payload === undefined ? { event, ms } : { event: { ...event, payload }, ms });
  }
  return { events, undone: undone.size, struck: struck.size };
}

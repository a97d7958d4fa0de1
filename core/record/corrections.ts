import type { SessionEvent } from "../events";
import { fieldsOf } from "../typed";
import { placeEvents } from "./clock";
import { undoneOf } from "./effective";

/** One correction that stands: of what, why, and whether it was struck. */
export interface Correction {
  readonly id: string;
  /** The event it is about. */
  readonly of: string;
  readonly type: SessionEvent["type"];
  readonly reason: string;
  /** Whether what it is about is struck out now and this is what struck it. */
  readonly struck: boolean;
  readonly wallMs: number;
}

/**
 * The corrections of a session that a person made with a reason, oldest first,
 * each with whether what it struck is still struck. Those of the recorder's
 * own pads (a value, the name of a sign) say what they are about and are not listed.
 * @example correctionsOf(events) // 2 of them
 */
export function correctionsOf(events: readonly SessionEvent[]): Correction[] {
  const byId = new Map(events.map((event) => [event.id, event]));
  const undone = undoneOf(placeEvents(events));
  const standing = events
    .filter((event) => event.type === "correct")
    .filter(({ id, recorder }) => !undone.has(id) && (recorder.endsWith(":review") || recorder === "review:"))
    .sort((a, b) => a.wall_ms - b.wall_ms || a.seq - b.seq);
  const lastStrike = new Map<string, string>();
  for (const { id, payload } of standing) {
    if (payload.strike === true) lastStrike.set(payload.event, id);
    else if (payload.strike === false) lastStrike.delete(payload.event);
  }
  return standing.flatMap(({ id, payload, wall_ms }) => {
    const of = byId.get(payload.event);
    if (of === undefined) return [];
    const struck = payload.strike === true && lastStrike.get(of.id) === id;
    return [{ id, of: of.id, type: of.type, reason: payload.reason ?? "", struck, wallMs: wall_ms }];
  });
}

/** A note that was struck out and not brought back. */
export interface StruckNote {
  readonly note: string;
  readonly text: string;
  /** The correction that struck it. */
  readonly by: string;
}

/** Notes of a session that are struck out now, whoever struck them. @example struckNotesOf(events) // [] */
export function struckNotesOf(events: readonly SessionEvent[]): StruckNote[] {
  const corrections = events.filter((event) => event.type === "correct").filter(({ payload }) => payload.strike !== undefined);
  if (corrections.length === 0) return [];
  const notes = new Map(events.flatMap((event) => (event.type === "note" ? [[event.id, event.payload.text] as const] : [])));
  const undone = undoneOf(placeEvents(events));
  const struck = new Map<string, string>();
  for (const { id, payload } of [...corrections].sort((a, b) => a.wall_ms - b.wall_ms || a.seq - b.seq)) {
    if (undone.has(id) || !notes.has(payload.event)) continue;
    if (payload.strike) struck.set(payload.event, id);
    else struck.delete(payload.event);
  }
  return [...struck].map(([note, by]) => ({ note, by, text: notes.get(note) ?? "" }));
}

/** A session that was put to another horse: whose it was before, why, and when. */
export interface Moved {
  readonly from: string;
  readonly reason: string;
  readonly wallMs: number;
}

/**
 * Where a session came from, by its last move to another horse; null where it was never moved.
 * @example movedFrom(events)?.from // "Brackwidden"
 */
export function movedFrom(events: readonly SessionEvent[]): Moved | null {
  const header = events.find((event) => event.type === "session.start");
  if (header?.type !== "session.start") return null;
  const undone = undoneOf(placeEvents(events));
  let horse = header.payload.horse;
  let moved: Moved | null = null;
  const corrections = events
    .filter((event) => event.type === "correct")
    .filter(({ id, payload }) => payload.event === header.id && !undone.has(id));
  for (const { payload, wall_ms } of corrections.sort((a, b) => a.wall_ms - b.wall_ms || a.seq - b.seq)) {
    const next = fieldsOf(payload.payload).horse;
    if (typeof next !== "string" || next === horse) continue;
    moved = { from: horse, reason: payload.reason ?? "", wallMs: wall_ms };
    horse = next;
  }
  return moved;
}

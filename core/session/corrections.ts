import type { SessionEvent } from "../schemas/event";

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
 */
export function correctionsOf(events: readonly SessionEvent[]): Correction[] {
  const byId = new Map(events.map((event) => [event.id, event]));
  const undone = new Set(events.filter(({ type }) => type === "undo").map(({ payload }) => String(payload.event)));
  const standing = events
    .filter(({ type, id, recorder }) => type === "correct" && !undone.has(id) && (recorder.endsWith(":review") || recorder === "review:"))
    .sort((a, b) => a.wall_ms - b.wall_ms || a.seq - b.seq);
  const lastStrike = new Map<string, string>();
  for (const { id, payload } of standing) {
    if (payload.strike === true) lastStrike.set(String(payload.event), id);
    else if (payload.strike === false) lastStrike.delete(String(payload.event));
  }
  return standing.flatMap(({ id, payload, wall_ms }) => {
    const of = byId.get(String(payload.event));
    if (of === undefined) return [];
    const struck = payload.strike === true && lastStrike.get(of.id) === id;
    return [{ id, of: of.id, type: of.type, reason: String(payload.reason ?? ""), struck, wallMs: wall_ms }];
  });
}

import { placeEvents, undoneOf } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";

/** What a press of undo may not take back: it is no press of its own, or the work rests on it. */
const FIXED = new Set(["undo", "word", "session.start", "note", "session.end"]);

/**
 * The events of this recorder's last press that still stand, newest first, to
 * be named by undo events. Empty where there is nothing left to take back.
 */
export function lastPress(events: readonly SessionEvent[], recorder: string): SessionEvent[] {
  const inTime = placeEvents(events);
  const undone = undoneOf(inTime);
  const placed = inTime.map(({ event }) => event);
  const own = placed.filter((event) => event.recorder === recorder && !FIXED.has(event.type) && !undone.has(event.id));
  const last = own.at(-1);
  if (last === undefined) return [];
  const press = own.filter((event) => event.load === last.load && event.mono_ms === last.mono_ms);
  const blocks = placed.filter((event) => event.type === "block.start" && !undone.has(event.id));
  // The first block is where the clock starts: it stays.
  if (press.some((event) => event.type === "block.start") && blocks.length === 1) return [];
  return [...press.reverse(), ...begunBy(press, own.slice(0, own.length - press.length))];
}

/**
 * What the end of a wrong choice or of the horse's own time goes back with: its
 * beginning. Taken back alone it would go on again.
 */
function begunBy(press: readonly SessionEvent[], before: readonly SessionEvent[]): SessionEvent[] {
  const last = press[0];
  if (last?.type === "wrong.end") return before.filter(({ type }) => type === "wrong").slice(-1);
  if (last?.type === "own.end")
    return before.filter((event) => event.type === "own.start" && event.payload.what === last.payload.what).slice(-1);
  // A tap that counts one wrong choice is logged as it goes down, and as a tap when it comes up.
  if (last?.type === "correct" && last.payload.payload !== undefined && "goes_on" in last.payload.payload)
    return before.filter(({ id, type }) => type === "wrong" && id === last.payload.event);
  return [];
}

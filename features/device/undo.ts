import { placeEvents } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";

/** What a press of undo may not take back: it is no press of its own, or the work rests on it. */
const FIXED = new Set(["undo", "word", "session.start", "note", "session.end"]);

/**
 * The events of this recorder's last press that still stand, newest first, to
 * be named by undo events. Empty where there is nothing left to take back.
 */
export function lastPress(events: readonly SessionEvent[], recorder: string): SessionEvent[] {
  const undone = new Set<string>();
  const placed = placeEvents(events).map(({ event }) => event);
  for (let i = placed.length - 1; i >= 0; i--) {
    const event = placed[i] as SessionEvent;
    if (event.type === "undo" && !undone.has(event.id)) undone.add(event.payload.event);
  }
  const own = placed.filter((event) => event.recorder === recorder && !FIXED.has(event.type) && !undone.has(event.id));
  const last = own.at(-1);
  if (last === undefined) return [];
  const press = own.filter((event) => event.load === last.load && event.mono_ms === last.mono_ms);
  const blocks = placed.filter((event) => event.type === "block.start" && !undone.has(event.id));
  // The first block is where the clock starts: it stays.
  if (press.some((event) => event.type === "block.start") && blocks.length === 1) return [];
  return press.reverse();
}

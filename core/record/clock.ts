import { CLOCK_JUMP_MS } from "../clock-jump";
import type { SessionEvent } from "../events";

/** An event with its place in time: whole milliseconds on the server's clock. */
export interface PlacedEvent {
  readonly event: SessionEvent;
  readonly ms: number;
}

/**
 * What is known of clocks beside the events.
 * `offsetMsByLoad`: server clock minus device clock, by page load.
 * `silenceMinutes`: how long nothing may be tapped before it counts as a pause; see silence.ts.
 * `givenSeconds`: times already derived (an events.csv), by event id; they win.
 */
export interface ClockKnowledge {
  /** Minutes of silence after which it is a pause; 20 where it is not said. */
  readonly silenceMinutes?: number;
  readonly offsetMsByLoad?: ReadonlyMap<string, number>;
  readonly givenSeconds?: ReadonlyMap<string, number>;
}

function compareInLoad(a: SessionEvent, b: SessionEvent): number {
  return a.seq - b.seq || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
}

/** Total order of events that does not depend on the order of arrival. */
function comparePlaced(a: PlacedEvent, b: PlacedEvent): number {
  if (a.ms !== b.ms) return a.ms - b.ms;
  const x = a.event;
  const y = b.event;
  if (x.recorder !== y.recorder) return x.recorder < y.recorder ? -1 : 1;
  if (x.load !== y.load) return x.load < y.load ? -1 : 1;
  return compareInLoad(x, y);
}

/**
 * Puts events on one time line. Each page load has its own monotonic clock;
 * its wall clock and the device's offset to the server tie the loads
 * together, so a reload, a sleeping phone or a second device does not bend
 * time. The result is sorted and depends only on the set of events.
 * @example placeEvents(events) // 5 of them
 */
export function placeEvents(events: Iterable<SessionEvent>, clocks: ClockKnowledge = {}): PlacedEvent[] {
  const loads = new Map<string, SessionEvent[]>();
  const placed: PlacedEvent[] = [];
  for (const event of events) {
    const given = clocks.givenSeconds?.get(event.id);
    if (given !== undefined) {
      placed.push({ event, ms: Math.round(given * 1000) });
      continue;
    }
    const list = loads.get(event.load);
    if (list === undefined) loads.set(event.load, [event]);
    else list.push(event);
  }
  for (const [load, list] of loads) {
    list.sort(compareInLoad);
    const offset = clocks.offsetMsByLoad?.get(load) ?? 0;
    let anchor: number | null = null;
    let last = Number.NEGATIVE_INFINITY;
    for (const event of list) {
      const seen = event.wall_ms - event.mono_ms;
      // Ahead it slept; back a clock was put right, and the monotonic one is trusted.
      if (anchor === null || seen - anchor > CLOCK_JUMP_MS) anchor = seen;
      // Events of one load never go back in time, whatever its clocks did.
      last = Math.max(last, Math.round(event.mono_ms + anchor + offset));
      placed.push({ event, ms: last });
    }
  }
  return placed.sort(comparePlaced);
}

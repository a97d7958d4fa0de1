import { checkPayload, type SessionEvent } from "../events";
import type { ClockKnowledge } from "./clock";
import { reduceEvents, type SessionRecord } from "./reduce";

/**
 * Derives a session from its events, passing over corrections that would leave a payload of the wrong shape.
 * @param clocks what is known of the devices' clocks.
 * @example reduceSession(events).trials.length
 */
export const reduceSession = (events: Iterable<SessionEvent>, clocks: ClockKnowledge = {}): SessionRecord =>
  reduceEvents(events, clocks, checkPayload);

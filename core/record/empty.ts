import type { EventType } from "../events";
import { isWatching } from "../events/session-kind";
import type { SessionRecord } from "./reduce";

/** What frames a session without anything having been seen of the horse. */
const FRAME: ReadonlySet<EventType> = new Set([
  "session.start",
  "preflight",
  "block.start",
  "block.end",
  "break.start",
  "break.end",
  "word",
  "session.end",
]);

/**
 * Whether nothing was seen in a session: the recorder was opened, looked at and
 * left. Such a session is in no list and counts nowhere. A watch that was
 * finished was watched, also where nothing was shown: calm is seen too.
 * @example isEmptySession(reduceSession([])) // true
 */
export const isEmptySession = (record: SessionRecord): boolean =>
  !(record.finishMs !== null && record.blocks.some(isWatching)) &&
  record.trials.length === 0 &&
  record.cutOffAsks === 0 &&
  record.openAsk === null &&
  record.facts.every(({ type }) => FRAME.has(type));

import type { SessionRecord } from "./reduce";
import { type Handler, handlerKey } from "./trial";

/** Where the horse is said to be now, and whether it has left its handler. */
export interface Whereabouts {
  readonly zone: string | null;
  readonly away: boolean;
}

/**
 * The end of the time line: the zone the horse is in, and whether a departure is still open.
 * @example whereNow(record) // { zone: null, away: true }
 */
export const whereNow = ({ timeLine }: Pick<SessionRecord, "timeLine">): Whereabouts => ({
  zone: timeLine.zones.at(-1)?.zone ?? null,
  away: timeLine.departures.at(-1)?.endMs === null,
});

/**
 * Who handles the horse now, where that was said in the session; null for whoever it was begun for.
 * @example handlerNow(record) // null
 */
export function handlerNow({ facts }: Pick<SessionRecord, "facts">): Handler | null {
  const last = facts
    .filter((fact) => fact.type === "with")
    .findLast(({ payload }) => payload.part === "handles" && payload.leaves !== true);
  return last === undefined ? null : { name: last.payload.who, id: last.payload.person ?? null };
}

/**
 * Whose evidence the asks of now are.
 * @param begunFor whose session it is, by id or else by name; null for nobody's.
 * @example handlerInHand(record, "p-1") // "p-2" after she took over
 */
export function handlerInHand(record: Pick<SessionRecord, "facts">, begunFor: string | null): string | null {
  const taken = handlerNow(record);
  return taken === null ? begunFor : handlerKey(taken);
}

import type { SessionRecord } from "./reduce";

/** Where the horse is said to be now, and whether it has left its handler. */
export interface Whereabouts {
  readonly zone: string | null;
  readonly away: boolean;
}

/** The end of the time line: the zone the horse is in, and whether a departure is still open. */
export const whereNow = ({ timeLine }: Pick<SessionRecord, "timeLine">): Whereabouts => ({
  zone: timeLine.zones.at(-1)?.zone ?? null,
  away: timeLine.departures.at(-1)?.endMs === null,
});

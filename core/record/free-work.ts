import type { SessionRecord } from "./reduce";
import { endOfWorkMs, secondsWithoutBreaks } from "./time";
import { STANDING, until } from "./time-line";

/** Work at liberty, up to a moment. Times are working time, without breaks. */
export interface FreeWork {
  readonly seconds: number;
  readonly awaySeconds: number;
  readonly connectedSeconds: number;
  /** 1 − time away / free-work time; null before any time has passed. */
  readonly connectedShare: number | null;
  readonly longestConnectedSeconds: number;
  readonly departures: number;
  readonly departuresPerTenMinutes: number | null;
  readonly isAway: boolean;
  /** Seconds since it left, while it is away. */
  readonly awayNowSeconds: number;
  readonly gait: string | null;
  readonly direction: string | null;
  readonly radiusMetres: number | null;
  readonly directionChanges: number;
  /** Seconds in each gait that was tapped. */
  readonly secondsByGait: Readonly<Record<string, number>>;
}

/**
 * Departures, connected time, gaits and directions of a session. Free-work
 * time is the session's working time; a departure is ended by its return, by
 * the finish, or goes on.
 * @param nowMs the present of a session still running, in milliseconds from the start of work.
 * @example freeWork(record) // { seconds: 0, awaySeconds: 0, connectedSeconds: 0, … }
 */
export function freeWork(record: SessionRecord, nowMs: number | null = null): FreeWork {
  const { timeLine } = record;
  const end = endOfWorkMs(record, nowMs);
  const span = (from: number, to: number) => secondsWithoutBreaks(Math.max(0, from), Math.min(to, end), timeLine.breaks);
  const departures = timeLine.departures.filter(({ startMs }) => startMs <= end);
  const gone = departures.at(-1);
  const isAway = gone !== undefined && (gone.endMs === null || gone.endMs > end);
  let away = 0;
  let backMs = 0;
  let longest = 0;
  for (const { startMs, endMs } of departures) {
    longest = Math.max(longest, span(backMs, startMs));
    away += span(startMs, endMs ?? end);
    backMs = endMs ?? end;
  }
  if (!isAway) longest = Math.max(longest, span(backMs, end));
  const awayNow = isAway ? span(gone.startMs, end) : 0;
  const gaits = timeLine.gaits.filter(({ startMs }) => startMs <= end);
  const byGait: Record<string, number> = {};
  let changes = 0;
  let before: string | null = null;
  for (const { gait, direction, startMs, endMs } of gaits) {
    byGait[gait] = (byGait[gait] ?? 0) + span(startMs, endMs ?? end);
    if (before !== null && direction !== before) changes++;
    before = direction;
  }
  const last = gaits.at(-1);
  const seconds = record.startWallMs === null ? 0 : span(0, end);
  return {
    seconds,
    awaySeconds: away,
    connectedSeconds: Math.max(0, seconds - away),
    connectedShare: seconds > 0 ? Math.max(0, 1 - away / seconds) : null,
    longestConnectedSeconds: longest,
    departures: departures.length,
    departuresPerTenMinutes: seconds > 0 ? (departures.length * 600) / seconds : null,
    isAway,
    awayNowSeconds: awayNow,
    gait: last?.gait ?? null,
    direction: last?.direction ?? null,
    radiusMetres: last?.radiusMetres ?? null,
    directionChanges: changes,
    secondsByGait: byGait,
  };
}

/** A horse that stands in a corner or at the fence for longer than this has found a place to be (common practice, no source). */
export const CORNER_STAND_SECONDS = 5;

/** A stand in a corner or at the fence. Times in milliseconds from the start of work. */
export interface CornerStand {
  readonly zone: string;
  readonly startMs: number;
  readonly seconds: number;
}

const ANYWHERE_ALONG = /corner|fence|rail|gate/i;

/**
 * Whether a zone is a corner or lies along the fence: by its kind on the place's plan, or by its name.
 * @example isEdgeZone({ name: "long fence" }) // true
 */
export function isEdgeZone(zone: { readonly name: string; readonly kind?: string }): boolean {
  return zone.kind === "corner" || zone.kind === "gate" || ANYWHERE_ALONG.test(zone.name);
}

/**
 * The zones of a session that are corners or lie along the fence: by what the
 * place's plan says they are, and by their name where the plan has none of that name.
 * @example edgeZonesOf(record, [{ name: "far end", kind: "corner" }]).has("far end") // true
 */
export function edgeZonesOf(
  { timeLine }: Pick<SessionRecord, "timeLine">,
  planned: readonly { readonly name: string; readonly kind: string }[],
): ReadonlySet<string> {
  const kinds = new Map(planned.map(({ name, kind }) => [name, kind]));
  return new Set(timeLine.zones.flatMap(({ zone }) => (zone !== null && isEdgeZone({ name: zone, kind: kinds.get(zone) }) ? [zone] : [])));
}

/**
 * Stands in a corner or at the fence of more than five seconds. A horse counts
 * as standing where the last gait tapped is stand, or none was tapped since it
 * came there.
 * @param edges names of the zones that are corners or lie along the fence.
 * @example cornerStands(record, edges) // [{ zone: "corner NE", startMs: 0, seconds: 8 }]
 */
export function cornerStands(record: SessionRecord, edges: ReadonlySet<string>, nowMs: number | null = null): CornerStand[] {
  const { zones, gaits, breaks } = record.timeLine;
  const end = endOfWorkMs(record, nowMs);
  return until(zones, end).flatMap(({ zone, startMs: cameMs, endMs }) => {
    if (zone === null || !edges.has(zone)) return [];
    // What was tapped before work began is no stand in it.
    const startMs = Math.max(0, cameMs);
    const within = until(gaits, endMs).filter((gait) => gait.startMs > startMs);
    const stands = [{ startMs, endMs: within[0]?.startMs ?? endMs }];
    for (const { gait, ...span } of within) {
      const last = stands.at(-1);
      if (gait !== STANDING) continue;
      if (last?.endMs === span.startMs) last.endMs = span.endMs;
      else stands.push({ startMs: span.startMs, endMs: span.endMs });
    }
    return stands.flatMap((stand) => {
      const seconds = secondsWithoutBreaks(stand.startMs, stand.endMs, breaks);
      return seconds > CORNER_STAND_SECONDS ? [{ zone, startMs: stand.startMs, seconds }] : [];
    });
  });
}

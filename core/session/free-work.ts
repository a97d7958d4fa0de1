import type { SessionRecord } from "./reduce";
import { endOfWorkMs, secondsWithoutBreaks } from "./time";

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
 */
export function freeWork(record: SessionRecord, nowMs: number | null = null): FreeWork {
  const end = endOfWorkMs(record, nowMs);
  const span = (from: number, to: number) => secondsWithoutBreaks(Math.max(0, from), Math.min(to, end), record.breaks);
  let away = 0;
  let leftMs: number | null = null;
  let backMs = 0;
  let longest = 0;
  let departures = 0;
  let gait: string | null = null;
  let direction: string | null = null;
  let radius: number | null = null;
  let gaitMs = 0;
  let changes = 0;
  const byGait: Record<string, number> = {};
  const closeGait = (ms: number) => {
    if (gait !== null) byGait[gait] = (byGait[gait] ?? 0) + span(gaitMs, ms);
  };
  for (const { type, ms, payload } of record.facts) {
    if (ms > end) break;
    if (type === "depart" && leftMs === null) {
      departures++;
      leftMs = ms;
      longest = Math.max(longest, span(backMs, ms));
    } else if (type === "return" && leftMs !== null) {
      away += span(leftMs, ms);
      leftMs = null;
      backMs = ms;
    } else if (type === "gait") {
      closeGait(ms);
      gait = String(payload.gait);
      gaitMs = ms;
      const next = typeof payload.direction === "string" && payload.direction !== "" ? payload.direction : null;
      if (next !== null && direction !== null && next !== direction) changes++;
      direction = next ?? direction;
      if (typeof payload.radius_m === "number") radius = payload.radius_m;
    }
  }
  closeGait(end);
  const awayNow = leftMs === null ? 0 : span(leftMs, end);
  away += awayNow;
  if (leftMs === null) longest = Math.max(longest, span(backMs, end));
  const seconds = record.startWallMs === null ? 0 : span(0, end);
  return {
    seconds,
    awaySeconds: away,
    connectedSeconds: Math.max(0, seconds - away),
    connectedShare: seconds > 0 ? Math.max(0, 1 - away / seconds) : null,
    longestConnectedSeconds: longest,
    departures,
    departuresPerTenMinutes: seconds > 0 ? (departures * 600) / seconds : null,
    isAway: leftMs !== null,
    awayNowSeconds: awayNow,
    gait,
    direction,
    radiusMetres: radius,
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

const STANDING = "stand";
const ANYWHERE_ALONG = /corner|fence|rail|gate/i;

/** Whether a zone is a corner or lies along the fence: by its kind on the place's plan, or by its name. */
export function isEdgeZone(zone: { readonly name: string; readonly kind?: string }): boolean {
  return zone.kind === "corner" || zone.kind === "gate" || ANYWHERE_ALONG.test(zone.name);
}

/**
 * Stands in a corner or at the fence of more than five seconds. A horse counts
 * as standing where the last gait tapped is stand, or none was tapped since it
 * came there.
 * @param edges names of the zones that are corners or lie along the fence.
 */
export function cornerStands(record: SessionRecord, edges: ReadonlySet<string>, nowMs: number | null = null): CornerStand[] {
  const end = endOfWorkMs(record, nowMs);
  const stands: CornerStand[] = [];
  let zone: string | null = null;
  let moving = false;
  let sinceMs: number | null = null;
  const settle = (ms: number) => {
    if (zone !== null && sinceMs !== null) {
      const seconds = secondsWithoutBreaks(sinceMs, ms, record.breaks);
      if (seconds > CORNER_STAND_SECONDS) stands.push({ zone, startMs: sinceMs, seconds });
    }
    sinceMs = null;
  };
  for (const { type, ms, payload } of record.facts) {
    if (ms > end) break;
    if (type === "zone" || type === "depart" || type === "return") {
      const to = type === "zone" ? payload.zone : payload.to;
      if (typeof to !== "string" || to === "") continue;
      settle(ms);
      zone = edges.has(to) ? to : null;
      moving = false;
      if (zone !== null) sinceMs = ms;
    } else if (type === "gait") {
      const still = payload.gait === STANDING;
      if (!still) settle(ms);
      else if (moving && zone !== null) sinceMs ??= ms;
      moving = !still;
    }
  }
  settle(end);
  return stands;
}

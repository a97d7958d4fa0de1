import "server-only";
import type { SidePicture } from "@/core/compare";
import { poissonInterval } from "@/core/evidence";
import {
  addSigns,
  type Connection,
  connectionOf,
  type FirstLook,
  type ReliefMap,
  reliefMap,
  type SessionRelief,
  type SignCounts,
  type Touch,
} from "@/core/know";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { type DigestedSession, digestsOfHorse, getPlace, getSettings, type HorseRow, type Store, type StoredPlace } from "@/store";
import { sidesIn } from "./sides-of";

/** Looks at a beep below which an earlier, longer watch is shown instead. */
const LEAST_LOOKS = 10;
/** How far back the body map, places, watching and signs are read. */
export const LOOK_BACK_DAYS = 365;

/** A first look with its session. */
export interface DatedLook {
  readonly sessionId: string;
  readonly startedMs: number;
  readonly look: FirstLook;
}

/** The relief of one place. */
export interface PlaceRelief {
  readonly place: StoredPlace;
  readonly relief: ReliefMap;
  readonly sessions: readonly SessionRelief[];
}

/** A rate read off several readings together; null where there is none. */
export interface PooledBreathing {
  readonly perMinute: number;
  readonly interval: readonly [number, number];
  readonly readings: number;
}

/** Everything the sessions show of a horse, before any plan. */
export interface HorsePicture {
  readonly sides: SidePicture;
  /** Over how many days the sides are compared. */
  readonly sidesDays: number;
  readonly touches: readonly Touch[];
  /** Newest first. */
  readonly looks: readonly DatedLook[];
  /** Places where zones were tapped, the one with most time first. */
  readonly places: readonly PlaceRelief[];
  readonly connection: { readonly startedMs: number; readonly beepSeconds: number | null; readonly result: Connection } | null;
  readonly restSigns: SignCounts;
  readonly workSigns: SignCounts;
  readonly breathing: PooledBreathing | null;
  readonly heart: { readonly perMinute: number; readonly readings: number } | null;
  /** Departures in the last sides window: a horse that leaves. */
  readonly departures: number;
}

async function placesOf(store: Store, digests: readonly DigestedSession[]): Promise<PlaceRelief[]> {
  const byPlace = new Map<string, SessionRelief[]>();
  for (const { session, digest } of digests) {
    if (session.place_id === null || digest.relief.zones.length === 0) continue;
    byPlace.set(session.place_id, [...(byPlace.get(session.place_id) ?? []), digest.relief]);
  }
  const list = await Promise.all(
    [...byPlace].map(async ([id, sessions]) => ({ place: await getPlace(store, id), relief: reliefMap(sessions), sessions })),
  );
  const seconds = ({ relief }: PlaceRelief) => relief.zones.reduce((sum, zone) => sum + zone.seconds, 0);
  return list.sort((a, b) => seconds(b) - seconds(a));
}

function breathingOf(digests: readonly DigestedSession[]): PooledBreathing | null {
  const readings = digests.filter(({ digest }) => digest.atRest).flatMap(({ digest }) => digest.breaths);
  const breaths = readings.reduce((sum, one) => sum + one.breaths, 0);
  const minutes = readings.reduce((sum, one) => sum + one.seconds, 0) / 60;
  if (!(minutes > 0)) return null;
  return { perMinute: breaths / minutes, interval: poissonInterval(breaths, minutes), readings: readings.length };
}

/** Reads the digests of a horse's sessions into one picture. Cost grows with the sessions of a year. */
export async function horsePicture(store: Store, horse: HorseRow): Promise<HorsePicture> {
  const now = store.now();
  const { sidesDays } = await getSettings(store);
  const digests = await digestsOfHorse(store, horse.id, now - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY);
  const recent = digests.filter(({ startedMs }) => startedMs >= now - sidesDays * MILLISECONDS_PER_DAY);
  // A watch broken off after a few looks does not hide a whole one before it.
  const watched =
    digests.findLast(({ digest }) => digest.samples.length >= LEAST_LOOKS) ?? digests.findLast(({ digest }) => digest.samples.length > 0);
  const beats = digests.filter(({ digest }) => digest.atRest).flatMap(({ digest }) => digest.heart);
  return {
    sidesDays,
    sides: sidesIn(recent),
    touches: digests.flatMap(({ digest }) => digest.touches),
    looks: digests
      .flatMap(({ session, startedMs, digest }) =>
        digest.firstLook === null || digest.firstLook.stepsDone === 0 ? [] : [{ sessionId: session.id, startedMs, look: digest.firstLook }],
      )
      .reverse(),
    places: await placesOf(store, digests),
    connection:
      watched === undefined
        ? null
        : { startedMs: watched.startedMs, beepSeconds: watched.digest.beepSeconds, result: connectionOf(watched.digest.samples) },
    restSigns: addSigns(digests.filter(({ digest }) => digest.atRest).map(({ digest }) => digest.signs)),
    workSigns: addSigns(
      digests.filter(({ session, digest }) => session.kind === "work" && digest.trials > 0).map(({ digest }) => digest.signs),
    ),
    breathing: breathingOf(digests),
    heart: beats.length === 0 ? null : { perMinute: beats.reduce((sum, b) => sum + b.perMinute, 0) / beats.length, readings: beats.length },
    departures: recent.reduce((sum, { digest }) => sum + digest.relief.departures, 0),
  };
}

import "server-only";
import type { SidePicture } from "@/core/compare";
import { worksLadders } from "@/core/events";
import {
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
import { breathingOver, type PooledBreathing } from "@/core/welfare";
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
  /** Signs of danger or pain in it, by name. */
  readonly danger: readonly string[];
}

/** The relief of one place. */
export interface PlaceRelief {
  readonly place: StoredPlace;
  readonly relief: ReliefMap;
  readonly sessions: readonly SessionRelief[];
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
  /** Session by session. */
  readonly restSigns: readonly SignCounts[];
  readonly workSigns: readonly SignCounts[];
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

/** Signs of danger and pain by name; those nobody named as what they were tapped for. */
function stopNames({ byClass, byName }: SignCounts): string[] {
  return (["danger", "pain"] as const).flatMap((kind) => {
    const names = Object.keys(byName[kind] ?? {});
    return names.length > 0 ? names : (byClass[kind] ?? 0) > 0 ? [kind] : [];
  });
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
        digest.firstLook === null || digest.firstLook.stepsDone === 0
          ? []
          : [{ sessionId: session.id, startedMs, look: digest.firstLook, danger: stopNames(digest.signs) }],
      )
      .reverse(),
    places: await placesOf(store, digests),
    connection:
      watched === undefined
        ? null
        : { startedMs: watched.startedMs, beepSeconds: watched.digest.beepSeconds, result: connectionOf(watched.digest.samples) },
    restSigns: digests.filter(({ digest }) => digest.atRest).map(({ digest }) => digest.signs),
    workSigns: digests.filter(({ session, digest }) => worksLadders(session.kind) && digest.trials > 0).map(({ digest }) => digest.signs),
    breathing: breathingOver(digests.filter(({ digest }) => digest.atRest).flatMap(({ digest }) => digest.breaths)),
    heart: beats.length === 0 ? null : { perMinute: beats.reduce((sum, b) => sum + b.perMinute, 0) / beats.length, readings: beats.length },
    departures: recent.reduce((sum, { digest }) => sum + digest.relief.departures, 0),
  };
}

import type { CircleForm, KitStage, Ways } from "../events/circle-plan";
import type { SessionRecord } from "../record";
import { circleFigures, USUAL_SPEED_MPS } from "./mechanics";
import { type CircleWork, circleWorkOf, type Direction, wasPoor } from "./work";

/** What is kept of a session on the circle beside it: what the load book, the caps, the ramp and the curves over weeks read. */
export interface CircleDigest {
  readonly form: CircleForm;
  readonly ways: Ways;
  readonly radius: number | null;
  /** Seconds by gait and side: "walk L". */
  readonly seconds: Readonly<Record<string, number>>;
  /** Whole laps that were tapped, by gait and side. */
  readonly laps: Readonly<Record<string, number>>;
  /** Speeds counted from laps, by gait, in m/s. */
  readonly speeds: Readonly<Record<string, number>>;
  readonly metres: number;
  /** v²/(g·r)·minutes; null without a radius. */
  readonly dose: number | null;
  readonly obstacles: boolean;
  readonly kit: string | null;
  readonly stage: KitStage | null;
  /** What was not ticked of the fit before; absent without kit, and where nothing was looked at. */
  readonly fitOpen?: readonly string[];
  readonly poor: boolean;
  readonly easy: boolean | null;
  readonly planned: number;
  /** Transitions: to, side, seconds until it came or null, seconds waited, on voice alone, asks. */
  readonly transitions: readonly (readonly [
    to: string,
    side: "L" | "R",
    came: number | null,
    waited: number,
    voice: 0 | 1,
    asks: number,
  ])[];
  readonly faults: Readonly<Record<string, number>>;
  readonly slack: readonly [times: number, seconds: number];
  readonly directions: readonly Direction[];
  readonly overrides: readonly string[];
  /** Where nobody has ended it: what its plan still runs, from when on the wall clock, seconds by gait and side in order; see {@link digestAt}. */
  readonly running?: { readonly sinceMs: number; readonly toCome: readonly (readonly [gaitSide: string, seconds: number])[] };
  /** Breathing on the way down: wall clock and a minute. */
  readonly cool: {
    readonly readings: readonly (readonly [number, number])[];
    readonly ended: "cooled" | "left" | null;
    readonly reason: string | null;
    readonly handedTo: string | null;
  } | null;
}

const tenth = (value: number) => Math.round(value * 10) / 10;
const rounded = (of: Readonly<Record<string, number>>, by: (value: number) => number) =>
  Object.fromEntries(Object.entries(of).map(([key, value]) => [key, by(value)]));

/** @example digestOfWork(circleWorkOf(record)) */
export const digestOfWork = (work: CircleWork): CircleDigest => ({
  form: work.form,
  ways: work.plan.ways,
  radius: work.plan.radiusMetres,
  seconds: rounded(work.seconds, Math.round),
  laps: work.laps,
  speeds: rounded(work.speedMps, (mps) => Math.round(mps * 100) / 100),
  metres: Math.round(work.distanceMetres),
  dose: work.turning === null ? null : tenth(work.turning.doseGMinutes),
  obstacles: work.plan.obstacles.length > 0,
  kit: work.kit,
  stage: work.kitStage,
  ...(work.kit === null || work.fitOpen === null ? {} : { fitOpen: work.fitOpen }),
  poor: wasPoor(work),
  easy: work.easy,
  planned: work.plan.segments.reduce((sum, { minutes }) => sum + minutes, 0),
  transitions: work.transitions.map(({ to, side, cameAfterSeconds, waitedSeconds, aids }) => [
    to,
    side,
    cameAfterSeconds === null ? null : tenth(cameAfterSeconds),
    tenth(waitedSeconds),
    aids.every((aid) => aid === "voice") ? 1 : 0,
    aids.length,
  ]),
  faults: work.faults,
  slack: [work.slack.times, Math.round(work.slack.seconds)],
  directions: work.directions,
  overrides: work.overrides.map(({ key }) => key),
  ...(work.running === null
    ? {}
    : {
        running: {
          sinceMs: work.running.sinceWallMs,
          toCome: work.running.toCome.map(({ gait, side, seconds }) => [`${gait} ${side}`, Math.round(seconds)] as const),
        },
      }),
  cool:
    work.cool === null
      ? null
      : {
          readings: work.cool.readings.map(({ wallMs, perMinute }) => [wallMs, tenth(perMinute)]),
          ended: work.cool.ended,
          reason: work.cool.reason,
          handedTo: work.cool.handedTo,
        },
});

/**
 * The digest of a session, or null where it is none on the circle.
 * @example circleDigestOf(record) // { form: "circle", ways: "both", radius: 10, … }
 */
export function circleDigestOf(record: SessionRecord): CircleDigest | null {
  const work = circleWorkOf(record);
  return work === null ? null : digestOfWork(work);
}

/**
 * A digest at a moment. A session that nobody ended counts as its plan runs, to
 * its end: a phone that fell dark on the way does not make the work undone.
 * How it went is not known before it is ended: neither ramp nor kit goes by it.
 * @example digestAt(digest, nowMs).seconds // of one that was ended: as they were
 */
export function digestAt(digest: CircleDigest, nowMs: number): CircleDigest {
  const { running, ...ended } = digest;
  if (running === undefined) return digest;
  const seconds: Record<string, number> = { ...digest.seconds };
  let { metres, dose } = digest;
  let left = Math.max(0, (nowMs - running.sinceMs) / 1000);
  for (const [key, long] of running.toCome) {
    const ran = Math.min(long, left);
    left -= ran;
    if (ran === 0) continue;
    const gait = key.slice(0, key.lastIndexOf(" "));
    const speedMps = digest.speeds[gait] ?? USUAL_SPEED_MPS[gait] ?? 0;
    seconds[key] = (seconds[key] ?? 0) + ran;
    metres += speedMps * ran;
    if (digest.radius !== null && dose !== null && speedMps > 0)
      dose += circleFigures({ radiusMetres: digest.radius, speedMps, minutes: ran / 60 }).turningDoseGMinutes;
  }
  return { ...ended, seconds: rounded(seconds, Math.round), metres: Math.round(metres), dose: dose === null ? null : tenth(dose) };
}

/** Seconds in motion of a digest. @example movingSecondsOf({ … }) // 662 */
export const movingSecondsOf = ({ seconds }: Pick<CircleDigest, "seconds">): number =>
  Object.entries(seconds).reduce((sum, [key, value]) => (key.startsWith("stand ") ? sum : sum + value), 0);

/**
 * Whether the walk at the end was easy the last time to each hand: where the
 * hands take turns by the day, both may then come into one session.
 * @param digests oldest first.
 * @example easyBothWays([{ seconds: { "walk L": 600 }, easy: true }]) // false
 */
export function easyBothWays(digests: readonly Pick<CircleDigest, "seconds" | "easy">[]): boolean {
  const last = (side: "L" | "R") => digests.findLast((digest) => sideOfDigest(digest) === side)?.easy ?? false;
  return last("L") && last("R");
}

/**
 * The way a session went: "both" where each had a tenth of the time at least; null where nothing moved.
 * @example sideOfDigest({ seconds: { "walk R": 600 }, easy: true }) // "R"
 */
export function sideOfDigest({ seconds }: Pick<CircleDigest, "seconds">): "L" | "R" | "both" | null {
  const of = (side: "L" | "R") =>
    Object.entries(seconds).reduce((sum, [key, value]) => (key.startsWith("stand ") || !key.endsWith(` ${side}`) ? sum : sum + value), 0);
  const [left, right] = [of("L"), of("R")];
  if (left + right === 0) return null;
  if (left < 0.1 * (left + right)) return "R";
  return right < 0.1 * (left + right) ? "L" : "both";
}

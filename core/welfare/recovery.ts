import { DEFAULT_SETTINGS } from "../settings/registry";
import {
  ABOVE_HEART_WORDS,
  ANY_HORSE_DOWN_PER_MINUTE,
  aboveHeart,
  COOL_CELSIUS,
  downLimit,
  HEART_DOWN_PER_MINUTE,
  notFallen,
  type Reading,
  restingQuestion,
  twiceDown,
  usableResting,
} from "./breath-down";

/** A breathing rate at a moment. */
export interface BreathingReading {
  readonly wallMs: number;
  readonly perMinute: number;
}

/** How a horse came down after work. */
export interface Recovery {
  readonly readings: readonly BreathingReading[];
  /** Minutes until half of the rise above resting was gone; null where three readings are not there or they show no fall. */
  readonly halfTimeMinutes: number | null;
  /** Rate after the first reading fitted, in breaths a minute; null with the half-time. */
  readonly startPerMinute: number | null;
  /** The most breaths a minute that are down: of this horse, or, where its resting rate is not known, of any. */
  readonly limitPerMinute: number;
  /** Whether that is this horse's own. */
  readonly ownLimit: boolean;
  /** Whether breath is down, by two counts three minutes apart, and heart and temperature where they are asked; null where that cannot be told. */
  readonly down: boolean | null;
  /** Breathing stood above the heart rate: it stops for today. */
  readonly aboveHeart: boolean;
  /** Ten minutes later it had not clearly fallen. */
  readonly callVet: boolean;
  readonly sentence: string;
}

/** What stands around the counts. */
export interface RecoveryAround {
  /** Heart rates, a minute. */
  readonly hearts?: readonly Reading[];
  /** The last temperature taken, in °C; null or left out where none was. */
  readonly celsius?: number | null;
  /** Hard work, or heat: heart and temperature are asked then. */
  readonly hard?: boolean;
  /** Whether it is hot: the words are then shade, water and air. */
  readonly hot?: boolean;
  /** How far above resting is still down, as a share of it: a setting of the yard. */
  readonly withinShare?: number;
}

/** Down when within this share of the horse's own resting rate, or eight a minute (a default; common practice, no source). */
export const COOLED_WITHIN_SHARE = DEFAULT_SETTINGS.coolWithinShare;

/**
 * Recovery of breathing toward the resting rate: an exponential fall fitted to
 * the rates themselves by least squares, from three readings on. Half-time =
 * ln 2 / k. Logarithms would let the last readings, near resting and so least
 * known, weigh most. Breath is down by two counts three minutes apart, both at
 * most the larger of a share and eight a minute over resting; after hard work
 * or in heat also with the heart under 60, and under 39 °C where it was taken
 * (common practice, no source).
 * @param readings in any order; rates in breaths a minute.
 * @param restingPerMinute the horse's own resting rate, or null where it is not known. One over 24 is not used.
 * @example recoveryOf([{ wallMs: 0, perMinute: 14 }], 11).down // false: one count decides nothing
 */
export function recoveryOf(readings: readonly BreathingReading[], restingPerMinute: number | null, around: RecoveryAround = {}): Recovery {
  const judged = judge(readings, restingPerMinute, around);
  const { sorted, limit, fit, breathDown, heartWanted, warm, above, callVet } = judged;
  const told = sorted.length > 0 && (judged.resting !== null || breathDown);
  return {
    readings: sorted,
    halfTimeMinutes: fit?.halfTimeMinutes ?? null,
    startPerMinute: fit?.startPerMinute ?? null,
    limitPerMinute: limit,
    ownLimit: judged.resting !== null,
    down: told ? breathDown && !heartWanted && !warm : null,
    aboveHeart: above,
    callVet,
    sentence: sentenceOf(judged),
  };
}

function judge(
  readings: readonly BreathingReading[],
  restingPerMinute: number | null,
  { hearts = [], celsius = null, hard = false, hot = false, withinShare = COOLED_WITHIN_SHARE }: RecoveryAround,
) {
  const sorted = [...readings].sort((a, b) => a.wallMs - b.wallMs);
  const resting = usableResting(restingPerMinute);
  const limit = resting === null ? ANY_HORSE_DOWN_PER_MINUTE : downLimit(resting, withinShare);
  const heart = [...hearts].sort((a, b) => a.wallMs - b.wallMs).at(-1)?.perMinute ?? null;
  return {
    sorted,
    restingPerMinute,
    resting,
    limit,
    fit: resting === null ? null : fall(sorted, resting),
    breathDown: twiceDown(sorted, limit),
    heart,
    heartWanted: hard && (heart === null || heart >= HEART_DOWN_PER_MINUTE),
    celsius,
    warm: hard && celsius !== null && celsius >= COOL_CELSIUS,
    above: aboveHeart(sorted, hearts).length > 0,
    callVet: notFallen(sorted, hearts),
    hot,
  };
}

/** Half-times looked at, in minutes: what falls faster or slower than breaths show is no fall that was seen. */
const SHORTEST_HALF_TIME = 0.25;
const LONGEST_HALF_TIME = 120;
const STEPS = 400;

/**
 * Least squares of resting + A·e^(−kt) on the rates themselves. For each k the
 * best A is known, Σ(y − resting)e^(−kt)/Σe^(−2kt), so one number is looked
 * for: by steps of k that grow evenly, then by thirds about the best.
 */
function fall(sorted: readonly BreathingReading[], resting: number): { halfTimeMinutes: number; startPerMinute: number } | null {
  const first = sorted[0];
  if (first === undefined || sorted.length < 3 || first.perMinute <= resting) return null;
  const points = sorted.map(({ wallMs, perMinute }) => [(wallMs - first.wallMs) / 60_000, perMinute - resting] as const);
  const riseAt = (k: number) =>
    points.reduce((sum, [t, y]) => sum + y * Math.exp(-k * t), 0) / points.reduce((sum, [t]) => sum + Math.exp(-2 * k * t), 0);
  const errorAt = (k: number) => {
    const rise = riseAt(k);
    return points.reduce((sum, [t, y]) => sum + (y - rise * Math.exp(-k * t)) ** 2, 0);
  };
  const fastest = Math.LN2 / SHORTEST_HALF_TIME;
  const slowest = Math.LN2 / LONGEST_HALF_TIME;
  const stepUp = (fastest / slowest) ** (1 / STEPS);
  let best = 0;
  for (let i = 1; i <= STEPS; i++) if (errorAt(slowest * stepUp ** i) < errorAt(slowest * stepUp ** best)) best = i;
  if (best === 0 || best === STEPS) return null;
  let low = slowest * stepUp ** (best - 1);
  let high = slowest * stepUp ** (best + 1);
  while (high - low > 1e-10 * high) {
    const third = (high - low) / 3;
    if (errorAt(low + third) < errorAt(high - third)) high -= third;
    else low += third;
  }
  const k = (low + high) / 2;
  const rise = riseAt(k);
  return rise > 0 ? { halfTimeMinutes: Math.LN2 / k, startPerMinute: resting + rise } : null;
}

function sentenceOf(judged: ReturnType<typeof judge>): string {
  const { restingPerMinute, resting, limit, heart } = judged;
  const last = judged.sorted.at(-1);
  if (last === undefined) return "No breathing taken yet.";
  const rate = `${Math.round(last.perMinute)} breaths a minute`;
  if (judged.callVet) return `${rate}. It hasn't clearly fallen in ten minutes. Call the vet now. Go on cooling.`;
  if (judged.above) return `Breathing was above the heart rate. Stop for today. ${ABOVE_HEART_WORDS}`;
  const cooling = judged.hot ? "Shade, water over the whole body, moving air" : "Walk on";
  if (resting === null && last.perMinute > limit) {
    const unknown = restingQuestion(restingPerMinute) ?? "This horse's resting rate is not known; take it under Know.";
    return `${rate}. ${unknown} ${cooling}: ${limit} or fewer, twice, is down for any horse.`;
  }
  const half = judged.fit?.halfTimeMinutes ?? null;
  const fell = half === null ? "" : ` Half of the rise is gone about each ${half < 1 ? half.toFixed(1) : Math.round(half)} min.`;
  const rest = resting === null ? rate : `${rate}, ${Math.round(resting)} at rest`;
  if (last.perMinute > limit) return `${rest}: not down yet. ${cooling}, and count again in three minutes.${fell}`;
  if (!judged.breathDown) return `${rest}: nearly down. Count again in three minutes.${fell}`;
  if (judged.heartWanted)
    return heart === null
      ? `${rest}: breath is down. After hard work or heat, count the heart too: it should be under ${HEART_DOWN_PER_MINUTE}.`
      : `${rest}: breath is down, the heart is not: ${Math.round(heart)}, and it should be under ${HEART_DOWN_PER_MINUTE}. ${cooling}, and count again in three minutes.`;
  if (judged.warm)
    return `${rest}: breath is down, but ${judged.celsius} °C is still warm. Go on cooling until it is under ${COOL_CELSIUS} °C.`;
  return `${rest}: breath is down.${fell}`;
}

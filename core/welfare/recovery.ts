import { DEFAULT_SETTINGS } from "../settings/registry";

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
  readonly cooled: boolean | null;
  readonly callVet: boolean;
  readonly sentence: string;
}

/** Cooled when within this share of the horse's own resting rate (a default; common practice, no source). */
export const COOLED_WITHIN_SHARE = DEFAULT_SETTINGS.coolWithinShare;

/**
 * Recovery of breathing toward the resting rate: an exponential fall fitted to
 * the rates themselves by least squares, from three readings on. Half-time =
 * ln 2 / k. Logarithms would let the last readings, near resting and so least
 * known, weigh most.
 * @param readings in any order; rates in breaths a minute.
 * @param restingPerMinute the horse's own resting rate, or null where it is not known.
 * @param heartPerMinute heart rate at the last reading, or null. Breathing above heart rate: stop, cool, call the veterinarian.
 * @param withinShare how far above resting still is cooled, as a share of it: a setting of the yard.
 */
export function recoveryOf(
  readings: readonly BreathingReading[],
  restingPerMinute: number | null,
  heartPerMinute: number | null = null,
  withinShare: number = COOLED_WITHIN_SHARE,
): Recovery {
  const sorted = [...readings].sort((a, b) => a.wallMs - b.wallMs);
  const last = sorted.at(-1);
  const callVet = last !== undefined && heartPerMinute !== null && last.perMinute > heartPerMinute;
  const cooled = last === undefined || restingPerMinute === null ? null : last.perMinute <= restingPerMinute * (1 + withinShare);
  const fit = restingPerMinute === null ? null : fall(sorted, restingPerMinute);
  return {
    readings: sorted,
    halfTimeMinutes: fit?.halfTimeMinutes ?? null,
    startPerMinute: fit?.startPerMinute ?? null,
    cooled,
    callVet,
    sentence: sentenceOf(last, restingPerMinute, cooled, callVet, fit?.halfTimeMinutes ?? null),
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

function sentenceOf(
  last: BreathingReading | undefined,
  resting: number | null,
  cooled: boolean | null,
  callVet: boolean,
  halfTime: number | null,
): string {
  if (last === undefined) return "No breathing taken yet.";
  const rate = `${Math.round(last.perMinute)} a minute`;
  if (callVet) return `${rate}, above the heart rate. Stop, cool the horse, call the veterinarian.`;
  const half =
    halfTime === null ? "" : ` Half of the rise is gone about each ${halfTime < 1 ? halfTime.toFixed(1) : Math.round(halfTime)} min.`;
  if (resting === null || cooled === null) return `${rate}. This horse's resting rate is not known; take it under Know.`;
  return cooled
    ? `${rate}, resting ${Math.round(resting)}: cooled down.${half}`
    : `${rate}, resting ${Math.round(resting)}: not cooled down yet; walk on and take it again.${half}`;
}

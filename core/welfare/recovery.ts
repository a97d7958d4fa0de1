/** A breathing rate at a moment. */
export interface BreathingReading {
  readonly wallMs: number;
  readonly perMinute: number;
}

/** How a horse came down after work. */
export interface Recovery {
  readonly readings: readonly BreathingReading[];
  /** Minutes until half of the rise above resting was gone; null where three readings above resting are not there or it does not fall. */
  readonly halfTimeMinutes: number | null;
  /** Rate after the first reading fitted, in breaths a minute; null with the half-time. */
  readonly startPerMinute: number | null;
  readonly cooled: boolean | null;
  readonly callVet: boolean;
  readonly sentence: string;
}

/** Cooled when within this share of the horse's own resting rate (a default; common practice, no source). */
export const COOLED_WITHIN_SHARE = 0.25;

/**
 * Recovery of breathing toward the resting rate: least squares of
 * ln(rate − resting) on time over the readings above resting, an exponential
 * fall. Half-time = ln 2 / decay, from three readings on.
 * @param readings in any order; rates in breaths a minute.
 * @param restingPerMinute the horse's own resting rate, or null where it is not known.
 * @param heartPerMinute heart rate at the last reading, or null. Breathing above heart rate: stop, cool, call the veterinarian.
 */
export function recoveryOf(
  readings: readonly BreathingReading[],
  restingPerMinute: number | null,
  heartPerMinute: number | null = null,
): Recovery {
  const sorted = [...readings].sort((a, b) => a.wallMs - b.wallMs);
  const last = sorted.at(-1);
  const callVet = last !== undefined && heartPerMinute !== null && last.perMinute > heartPerMinute;
  const cooled = last === undefined || restingPerMinute === null ? null : last.perMinute <= restingPerMinute * (1 + COOLED_WITHIN_SHARE);
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

function fall(sorted: readonly BreathingReading[], resting: number): { halfTimeMinutes: number; startPerMinute: number } | null {
  const first = sorted[0];
  const above = sorted.filter(({ perMinute }) => perMinute > resting);
  if (first === undefined || above.length < 3) return null;
  const points = above.map(({ wallMs, perMinute }) => [(wallMs - first.wallMs) / 60_000, Math.log(perMinute - resting)] as const);
  const meanX = points.reduce((sum, [x]) => sum + x, 0) / points.length;
  const meanY = points.reduce((sum, [, y]) => sum + y, 0) / points.length;
  const sxx = points.reduce((sum, [x]) => sum + (x - meanX) ** 2, 0);
  const sxy = points.reduce((sum, [x, y]) => sum + (x - meanX) * (y - meanY), 0);
  if (sxx === 0 || sxy >= 0) return null;
  const slope = sxy / sxx;
  return { halfTimeMinutes: Math.LN2 / -slope, startPerMinute: resting + Math.exp(meanY - slope * meanX) };
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
  const half = halfTime === null ? "" : ` Half of the rise is gone each ${halfTime < 1 ? halfTime.toFixed(1) : Math.round(halfTime)} min.`;
  if (resting === null || cooled === null) return `${rate}. This horse's resting rate is not known; take it under Know.`;
  return cooled
    ? `${rate}, resting ${Math.round(resting)}: cooled down.${half}`
    : `${rate}, resting ${Math.round(resting)}: not cooled down yet; walk on and take it again.${half}`;
}

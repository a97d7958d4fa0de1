import { type Interval, poissonInterval } from "../evidence";

/** The strand under which a heart rate is measured. */
export const HEART_STRAND = "heart rate";

/** A breathing rate from taps, in breaths a minute. */
export interface BreathingRate {
  readonly perMinute: number;
  /** 95 % interval of the rate, by Poisson counts. */
  readonly interval: Interval;
  readonly breaths: number;
  readonly seconds: number;
}

/**
 * Breathing rate from the moments of taps, one a breath, in milliseconds:
 * 60·(taps − 1)/(last − first). The first tap starts the clock and counts no breath.
 * @returns null under two taps or where they share one moment.
 */
export function breathingRate(tapsMs: readonly number[]): BreathingRate | null {
  const sorted = [...tapsMs].sort((a, b) => a - b);
  const first = sorted[0];
  const last = sorted.at(-1);
  if (first === undefined || last === undefined || last <= first) return null;
  const breaths = sorted.length - 1;
  const seconds = (last - first) / 1000;
  const minutes = seconds / 60;
  return { perMinute: breaths / minutes, interval: poissonInterval(breaths, minutes), breaths, seconds };
}

import { type Interval, student975 } from "../evidence";

/** The strand under which a heart rate is measured. */
export const HEART_STRAND = "heart rate";
/** The strand under which a body temperature is measured, in °C. */
export const TEMPERATURE_STRAND = "temperature";

/** Breaths tapped at a time, in sums that can be added up. */
export interface BreathSums {
  /** Intervals between taps: one a breath. */
  readonly breaths: number;
  readonly seconds: number;
  /** Sum of the squared intervals, in s². */
  readonly squares: number;
}

/** A breathing rate, in breaths a minute. */
export interface BreathingRate {
  readonly perMinute: number;
  /** 95 %, from how much the intervals between taps differ; null where they are too few or too uneven to tell. */
  readonly interval: Interval | null;
  readonly breaths: number;
  readonly seconds: number;
}

/**
 * Sums of the intervals between taps, one tap a breath, in milliseconds and any order.
 * @returns null under two taps or where they share one moment.
 * @example breathSums([0, 5000]) // { breaths: 1, seconds: 5, squares: 25 }
 */
export function breathSums(tapsMs: readonly number[]): BreathSums | null {
  const sorted = [...tapsMs].sort((a, b) => a - b);
  let seconds = 0;
  let squares = 0;
  for (let i = 1; i < sorted.length; i++) {
    const interval = ((sorted[i] as number) - (sorted[i - 1] as number)) / 1000;
    seconds += interval;
    squares += interval * interval;
  }
  return seconds > 0 ? { breaths: sorted.length - 1, seconds, squares } : null;
}

/** A rate from the mean and the spread of intervals: 60/(m̄ ± t₀.₉₇₅,ₙ₋₁·s/√n). */
function rateOf({ breaths: n, seconds, squares }: BreathSums): BreathingRate {
  const mean = seconds / n;
  const told = { perMinute: 60 / mean, breaths: n, seconds };
  if (n < 2) return { ...told, interval: null };
  const variance = Math.max(0, squares - n * mean * mean) / (n - 1);
  const reach = student975(n - 1) * Math.sqrt(variance / n);
  return { ...told, interval: reach < mean ? [60 / (mean + reach), 60 / (mean - reach)] : null };
}

/**
 * Breathing rate from the moments of taps: 60·(taps − 1)/(last − first), with
 * its interval from the intervals between taps. The first tap starts the clock
 * and counts no breath.
 * @returns null under two taps or where they share one moment.
 * @example breathingRate([0, 5000, 10_000])?.perMinute // 12
 */
export function breathingRate(tapsMs: readonly number[]): BreathingRate | null {
  const sums = breathSums(tapsMs);
  return sums === null ? null : rateOf(sums);
}

/** A rate over several readings. */
export interface PooledBreathing {
  readonly perMinute: number;
  readonly interval: Interval | null;
  readonly readings: number;
}

/** From so many readings on, days are told apart by their own spread. */
const FEWEST_READINGS = 3;

/**
 * A horse's breathing over readings: the mean of their rates with Student's
 * interval from three on, since days differ by more than breaths do. Of one
 * reading it is that reading's; of two there is none.
 * @returns null without a reading.
 * @example breathingOver([{ breaths: 2, seconds: 10, squares: 50 }]) // { perMinute: 12, interval: [12, 12], readings: 1 }
 */
export function breathingOver(readings: readonly BreathSums[]): PooledBreathing | null {
  const rates = readings.map(rateOf);
  const [first] = rates;
  const n = rates.length;
  if (first === undefined) return null;
  if (n === 1) return { perMinute: first.perMinute, interval: first.interval, readings: 1 };
  const mean = rates.reduce((sum, { perMinute }) => sum + perMinute, 0) / n;
  if (n < FEWEST_READINGS) return { perMinute: mean, interval: null, readings: n };
  const spread = rates.reduce((sum, { perMinute }) => sum + (perMinute - mean) ** 2, 0) / (n - 1);
  const reach = student975(n - 1) * Math.sqrt(spread / n);
  return { perMinute: mean, interval: [Math.max(0, mean - reach), mean + reach], readings: n };
}

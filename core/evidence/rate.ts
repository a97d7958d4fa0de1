import { type Interval, NORMAL_975 } from "./shares";
import { chiSquaredQuantile } from "./special";
import { student975 } from "./student";

/** Events seen in some time. `minutes` is above 0 where anything can be said. */
export interface CountedRate {
  readonly count: number;
  readonly minutes: number;
}

/**
 * Exact 95 % interval of a Poisson rate (Garwood 1936): from chi-squared
 * quantiles, χ²(0.025; 2n)/2 and χ²(0.975; 2n + 2)/2 over the exposure.
 * @param count events seen, a whole number from 0.
 * @param exposure the time or number they were seen in, above 0; the rate is per unit of it.
 * @throws RangeError where either is out of range.
 * @example poissonInterval(0, 1) // [0, …]
 */
export function poissonInterval(count: number, exposure: number): Interval {
  if (!Number.isInteger(count) || count < 0) throw new RangeError("poissonInterval: the count must be a whole number from 0");
  if (!(exposure > 0)) throw new RangeError("poissonInterval: the exposure must be above 0");
  return exactRateInterval(count, exposure);
}

/** The same for a count that need not be whole, as one made smaller by a design effect is not. */
function exactRateInterval(count: number, exposure: number): Interval {
  const low = count === 0 ? 0 : chiSquaredQuantile(0.025, 2 * count) / 2;
  const high = chiSquaredQuantile(0.975, 2 * count + 2) / 2;
  return [low / exposure, high / exposure];
}

/** A rate over sessions. */
export interface SessionRate {
  readonly count: number;
  readonly minutes: number;
  readonly perMinute: number;
  /** 95 %; null over two sessions, which say nothing of how days differ. Of one session it is of that session. */
  readonly interval: Interval | null;
  readonly sessions: number;
}

/**
 * A rate over sessions. What is counted comes in bouts and days, so its
 * variance is taken between sessions, V = k/(k−1)·Σ(cᵢ − r̂mᵢ)²/M², the design
 * effect is V/(r̂/M) and never under 1, and Garwood's interval is drawn with
 * count and time divided by it and by (t₀.₉₇₅,ₖ₋₁/1.96)², as for a share.
 * @param sessions those watched for no time are passed over.
 * @returns null where nothing was watched.
 * @example sessionRate([{ count: 3, minutes: 10 }])?.perMinute // 0.3
 */
export function sessionRate(sessions: readonly CountedRate[]): SessionRate | null {
  const watched = sessions.filter(({ minutes }) => minutes > 0);
  const k = watched.length;
  if (k === 0) return null;
  const count = watched.reduce((sum, one) => sum + one.count, 0);
  const minutes = watched.reduce((sum, one) => sum + one.minutes, 0);
  const rate = count / minutes;
  const told = { count, minutes, perMinute: rate, sessions: k };
  if (k === 1) return { ...told, interval: poissonInterval(count, minutes) };
  if (k === 2) return { ...told, interval: null };
  const spread = watched.reduce((sum, one) => sum + (one.count - rate * one.minutes) ** 2, 0);
  const variance = ((k / (k - 1)) * spread) / (minutes * minutes);
  const designEffect = count === 0 ? 1 : Math.max(1, variance / (rate / minutes));
  const shrink = designEffect * (student975(k - 1) / NORMAL_975) ** 2;
  return { ...told, interval: exactRateInterval(count / shrink, minutes / shrink) };
}

import { type Interval, NORMAL_975 } from "./shares";
import { chiSquaredQuantile } from "./special";

/** Asks that were a cue and asks (or moments) that were none, by whether the behaviour came. */
export interface Detection {
  readonly hits: number;
  readonly misses: number;
  readonly falseAlarms: number;
  readonly correctRejections: number;
}

/** How well two things are told apart, and which answer is given the more readily. */
export interface Sensitivity {
  /** d′: how far apart the two are, in spreads of what is perceived. 0: not told apart. */
  readonly dPrime: number;
  /** Criterion c: above 0 the behaviour comes rarely, below 0 readily, whichever it was. */
  readonly criterion: number;
  /** 95 % of d′. */
  readonly interval: Interval;
  /** Shares after half an answer was added to each count. */
  readonly hitShare: number;
  readonly falseAlarmShare: number;
}

/** The standard normal's point under which a share lies, 0 to 1 exclusive. */
function normalQuantile(share: number): number {
  if (share === 0.5) return 0;
  return Math.sign(share - 0.5) * Math.sqrt(chiSquaredQuantile(Math.abs(2 * share - 1), 1));
}

const normalDensity = (z: number) => Math.exp(-(z * z) / 2) / Math.sqrt(2 * Math.PI);

/**
 * d′ = z(H) − z(F) and c = −(z(H) + z(F))/2 of signal detection (Green & Swets
 * 1966, from memory), half an answer added to each of the four counts so that
 * shares of none and all have a value (log-linear; Hautus 1995, from memory).
 * The interval takes the variance H(1 − H)/(n·φ(z(H))²) + F(1 − F)/(m·φ(z(F))²)
 * (Gourevitch & Galanter 1967, from memory). It takes the asks as independent.
 * @throws RangeError where a count is no whole number from 0.
 * @returns null where there was no signal, or nothing else than signals.
 * @example sensitivity({ hits: 20, misses: 5, falseAlarms: 5, correctRejections: 20 })?.dPrime // 1.602
 */
export function sensitivity({ hits, misses, falseAlarms, correctRejections }: Detection): Sensitivity | null {
  for (const count of [hits, misses, falseAlarms, correctRejections])
    if (!Number.isInteger(count) || count < 0) throw new RangeError("sensitivity: a count must be a whole number from 0");
  const [signals, others] = [hits + misses, falseAlarms + correctRejections];
  if (signals === 0 || others === 0) return null;
  const hitShare = (hits + 0.5) / (signals + 1);
  const falseAlarmShare = (falseAlarms + 0.5) / (others + 1);
  const [zHit, zFalse] = [normalQuantile(hitShare), normalQuantile(falseAlarmShare)];
  const dPrime = zHit - zFalse;
  const variance = (share: number, z: number, n: number) => (share * (1 - share)) / (n * normalDensity(z) ** 2);
  const reach = NORMAL_975 * Math.sqrt(variance(hitShare, zHit, signals + 1) + variance(falseAlarmShare, zFalse, others + 1));
  return { dPrime, criterion: -(zHit + zFalse) / 2, interval: [dPrime - reach, dPrime + reach], hitShare, falseAlarmShare };
}

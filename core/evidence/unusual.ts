import type { CountedRate } from "./rate";
import { student975 } from "./student";

/** A session's rate against earlier ones. */
export interface Unusual {
  /** Earlier sessions taken in. */
  readonly sessions: number;
  readonly unusual: boolean;
  /** Above the usual, whether or not it is unusual. */
  readonly above: boolean;
}

/** Fewer earlier sessions than this make no usual. */
export const FEWEST_FOR_USUAL = 4;
/** A session shorter than this shows no rate, in minutes, where the yard has set no other. */
export const LEAST_MINUTES_FOR_RATE = 2;

/** Counts on a scale on which their spread hardly depends on how many there are (Anscombe 1948). */
const root = ({ count, minutes }: CountedRate) => Math.sqrt((count + 3 / 8) / minutes);

/**
 * Whether a session's rate lies outside what earlier sessions let expect: y =
 * √((count + 3/8)/minutes) by session, unusual where |y₀ − ȳ| is above
 * t₀.₉₇₅,ₖ₋₁ times s·√(1 + 1/k) (the prediction interval of one more, with
 * Student's t). s is at least what counts alone would give, 1/(2√minutes), so
 * that four sessions alike by chance make no narrow usual.
 * @param sessions earlier sessions in any order; those under `leastMinutes` are passed over.
 * @returns null where this session is too short or fewer than four earlier ones are there.
 * @example unusualRate({ count: 8, minutes: 10 }, sessions, 2) // { sessions: 5, unusual: true, above: true }
 */
export function unusualRate(
  here: CountedRate,
  sessions: readonly CountedRate[],
  leastMinutes: number = LEAST_MINUTES_FOR_RATE,
): Unusual | null {
  const earlier = sessions.filter(({ minutes }) => minutes >= leastMinutes);
  const k = earlier.length;
  if (k < FEWEST_FOR_USUAL || here.minutes < leastMinutes) return null;
  const roots = earlier.map(root);
  const mean = roots.reduce((sum, y) => sum + y, 0) / k;
  const spread = roots.reduce((sum, y) => sum + (y - mean) ** 2, 0) / (k - 1);
  const byCount = 1 / (4 * here.minutes) + earlier.reduce((sum, { minutes }) => sum + 1 / (4 * minutes), 0) / (k * k);
  const error = Math.sqrt(Math.max(spread * (1 + 1 / k), byCount));
  const away = root(here) - mean;
  return { sessions: k, unusual: Math.abs(away) > student975(k - 1) * error, above: away > 0 };
}

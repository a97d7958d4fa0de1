import { DEFAULT_SETTINGS } from "../settings/registry";

/** Minutes without a tap after which it is a pause, where nothing else is set. */
export const SILENCE_MINUTES = DEFAULT_SETTINGS.silenceMinutes;

/**
 * How much longer a silence may be while something goes on by itself: an ask
 * held, a stay, the horse away, a gait on the circle. Past that even those
 * were forgotten: a night is no stay.
 */
export const OPEN_SPAN_TIMES = 4;

/** The key by which a correction of the tap before a silence says that work went on. */
export const WENT_ON = "went_on";

/**
 * How long a silence after a tap stays work, in milliseconds.
 * A phone in a pocket and a horse that stands for ten minutes are silent too,
 * so shorter silences are work; a longer one is a pause from the last tap to
 * the next, unless the trainer says that they went on.
 * @param spanOpen whether an ask, a stay, a departure or a gait is going on.
 * @example silenceLimitMs(20, false, false) // 1 200 000
 */
export function silenceLimitMs(silenceMinutes: number, spanOpen: boolean, wentOn: boolean): number {
  if (wentOn) return Number.POSITIVE_INFINITY;
  return silenceMinutes * 60_000 * (spanOpen ? OPEN_SPAN_TIMES : 1);
}

import type { SessionRecord } from "./reduce";
import { workSeconds } from "./time";

/** Answers nobody asked for, beside those that came on cue. */
export interface Offers {
  readonly count: number;
  readonly perMinute: number | null;
  /** Share of all answers that came on cue; null where there was no answer at all. */
  readonly onCueShare: number | null;
  /** Offers that were a moving on after the release. */
  readonly afterRelease: number;
  readonly byEarned: Readonly<Record<string, number>>;
}

/** An offer within this long of the last release is a moving on after it (common practice, no source). */
export const MOVING_ON_SECONDS = 5;

/**
 * Offers of a session. Answers on cue are trials met or tried; an offer is
 * never a trial.
 * @example offersOf(record) // { count: 2, perMinute: 1, onCueShare: 0.5, … }
 */
export function offersOf(record: SessionRecord, nowMs: number | null = null): Offers {
  const minutes = workSeconds(record, nowMs) / 60;
  const onCue = record.trials.filter(({ outcome }) => outcome === "met" || outcome === "try").length;
  const byEarned: Record<string, number> = {};
  let afterRelease = 0;
  let at = 0;
  for (const fact of record.facts) {
    if (fact.type !== "offer") continue;
    const { earned } = fact.payload;
    if (earned !== undefined) byEarned[earned] = (byEarned[earned] ?? 0) + 1;
    while (at < record.trials.length && (record.trials[at]?.endMs ?? 0) <= fact.ms) at++;
    const before = record.trials[at - 1];
    if (before?.released && fact.ms - before.endMs <= MOVING_ON_SECONDS * 1000) afterRelease++;
  }
  const all = onCue + record.offers;
  return {
    count: record.offers,
    perMinute: minutes > 0 ? record.offers / minutes : null,
    onCueShare: all === 0 ? null : onCue / all,
    afterRelease,
    byEarned,
  };
}

import { breathingRate, HEART_STRAND } from "../welfare/breathing";
import type { BreathingReading } from "../welfare/recovery";
import type { SessionRecord } from "./reduce";

/** The last heart rate that was noted, a minute, or null. */
export function lastHeartRate({ facts }: Pick<SessionRecord, "facts">): number | null {
  const last = facts.findLast(({ type, payload }) => type === "measure" && payload.strand === HEART_STRAND);
  return last === undefined ? null : Number(last.payload.value);
}

/** Breathing rates taken since the work ended, oldest first; none where it has not ended. */
export function breathingAfterWork({ facts, finishMs, startWallMs }: SessionRecord): BreathingReading[] {
  if (finishMs === null) return [];
  return facts.flatMap(({ type, ms, payload }) => {
    const rate = type === "breath" && ms >= finishMs ? breathingRate(payload.taps_ms as readonly number[]) : null;
    return rate === null ? [] : [{ wallMs: (startWallMs ?? 0) + ms, perMinute: rate.perMinute }];
  });
}

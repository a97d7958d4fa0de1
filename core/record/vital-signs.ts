import { breathingRate, HEART_STRAND } from "../welfare/breathing";
import type { BreathingReading } from "../welfare/recovery";
import type { SessionRecord } from "./reduce";

/** The last heart rate that was noted, a minute, or null. */
export function lastHeartRate({ facts }: Pick<SessionRecord, "facts">): number | null {
  return facts.filter((fact) => fact.type === "measure").findLast(({ payload }) => payload.strand === HEART_STRAND)?.payload.value ?? null;
}

/** Breathing rates taken since the work ended, oldest first; none where it has not ended. */
export function breathingAfterWork({ facts, finishMs, startWallMs }: SessionRecord): BreathingReading[] {
  if (finishMs === null) return [];
  return facts.flatMap((fact) => {
    const rate = fact.type === "breath" && fact.ms >= finishMs ? breathingRate(fact.payload.taps_ms) : null;
    return rate === null ? [] : [{ wallMs: (startWallMs ?? 0) + fact.ms, perMinute: rate.perMinute }];
  });
}

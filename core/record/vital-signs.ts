import { breathingRate, HEART_STRAND, TEMPERATURE_STRAND } from "../welfare/breathing";
import type { BreathingReading } from "../welfare/recovery";
import type { SessionRecord } from "./reduce";

type Read = Pick<SessionRecord, "facts" | "startWallMs">;

const measured = ({ facts, startWallMs }: Read, strand: string): BreathingReading[] =>
  facts.flatMap((fact) =>
    fact.type === "measure" && fact.payload.strand === strand
      ? [{ wallMs: (startWallMs ?? 0) + fact.ms, perMinute: fact.payload.value }]
      : [],
  );

/** Heart rates that were noted, a minute, oldest first. @example heartReadings(record) // [{ wallMs: 1777885230000, perMinute: 60 }] */
export const heartReadings = (record: Read): BreathingReading[] => measured(record, HEART_STRAND);

/** The last temperature that was taken, in °C, or null. @example lastTemperature(record) // 38.2 */
export const lastTemperature = (record: Read): number | null => measured(record, TEMPERATURE_STRAND).at(-1)?.perMinute ?? null;

/**
 * Breathing rates counted in a session, a minute, oldest first.
 * @example breathReadings({ … }) // [{ wallMs: 1777885220000, perMinute: 60 }, …]
 */
export const breathReadings = ({ facts, startWallMs }: Read): BreathingReading[] =>
  facts.flatMap((fact) => {
    const rate = fact.type === "breath" ? breathingRate(fact.payload.taps_ms) : null;
    return rate === null ? [] : [{ wallMs: (startWallMs ?? 0) + fact.ms, perMinute: rate.perMinute }];
  });

/**
 * Those taken since the work ended; none where it has not ended.
 * @example breathingAfterWork(record) // [{ wallMs: 1777885270000, perMinute: 30 }, …]
 */
export function breathingAfterWork(record: Read & Pick<SessionRecord, "finishMs">): BreathingReading[] {
  const { finishMs } = record;
  if (finishMs === null) return [];
  return breathReadings(record).filter(({ wallMs }) => wallMs >= (record.startWallMs ?? 0) + finishMs);
}

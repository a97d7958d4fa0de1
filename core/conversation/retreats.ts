import type { SessionRecord } from "../record";

/** Approaches that ended in the handler moving away, as the horse's reinforcer. */
export interface Retreats {
  readonly count: number;
  /** Nearest the thing came, in metres; null where no distance was said. */
  readonly nearestMetres: number | null;
  readonly byZone: readonly { readonly zone: string; readonly count: number }[];
}

/** @returns null where there was none. @example retreatsOf(record)?.nearestMetres // 1.5 */
export function retreatsOf(record: SessionRecord): Retreats | null {
  const facts = record.facts.filter((fact) => fact.type === "retreat");
  if (facts.length === 0) return null;
  const metres = facts.flatMap(({ payload }) => (payload.distance_m === undefined ? [] : [payload.distance_m]));
  const zones = new Map<string, number>();
  for (const { payload } of facts) if (payload.zone !== undefined) zones.set(payload.zone, (zones.get(payload.zone) ?? 0) + 1);
  return {
    count: facts.length,
    nearestMetres: metres.length === 0 ? null : Math.min(...metres),
    byZone: [...zones].map(([zone, count]) => ({ zone, count })).sort((a, b) => b.count - a.count || (a.zone < b.zone ? -1 : 1)),
  };
}

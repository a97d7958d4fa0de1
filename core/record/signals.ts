import { type SignKind, stopsWork } from "../signs";
import type { SessionRecord, TimedFact } from "./reduce";

export type SignalClass = SignKind;

/** How many signs of a class were seen in the last seconds up to a moment. @example signsWithin(record, "tension", 1000, 60) // 0 */
export function signsWithin(record: Pick<SessionRecord, "facts">, kind: SignalClass, nowMs: number, seconds: number): number {
  let count = 0;
  for (let i = record.facts.length - 1; i >= 0; i--) {
    const fact = record.facts[i];
    if (fact === undefined) continue;
    if (fact.ms < nowMs - seconds * 1000) break;
    if (fact.type === "signal" && fact.payload.class === kind && fact.ms <= nowMs) count++;
  }
  return count;
}

/** How many signs of danger or pain a session has had. @example dangerSigns(record) // 1 */
export const dangerSigns = ({ facts }: Pick<SessionRecord, "facts">): number =>
  facts.filter((fact) => fact.type === "signal" && stopsWork(fact.payload.class)).length;

/**
 * The last sign of danger or pain that no stop card has answered yet, or null. A safety fact answers every sign before it.
 * @example openStopSign(record)
 */
export function openStopSign({ facts }: Pick<SessionRecord, "facts">): TimedFact<"signal"> | null {
  for (let i = facts.length - 1; i >= 0; i--) {
    const fact = facts[i];
    if (fact?.type === "safety") return null;
    if (fact?.type === "signal" && stopsWork(fact.payload.class)) return fact;
  }
  return null;
}

/** Its name, or null. @example openDanger(record) // "rears" */
export const openDanger = (record: Pick<SessionRecord, "facts">): string | null => openStopSign(record)?.payload.name ?? null;

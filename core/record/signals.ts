import type { SessionRecord } from "./reduce";

export type SignalClass = "ease" | "tension" | "danger" | "count";

/** How many signs of a class were seen in the last seconds up to a moment. */
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

/** How many danger signs a session has had. */
export const dangerSigns = ({ facts }: Pick<SessionRecord, "facts">): number =>
  facts.filter((fact) => fact.type === "signal" && fact.payload.class === "danger").length;

/** The name of the last danger sign no stop card has answered yet, or null. A safety fact answers every sign before it. */
export function openDanger({ facts }: Pick<SessionRecord, "facts">): string | null {
  for (let i = facts.length - 1; i >= 0; i--) {
    const fact = facts[i];
    if (fact?.type === "safety") return null;
    if (fact?.type === "signal" && fact.payload.class === "danger") return fact.payload.name;
  }
  return null;
}

import { type SessionRecord, slimTrial } from "@/core/record";
import type { PutRightRecord } from "./put-right";

/**
 * What of a record goes to the browser: what it draws and changes there. The
 * words and numbers of every tap stay with the server, and a trial goes once,
 * without what it does not hold.
 */
export function sentRecord(record: SessionRecord) {
  const { header, startWallMs, finishMs, lastMs, blocks, openAsk, timeLine } = record;
  const trials = record.trials.map(slimTrial);
  const ofTrials = new Set(record.trials.flatMap(({ eventId, eventIds }) => [eventId, ...eventIds]));
  const right: PutRightRecord = {
    header,
    startWallMs,
    finishMs,
    lastMs,
    blocks,
    trials,
    facts: record.facts.flatMap(({ id, type, ms }) => (ofTrials.has(id) ? [] : [{ id, type, ms }])),
  };
  const drawn = { blocks, openAsk, finishMs, timeLine, facts: record.facts.filter(({ type }) => type === "signal") };
  return { trials, drawn, right };
}

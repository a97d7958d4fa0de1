import type { Transaction } from "sequelize";
import { knowDigest } from "@/core/know";
import { blockSeconds, evidenceOfSession, isEmptySession, reduceSession, workSeconds } from "@/core/session";
import { clockOffsets, eventsOfSession } from "./events";
import type { BlockRow, RungSideSummaryRow, SessionSummaryRow } from "./models";
import { getWordSettings } from "./settings";
import type { StoreParts } from "./store";

/** What a session's events come to, as the cache tables hold it. */
export interface CachedRows {
  readonly summary: SessionSummaryRow;
  readonly blocks: readonly BlockRow[];
  readonly rungSides: readonly RungSideSummaryRow[];
}

/** Works a session's cache rows out from its events. Reads only. Cost grows as n·log n with the session's events. */
export async function cachedRows(store: StoreParts, sessionId: string, transaction?: Transaction): Promise<CachedRows> {
  const { events, position } = await eventsOfSession(store, sessionId, 0, transaction);
  const { silenceMinutes } = await getWordSettings(store);
  const record = reduceSession(events, { offsetMsByLoad: await clockOffsets(store, events, transaction), silenceMinutes });
  const evidence = evidenceOfSession(sessionId, record);
  const trialsOf = (index: number) => record.trials.filter((trial) => trial.blockIndex === index);
  const sums = new Map<string, RungSideSummaryRow>();
  for (const trial of evidence) {
    if (trial.kind !== "work") continue;
    const key = `${trial.ladder}|${trial.version}|${trial.rung}|${trial.side ?? ""}`;
    const sum = sums.get(key) ?? {
      session_id: sessionId,
      ladder_id: trial.ladder,
      version: trial.version,
      rung: trial.rung,
      side: trial.side ?? "",
      n: 0,
      met: 0,
      met_at_lightest: 0,
    };
    sum.n++;
    if (trial.outcome === "met") sum.met++;
    if (trial.outcome === "met" && trial.phase === 1) sum.met_at_lightest++;
    sums.set(key, sum);
  }
  return {
    summary: {
      session_id: sessionId,
      last_position: position,
      started_ms: record.startWallMs,
      finished: record.finishMs !== null,
      seen: !isEmptySession(record),
      work_s: workSeconds(record),
      n: record.trials.length,
      met: record.trials.filter((trial) => trial.outcome === "met").length,
      record: JSON.stringify(record),
      evidence: JSON.stringify(evidence),
      digest: JSON.stringify(knowDigest(record)),
    },
    blocks: record.blocks.map((b, index) => ({
      session_id: sessionId,
      position: index,
      number: b.number,
      behaviour: b.behaviour,
      ladder_id: b.ladder,
      version: b.version,
      rung: b.rung,
      side: b.side,
      kind: b.kind,
      seconds: blockSeconds(record, index),
      n: trialsOf(index).length,
      met: trialsOf(index).filter((trial) => trial.outcome === "met").length,
    })),
    rungSides: [...sums.values()],
  };
}

async function writeCaches(store: StoreParts, sessionId: string, transaction: Transaction): Promise<void> {
  const { sessionSummary, block, rungSideSummary } = store.models;
  const { summary, blocks, rungSides } = await cachedRows(store, sessionId, transaction);
  for (const table of [block, rungSideSummary]) await (table as typeof block).destroy({ where: { session_id: sessionId }, transaction });
  await sessionSummary.upsert(summary, { transaction });
  await block.bulkCreate([...blocks], { transaction });
  await rungSideSummary.bulkCreate([...rungSides], { transaction });
}

/** Makes the caches of these sessions anew from their events, a transaction each, so that taps get in between. */
export async function refreshCaches(store: StoreParts, sessionIds: readonly string[]): Promise<void> {
  for (const id of sessionIds) await store.writer.write((transaction) => writeCaches(store, id, transaction));
}

/** Throws every cache away and makes it anew. @returns how many sessions were summed up. */
export async function rebuildCaches(store: StoreParts): Promise<number> {
  const ids = (await store.models.session.findAll({ attributes: ["id"] })).map((row) => String(row.get("id")));
  await store.writer.write(async (transaction) => {
    const { sessionSummary, block, rungSideSummary } = store.models;
    await sessionSummary.destroy({ where: {}, transaction });
    await block.destroy({ where: {}, transaction });
    await rungSideSummary.destroy({ where: {}, transaction });
    for (const id of ids) await writeCaches(store, id, transaction);
  });
  return ids.length;
}

const LAGS = `COALESCE(c.last_position, -1) < COALESCE((SELECT MAX(e.position) FROM event e WHERE e.session_id = s.id), 0)`;

/** Sessions whose caches lag behind their events, or have none: of these ids, or of all. */
export async function laggingSessions(store: StoreParts, ids?: readonly string[]): Promise<string[]> {
  if (ids?.length === 0) return [];
  const [rows] = (await store.sequelize.query(
    `SELECT s.id AS id FROM session s LEFT JOIN session_summary c ON c.session_id = s.id
     WHERE s.binned_ms IS NULL AND ${ids === undefined ? "" : "s.id IN (:ids) AND"} ${LAGS}`,
    { replacements: { ids: [...(ids ?? [])] } },
  )) as [{ id: string }[], unknown];
  return rows.map((row) => row.id);
}

/**
 * What the caches of these sessions should hold, for those that lag behind. A
 * page shows what is so without writing: on a full disk it still opens.
 */
export async function laggingRows(store: StoreParts, ids: readonly string[]): Promise<Map<string, CachedRows>> {
  const rows = new Map<string, CachedRows>();
  for (const id of await laggingSessions(store, ids)) rows.set(id, await cachedRows(store, id));
  return rows;
}

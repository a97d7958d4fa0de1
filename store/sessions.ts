import { Op, type Transaction } from "sequelize";
import { knowDigest } from "@/core/know";
import type { SessionEvent, SessionKind } from "@/core/schemas";
import {
  blockSeconds,
  carriedOver,
  type EvidenceTrial,
  evidenceOfSession,
  placeEvents,
  reduceSession,
  type SessionRecord,
  workSeconds,
} from "@/core/session";
import { getHorse } from "./horses";
import { carriedRungs, getLadder } from "./ladders";
import type { EventRow, SessionRow, SessionSummaryRow } from "./models";
import { NotFoundError, plain } from "./rows";
import type { Store } from "./store";

/** What a new session is: one horse, one handler, one place, and for work one ladder to begin with. */
export interface NewSession {
  readonly id: string;
  readonly horseId: string;
  readonly kind?: SessionKind;
  /** Null where the session is not work on a ladder. */
  readonly ladderId: string | null;
  readonly personId: string | null;
  readonly placeId: string | null;
  readonly startRung: number | null;
  readonly kitIds?: readonly string[];
}

/** Where a session comes from and when it was made. */
export interface SessionOptions {
  readonly sample?: boolean;
  readonly createdMs?: number;
}

async function sessionRow(store: Store, input: NewSession, options: SessionOptions): Promise<SessionRow> {
  await getHorse(store, input.horseId);
  const ladder = input.ladderId === null ? null : await getLadder(store, input.ladderId);
  if (ladder !== null && ladder.horseId !== input.horseId) throw new NotFoundError("This ladder belongs to another horse.");
  return {
    id: input.id,
    horse_id: input.horseId,
    person_id: input.personId,
    place_id: input.placeId,
    kind: input.kind ?? "work",
    ladder_id: input.ladderId,
    ladder_version: ladder?.version ?? null,
    start_rung: input.startRung,
    kit: JSON.stringify(input.kitIds ?? []),
    sample: options.sample ?? false,
    created_ms: options.createdMs ?? store.now(),
  };
}

/** Adds a session; asking again with the same id changes nothing. */
export async function addSession(store: Store, input: NewSession, options: SessionOptions = {}): Promise<void> {
  const row = await sessionRow(store, input, options);
  await store.writer.write((transaction) => store.models.session.findOrCreate({ where: { id: row.id }, defaults: row, transaction }));
}

/** Adds many sessions in one transaction: all of them or none. */
export async function addSessions(store: Store, inputs: readonly (NewSession & SessionOptions)[]): Promise<void> {
  const rows: SessionRow[] = [];
  for (const input of inputs) rows.push(await sessionRow(store, input, input));
  await store.writer.write((transaction) => store.models.session.bulkCreate(rows, { transaction }));
}

/** @throws NotFoundError where there is no such session. */
export async function getSession(store: Store, id: string): Promise<SessionRow> {
  const row = await store.models.session.findByPk(id);
  if (row === null) throw new NotFoundError("There is no such session.");
  return plain(row);
}

const eventOf = (row: EventRow): SessionEvent => ({
  id: row.id,
  session: row.session_id,
  recorder: row.recorder,
  load: row.load,
  seq: row.seq,
  mono_ms: row.mono_ms,
  wall_ms: row.wall_ms,
  type: row.type as SessionEvent["type"],
  payload: JSON.parse(row.payload) as Record<string, unknown>,
});

/** Events of a session after a position, in the order they were saved, with the last position. */
export async function eventsOfSession(
  store: Store,
  sessionId: string,
  after = 0,
  transaction?: Transaction,
): Promise<{ events: SessionEvent[]; position: number }> {
  const rows = (
    await store.models.event.findAll({
      where: { session_id: sessionId, position: { [Op.gt]: after } },
      order: [["position", "ASC"]],
      transaction,
    })
  ).map(plain);
  return { events: rows.map(eventOf), position: rows.at(-1)?.position ?? after };
}

/** The clock offsets of the page loads that recorded a session's events. */
export async function clockOffsets(store: Store, events: readonly SessionEvent[], transaction?: Transaction): Promise<Map<string, number>> {
  const loads = [...new Set(events.map((event) => event.load))];
  const rows = (await store.models.recorderClock.findAll({ where: { load: loads }, transaction })).map(plain);
  return new Map(rows.map((row) => [row.load, row.offset_ms]));
}

/** A session's events, its clocks and what they come to. */
export interface LoadedSession {
  readonly session: SessionRow;
  readonly events: readonly SessionEvent[];
  readonly position: number;
  readonly offsets: ReadonlyMap<string, number>;
  readonly record: SessionRecord;
}

/** @throws NotFoundError where there is no such session. */
export async function loadSession(store: Store, id: string): Promise<LoadedSession> {
  const session = await getSession(store, id);
  const { events, position } = await eventsOfSession(store, id);
  const offsets = await clockOffsets(store, events);
  return { session, events, position, offsets, record: reduceSession(events, { offsetMsByLoad: offsets }) };
}

/** Seconds from the start of work for every event, undone ones too, for events.csv. */
export function derivedSeconds({ events, offsets, record }: LoadedSession): Map<string, number> {
  const start = record.startWallMs ?? 0;
  return new Map(placeEvents(events, { offsetMsByLoad: offsets }).map(({ event, ms }) => [event.id, (ms - start) / 1000]));
}

async function writeCaches(store: Store, sessionId: string, transaction: Transaction): Promise<void> {
  const { sessionSummary, block, rungSideSummary } = store.models;
  const { events, position } = await eventsOfSession(store, sessionId, 0, transaction);
  const record = reduceSession(events, { offsetMsByLoad: await clockOffsets(store, events, transaction) });
  const evidence = evidenceOfSession(sessionId, record);
  const met = record.trials.filter((trial) => trial.outcome === "met").length;
  for (const table of [block, rungSideSummary]) await (table as typeof block).destroy({ where: { session_id: sessionId }, transaction });
  await sessionSummary.upsert(
    {
      session_id: sessionId,
      last_position: position,
      started_ms: record.startWallMs,
      finished: record.finishMs !== null,
      work_s: workSeconds(record),
      n: record.trials.length,
      met,
      record: JSON.stringify(record),
      evidence: JSON.stringify(evidence),
      digest: JSON.stringify(knowDigest(record)),
    },
    { transaction },
  );
  const trialsOf = (index: number) => record.trials.filter((trial) => trial.blockIndex === index);
  await block.bulkCreate(
    record.blocks.map((b, index) => ({
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
    { transaction },
  );
  const sums = new Map<
    string,
    { ladder_id: string; version: number; rung: number; side: string; n: number; met: number; met_at_lightest: number }
  >();
  for (const trial of evidence) {
    if (trial.kind !== "work") continue;
    const key = `${trial.ladder}|${trial.version}|${trial.rung}|${trial.side ?? ""}`;
    const sum = sums.get(key) ?? {
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
  await rungSideSummary.bulkCreate(
    [...sums.values()].map((sum) => ({ session_id: sessionId, ...sum })),
    { transaction },
  );
}

/** Makes the caches of these sessions anew from their events. */
export async function refreshCaches(store: Store, sessionIds: readonly string[]): Promise<void> {
  for (const id of sessionIds) await store.writer.write((transaction) => writeCaches(store, id, transaction));
}

/** Throws every cache away and makes it anew. @returns how many sessions were summed up. */
export async function rebuildCaches(store: Store): Promise<number> {
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

/** Sessions whose caches lag behind their events, or have none. */
async function staleSessions(store: Store, ids: readonly string[]): Promise<string[]> {
  if (ids.length === 0) return [];
  const rows = (await store.sequelize.query(
    `SELECT s.id AS id FROM session s LEFT JOIN session_summary c ON c.session_id = s.id
     WHERE s.id IN (:ids) AND COALESCE(c.last_position, -1) < COALESCE((SELECT MAX(e.position) FROM event e WHERE e.session_id = s.id), 0)`,
    { replacements: { ids: [...ids] } },
  )) as [{ id: string }[], unknown];
  return rows[0].map((row) => row.id);
}

/** A session with its cached sums. */
export interface SessionWithSummary {
  readonly session: SessionRow;
  readonly summary: SessionSummaryRow;
}

/** Sessions with their cached sums, made anew where they lag behind the events. */
export async function withSummaries(store: Store, sessions: readonly SessionRow[]): Promise<SessionWithSummary[]> {
  await refreshCaches(
    store,
    await staleSessions(
      store,
      sessions.map((s) => s.id),
    ),
  );
  const rows = (await store.models.sessionSummary.findAll({ where: { session_id: sessions.map((s) => s.id) } })).map(plain);
  const byId = new Map(rows.map((row) => [row.session_id, row]));
  return sessions.flatMap((session) => {
    const summary = byId.get(session.id);
    return summary === undefined ? [] : [{ session, summary }];
  });
}

/** A horse's sessions, newest first, of every kind or of one. */
export async function listSessions(store: Store, horseId: string, limit = 200, kind?: SessionKind): Promise<SessionWithSummary[]> {
  const where = { horse_id: horseId, ...(kind === undefined ? {} : { kind }) };
  const rows = (await store.models.session.findAll({ where, order: [["created_ms", "DESC"]], limit })).map(plain);
  return withSummaries(store, rows);
}

/**
 * Trials worked on a ladder as evidence, oldest first, from sessions begun after
 * a time. Trials of earlier versions count for the present one where their rung is unchanged.
 */
export async function evidenceOfLadder(store: Store, ladderId: string, sinceMs = 0): Promise<EvidenceTrial[]> {
  const { version, horseId } = await getLadder(store, ladderId);
  const all = (
    await store.models.session.findAll({
      where: { horse_id: horseId, kind: "work", created_ms: { [Op.gte]: sinceMs } },
      order: [["created_ms", "ASC"]],
    })
  ).map(plain);
  await refreshCaches(
    store,
    await staleSessions(
      store,
      all.map(({ id }) => id),
    ),
  );
  // A trainer may go over to another ladder in the middle of a session: its blocks say which were worked.
  const worked = new Set(
    (await store.models.block.findAll({ attributes: ["session_id"], where: { ladder_id: ladderId } })).map((row) =>
      String(row.get("session_id")),
    ),
  );
  const rows = all.filter(({ id, ladder_id }) => ladder_id === ladderId || worked.has(id));
  const loaded = await withSummaries(store, rows);
  const trials = loaded
    .flatMap(({ summary }) => JSON.parse(summary.evidence) as EvidenceTrial[])
    .filter(({ ladder }) => ladder === ladderId)
    .sort((a, b) => a.wallMs - b.wallMs);
  return carriedOver(trials, version, await carriedRungs(store, ladderId));
}

/** Sums of a rung over all its work, for the strand chart. */
export interface RungEvidence {
  readonly rung: number;
  readonly n: number;
  readonly met: number;
  readonly metAtLightest: number;
}

/** Sums by rung of one version; of the present one with what is carried over from earlier ones. */
export async function rungEvidence(store: Store, ladderId: string, version: number): Promise<RungEvidence[]> {
  const { presentVersion, horseId } = await getLadder(store, ladderId);
  const sessions = (await store.models.session.findAll({ attributes: ["id"], where: { horse_id: horseId, kind: "work" } })).map((row) =>
    String(row.get("id")),
  );
  await refreshCaches(store, await staleSessions(store, sessions));
  const rows = (await store.models.rungSideSummary.findAll({ where: { ladder_id: ladderId } })).map(plain);
  const carried = version === presentVersion ? await carriedRungs(store, ladderId) : new Map<number, Map<number, number>>();
  const sums = new Map<number, { n: number; met: number; metAtLightest: number }>();
  for (const row of rows) {
    const rung = row.version === version ? row.rung : carried.get(row.version)?.get(row.rung);
    if (rung === undefined) continue;
    const sum = sums.get(rung) ?? { n: 0, met: 0, metAtLightest: 0 };
    sums.set(rung, { n: sum.n + row.n, met: sum.met + row.met, metAtLightest: sum.metAtLightest + row.met_at_lightest });
  }
  return [...sums].map(([rung, sum]) => ({ rung, ...sum })).sort((a, b) => a.rung - b.rung);
}

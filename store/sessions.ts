import { literal, Op, type Transaction } from "sequelize";
import type { SessionEvent, SessionKind } from "@/core/schemas";
import { carriedOver, type EvidenceTrial, isSilent, placeEvents, reduceSession, type SessionRecord } from "@/core/session";
import { laggingRows } from "./caches";
import { clockOffsets, eventsOfSession } from "./events";
import { getHorse } from "./horses";
import { carriedRungs, getLadder } from "./ladders";
import type { SessionRow, SessionSummaryRow } from "./models";
import { ConflictError, GoneError, NotFoundError, plain } from "./rows";
import { getWordSettings } from "./settings";
import type { Store, StoreParts } from "./store";

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
  if (ladder !== null && input.startRung !== null && input.startRung > ladder.plan.rungs.length)
    throw new GoneError(`This ladder has no rung ${input.startRung}; its last is ${ladder.plan.rungs.length}.`);
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

/** @throws GoneError where what a session names has been removed. */
async function thingsThere({ models }: Store, { personId, placeId, kitIds = [] }: NewSession, transaction: Transaction): Promise<void> {
  const missing = async (table: Store["models"]["person"], ids: readonly string[]) =>
    (await table.count({ where: { id: [...new Set(ids)] }, transaction })) < new Set(ids).size;
  if (personId !== null && (await missing(models.person, [personId])))
    throw new GoneError("This person is no longer there. Choose another, or none.");
  if (placeId !== null && (await missing(models.place as never, [placeId])))
    throw new GoneError("This place has been removed. Choose another, or none.");
  if (await missing(models.kit as never, kitIds)) throw new GoneError("Some of this kit has been removed. Choose it again.");
}

/** What a session asked for twice must say both times. Its ladder's version may have moved on meanwhile. */
const asked = ({ horse_id, person_id, place_id, kind, ladder_id, start_rung, kit }: SessionRow) =>
  JSON.stringify([horse_id, person_id, place_id, kind, ladder_id, start_rung, kit]);

/**
 * Adds a session; asking again for the same changes nothing.
 * @throws ConflictError where the id is another session's, GoneError where what it names has been removed.
 */
export async function addSession(store: Store, input: NewSession, options: SessionOptions = {}): Promise<void> {
  await store.writer.write(async (transaction) => {
    const row = await sessionRow(store, input, options);
    const there = await store.models.session.findByPk(row.id, { transaction });
    if (there !== null) {
      if (asked(plain(there)) !== asked(row)) throw new ConflictError("There is another session under this id.");
      return;
    }
    await thingsThere(store, input, transaction);
    await store.models.session.create(row, { transaction });
  });
}

/** Adds many sessions in one transaction: all of them or none. */
export async function addSessions(store: Store, inputs: readonly (NewSession & SessionOptions)[]): Promise<void> {
  const rows: SessionRow[] = [];
  for (const input of inputs) rows.push(await sessionRow(store, input, input));
  await store.writer.write((transaction) => store.models.session.bulkCreate(rows, { transaction }));
}

/** @throws NotFoundError where there is no such session. */
export async function getSession(store: Store, id: string): Promise<SessionRow> {
  const row = await store.models.session.findByPk(id.toLowerCase());
  if (row === null) throw new NotFoundError("There is no such session.");
  return plain(row);
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
  const { events, position } = await eventsOfSession(store, session.id);
  const offsets = await clockOffsets(store, events);
  const { silenceMinutes } = await getWordSettings(store);
  return { session, events, position, offsets, record: reduceSession(events, { offsetMsByLoad: offsets, silenceMinutes }) };
}

/** Seconds from the start of work for every event, undone ones too, for events.csv. */
export function derivedSeconds({ events, offsets, record }: LoadedSession): Map<string, number> {
  const start = (record.startWallMs ?? 0) - record.shiftMs;
  return new Map(placeEvents(events, { offsetMsByLoad: offsets }).map(({ event, ms }) => [event.id, (ms - start) / 1000]));
}

/** A session with its cached sums. */
export interface SessionWithSummary {
  readonly session: SessionRow;
  readonly summary: SessionSummaryRow;
}

/** Sessions with their sums: the cached ones, or, where those lag behind the events, worked out anew without a write. */
export async function withSummaries(store: StoreParts, sessions: readonly SessionRow[]): Promise<SessionWithSummary[]> {
  const ids = sessions.map(({ id }) => id);
  const lagging = await laggingRows(store, ids);
  const rows = (await store.models.sessionSummary.findAll({ where: { session_id: ids } })).map(plain);
  const byId = new Map(rows.map((row) => [row.session_id, row]));
  for (const [id, { summary }] of lagging) byId.set(id, summary);
  return sessions.flatMap((session) => {
    const summary = byId.get(session.id);
    return summary === undefined ? [] : [{ session, summary }];
  });
}

/** Sessions of which at least one tap is on the server. */
const TAPPED = literal("EXISTS (SELECT 1 FROM event WHERE event.session_id = session.id)");

/** A horse's sessions in which something was seen, newest first, of every kind or of one. */
export async function listSessions(store: Store, horseId: string, limit = 200, kind?: SessionKind): Promise<SessionWithSummary[]> {
  const where = { horse_id: horseId, ...(kind === undefined ? {} : { kind }), [Op.and]: TAPPED };
  const found: SessionWithSummary[] = [];
  // Those in which nothing was seen are few, and only their taps tell.
  for (let offset = 0; found.length < limit; ) {
    const take = Math.max(20, limit);
    const rows = (await store.models.session.findAll({ where, order: [["created_ms", "DESC"]], limit: take, offset })).map(plain);
    found.push(...(await withSummaries(store, rows)).filter(({ summary }) => Boolean(summary.seen)));
    if (rows.length < take) break;
    offset += take;
  }
  return found.slice(0, limit);
}

/** A horse's session of work that is not finished. */
export interface OpenSession {
  readonly id: string;
  readonly startedMs: number;
  readonly lastTapMs: number;
  readonly n: number;
  readonly met: number;
  readonly behaviours: readonly string[];
  /** Whether it is being worked: its last tap is not longer ago than a silence may be. */
  readonly running: boolean;
}

/** A horse's unfinished sessions of work, newest first. One that was left without anything seen in it is none. */
export async function openSessions(store: Store, horseId: string): Promise<OpenSession[]> {
  const unfinished = literal("NOT EXISTS (SELECT 1 FROM session_summary c WHERE c.session_id = session.id AND c.finished = 1)");
  const where = { horse_id: horseId, kind: "work", [Op.and]: [TAPPED, unfinished] };
  const rows = (await store.models.session.findAll({ where, order: [["created_ms", "DESC"]] })).map(plain);
  return (await withSummaries(store, rows)).flatMap(({ session, summary }) => {
    if (summary.finished || summary.started_ms === null) return [];
    const record = JSON.parse(summary.record) as SessionRecord;
    const running = !isSilent(record, store.now() + record.shiftMs - summary.started_ms);
    if (!summary.seen && !running) return [];
    return [
      {
        id: session.id,
        startedMs: summary.started_ms,
        lastTapMs: summary.started_ms + record.lastMs,
        n: summary.n,
        met: summary.met,
        behaviours: [...new Set(record.blocks.map(({ behaviour }) => behaviour))],
        running,
      },
    ];
  });
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
  const lagging = await laggingRows(
    store,
    all.map(({ id }) => id),
  );
  // A trainer may go over to another ladder in the middle of a session: its blocks say which were worked.
  const worked = new Set(
    (await store.models.block.findAll({ attributes: ["session_id"], where: { ladder_id: ladderId } })).map((row) =>
      String(row.get("session_id")),
    ),
  );
  for (const [id, { blocks }] of lagging) if (blocks.some((block) => block.ladder_id === ladderId)) worked.add(id);
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
  const lagging = await laggingRows(store, sessions);
  const rows = [
    ...(await store.models.rungSideSummary.findAll({ where: { ladder_id: ladderId } }))
      .map(plain)
      .filter((row) => !lagging.has(row.session_id)),
    ...[...lagging.values()].flatMap(({ rungSides }) => rungSides.filter((row) => row.ladder_id === ladderId)),
  ];
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

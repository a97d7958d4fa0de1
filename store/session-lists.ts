import { QueryTypes } from "sequelize";
import type { CircleDigest } from "@/core/circle";
import { type SessionKind, WORK_KINDS } from "@/core/events";
import { isSilent } from "@/core/record";
import { type KeptBlock, openedOrNull, overlay, readKept } from "./caches";
import { kindsInSql, ON_CIRCLE } from "./kinds";
import type { SessionRow, SessionSummaryRow } from "./models";
import type { Store, StoreParts } from "./store";

/** What lists show of a block. */
export interface ListedBlock {
  readonly behaviour: string;
  readonly rung: string;
  readonly ladder: string | null;
  readonly seconds: number;
}

/** A session with its kept sums and blocks. */
export interface SessionWithSummary {
  readonly session: SessionRow;
  readonly summary: Omit<SessionSummaryRow, "digest" | "past" | "aftermath">;
  readonly blocks: readonly ListedBlock[];
}

/** As a list in SQL. */
const WORK = kindsInSql(WORK_KINDS);

const SUMS =
  "c.session_no, c.started_ms, c.finished, c.seen, c.last_ms, c.runs_on_ms, c.shift_ms, c.work_s, c.n, c.met, c.pieces, c.food_g, c.do_next, c.struck_notes, c.drawing, c.circle";
const SESSION =
  "s.id, s.horse_id, s.person_id, s.place_id, s.kind, s.ladder_id, s.ladder_version, s.start_rung, s.kit, s.circle AS session_circle, s.sample, s.created_ms, s.no";

type FoundRow = Omit<SessionRow, "circle"> & SessionSummaryRow & { session_circle: string | null };
type Sums = SessionWithSummary["summary"];

const sessionIn = (row: FoundRow): SessionRow => ({
  id: row.id,
  horse_id: row.horse_id,
  person_id: row.person_id,
  place_id: row.place_id,
  kind: row.kind,
  ladder_id: row.ladder_id,
  ladder_version: row.ladder_version,
  start_rung: row.start_rung,
  kit: row.kit,
  circle: row.session_circle,
  sample: Boolean(row.sample),
  created_ms: row.created_ms,
  no: row.no,
});

/** Kept sums, with their texts opened; those that were worked out now have none to open. */
const keptSums = (row: SessionSummaryRow): SessionSummaryRow => ({
  ...row,
  // A session that is in no cache yet has no row of sums: nothing was seen in it.
  drawing: openedOrNull(row.drawing) ?? "",
  struck_notes: openedOrNull(row.struck_notes),
  circle: openedOrNull(row.circle),
});

const sumsIn = (row: SessionSummaryRow): Sums => ({
  session_no: row.session_no,
  started_ms: row.started_ms,
  finished: Boolean(row.finished),
  seen: Boolean(row.seen),
  last_ms: row.last_ms,
  runs_on_ms: row.runs_on_ms,
  shift_ms: row.shift_ms,
  work_s: row.work_s,
  n: row.n,
  met: row.met,
  pieces: row.pieces,
  food_g: row.food_g,
  do_next: row.do_next,
  struck_notes: row.struck_notes,
  drawing: row.drawing,
  circle: row.circle,
});

/** Blocks of sessions by number, in their order: the kept ones, or those that were worked out meanwhile. */
async function blocksOf(store: StoreParts, nos: readonly number[]): Promise<Map<number, ListedBlock[]>> {
  const found = new Map<number, ListedBlock[]>();
  if (nos.length === 0) return found;
  const rows = await store.sequelize.query<ListedBlock & { session_no: number }>(
    `SELECT b.session_no, b.behaviour, b.rung, b.seconds, k.id AS ladder FROM json_each($nos) j CROSS JOIN block b ON b.session_no = j.value
     LEFT JOIN cache_key k ON k.no = b.ladder_no ORDER BY b.session_no, b.position`,
    { bind: { nos: JSON.stringify(nos) }, type: QueryTypes.SELECT },
  );
  for (const { session_no, ...block } of rows) {
    const list = found.get(session_no);
    if (list === undefined) found.set(session_no, [block]);
    else list.push(block);
  }
  return found;
}

const listed = ({ behaviour, rung, ladder, seconds }: KeptBlock): ListedBlock => ({ behaviour, rung, ladder, seconds });

/** Found rows with what was worked out for those behind their events in place of what was kept; those in which nothing was seen are left out. */
async function withBlocks(
  store: StoreParts,
  rows: readonly FoundRow[],
  behind: Awaited<ReturnType<typeof overlay>>,
): Promise<SessionWithSummary[]> {
  const kept = await blocksOf(
    store,
    rows.flatMap(({ no }) => (behind.has(no) ? [] : [no])),
  );
  return rows.flatMap((row) => {
    const now = behind.get(row.no);
    const summary = sumsIn(now === undefined ? keptSums(row) : now.summary);
    if (!summary.seen) return [];
    return [{ session: sessionIn(row), summary, blocks: now === undefined ? (kept.get(row.no) ?? []) : now.blocks.map(listed) }];
  });
}

/** Which sessions of a horse are wanted. */
export interface SessionsWanted {
  readonly limit: number;
  readonly kind?: SessionKind;
  /** Only sessions that stand after this one in the list: its next page. */
  readonly after?: { readonly createdMs: number; readonly no: number };
  /** Only sessions made since this time. */
  readonly sinceMs?: number;
}

/** A horse's sessions in which something was seen, newest first. Cost grows with the sessions asked for. */
export const listSessions = (store: Store, horseId: string, wanted: SessionsWanted): Promise<SessionWithSummary[]> =>
  readKept(store, () => sessionsKept(store, horseId, wanted));

async function sessionsKept(store: Store, horseId: string, wanted: SessionsWanted): Promise<SessionWithSummary[]> {
  const { limit, kind, after, sinceMs } = wanted;
  const behind = await overlay(store, horseId);
  const rows = await store.sequelize.query<FoundRow>(
    `SELECT ${SESSION}, ${SUMS} FROM session s LEFT JOIN session_summary c ON c.session_no = s.no
     WHERE s.horse_id = :horse AND s.binned_ms IS NULL ${kind === undefined ? "" : "AND s.kind = :kind"}
     ${after === undefined ? "" : "AND s.created_ms <= :afterMs AND (s.created_ms < :afterMs OR s.no < :afterNo)"} ${sinceMs === undefined ? "" : "AND s.created_ms >= :sinceMs"}
     AND (c.seen = 1 OR s.no IN (:behind)) ORDER BY s.created_ms DESC, s.no DESC LIMIT :most`,
    {
      replacements: {
        horse: horseId,
        kind,
        afterMs: after?.createdMs,
        afterNo: after?.no,
        sinceMs,
        behind: [-1, ...behind.keys()],
        most: limit + behind.size,
      },
      type: QueryTypes.SELECT,
    },
  );
  return (await withBlocks(store, rows, behind)).slice(0, limit);
}

/** Each horse's last session of work, on the circle too, in which something was seen, by horse. One question, whatever the number of horses. */
export const lastWorked = (store: Store): Promise<Map<string, SessionWithSummary>> => readKept(store, () => lastKept(store));

async function lastKept(store: Store): Promise<Map<string, SessionWithSummary>> {
  const behind = await overlay(store, null);
  const rows = await store.sequelize.query<FoundRow>(
    `SELECT ${SESSION}, ${SUMS} FROM horse h JOIN session s ON s.no = (
       SELECT o.no FROM session o JOIN session_summary x ON x.session_no = o.no
       WHERE o.horse_id = h.id AND o.kind IN (${WORK}) AND o.binned_ms IS NULL AND x.seen = 1 ORDER BY o.created_ms DESC LIMIT 1)
     JOIN session_summary c ON c.session_no = s.no WHERE h.binned_ms IS NULL
     UNION ALL SELECT ${SESSION}, ${SUMS} FROM json_each($behind) j CROSS JOIN session s ON s.no = j.value
     LEFT JOIN session_summary c ON c.session_no = s.no WHERE s.kind IN (${WORK})`,
    { bind: { behind: JSON.stringify([...behind.keys()]) }, type: QueryTypes.SELECT },
  );
  const last = new Map<string, SessionWithSummary>();
  for (const found of await withBlocks(store, rows, behind)) {
    const there = last.get(found.session.horse_id);
    if (there === undefined || there.session.created_ms < found.session.created_ms) last.set(found.session.horse_id, found);
  }
  return last;
}

/** Horses with a session on the circle since a time whose way down nobody has ended. One question, whatever the number of horses. */
export const coolingHorses = (store: Store, sinceMs: number): Promise<Set<string>> => readKept(store, () => coolingKept(store, sinceMs));

async function coolingKept(store: Store, sinceMs: number): Promise<Set<string>> {
  const behind = await overlay(store, null);
  const rows = await store.sequelize.query<{ no: number; horse_id: string; circle: string | null }>(
    `SELECT s.no, s.horse_id, c.circle FROM horse h CROSS JOIN session s ON s.horse_id = h.id AND s.created_ms >= :sinceMs AND s.kind IN (${ON_CIRCLE})
     AND s.binned_ms IS NULL LEFT JOIN session_summary c ON c.session_no = s.no WHERE h.binned_ms IS NULL`,
    { replacements: { sinceMs }, type: QueryTypes.SELECT },
  );
  const open = rows.filter(({ no, circle: kept }) => {
    const circle = behind.has(no) ? (behind.get(no)?.summary.circle ?? null) : openedOrNull(kept);
    if (circle === null) return false;
    const { cool } = JSON.parse(circle) as CircleDigest;
    return cool !== null && cool.ended === null;
  });
  return new Set(open.map(({ horse_id }) => horse_id));
}

/** A horse's session of work that is not finished. */
export interface OpenSession {
  readonly id: string;
  readonly horseId: string;
  readonly startedMs: number;
  readonly lastTapMs: number;
  readonly n: number;
  readonly met: number;
  readonly behaviours: readonly string[];
  /** Whether it is being worked: its last tap is not longer ago than a silence may be. */
  readonly running: boolean;
}

/** Unfinished sessions of work, on the circle too, of one horse or of all, newest first. One that was left without anything seen in it is none. */
export async function openSessions(store: Store, horseId: string | null): Promise<OpenSession[]> {
  const behind = await overlay(store, horseId);
  const rows = await store.sequelize.query<FoundRow>(
    `SELECT ${SESSION}, ${SUMS} FROM session_summary c CROSS JOIN session s ON s.no = c.session_no
     WHERE c.finished = 0 AND s.kind IN (${WORK}) AND s.binned_ms IS NULL ${horseId === null ? "" : "AND s.horse_id = :horse"}
     AND s.no NOT IN (:behind)
     UNION ALL SELECT ${SESSION}, ${SUMS} FROM session s LEFT JOIN session_summary c ON c.session_no = s.no
     WHERE s.no IN (:behind) AND s.kind IN (${WORK})`,
    { replacements: { horse: horseId, behind: [-1, ...behind.keys()] }, type: QueryTypes.SELECT },
  );
  const blocks = await blocksOf(
    store,
    rows.map(({ no }) => no),
  );
  return rows
    .sort((a, b) => b.created_ms - a.created_ms)
    .flatMap((session) => {
      const now = behind.get(session.no);
      const summary = now === undefined ? session : now.summary;
      const { started_ms, finished, last_ms, runs_on_ms, shift_ms, n, met, seen } = summary;
      if (finished || started_ms === null) return [];
      const kept = now === undefined ? (blocks.get(session.no) ?? []) : now.blocks;
      const state = { finishMs: null, blocks: kept, lastMs: last_ms, runsOnMs: runs_on_ms };
      const running = !isSilent(state, store.now() + shift_ms - started_ms);
      if (!seen && !running) return [];
      return [
        {
          id: session.id,
          horseId: session.horse_id,
          startedMs: started_ms,
          lastTapMs: started_ms + last_ms,
          n,
          met,
          behaviours: [...new Set(kept.map(({ behaviour }) => behaviour))],
          running,
        },
      ];
    });
}

import { QueryTypes } from "sequelize";
import { markStale } from "../caches";
import type { Store } from "../store";
import { dropOnTheWay, newMark, noteRows, reveal } from "./on-the-way";
import { EVENT_INSERT } from "./read";
import { columnsOf, PACKED_TABLES, type PackedTable, SETTINGS_KEYS } from "./tables";

/** What bringing in came to. */
export interface Merged {
  readonly sessions: number;
  readonly events: number;
  /** Rows of plans, people, places and the like that were new. */
  readonly rows: number;
  /** Rows that were here already and said something else: they stay as they are here. */
  readonly kept: number;
}

const ROWS_AT_ONCE = 500;
/** Pictures are read a few at a time. */
const PICTURES_AT_ONCE = 4;
const EVENTS_AT_ONCE = 2000;

type Value = string | number | Buffer | null;
type Row = Readonly<Record<string, Value>>;

const same = (a: Value | undefined, b: Value | undefined) =>
  Buffer.isBuffer(a) && Buffer.isBuffer(b) ? a.equals(b) : (a ?? null) === (b ?? null);

/** The rows of a table of another store, in parts. */
async function* rowsOf(store: Store, table: string, columns: readonly string[]): AsyncGenerator<Row[]> {
  const most = table === "horse_photo" ? PICTURES_AT_ONCE : ROWS_AT_ONCE;
  let after = 0;
  for (;;) {
    const rows = await store.sequelize.query<Row & { readonly at: number }>(
      `SELECT rowid AS at, ${columns.map((name) => `"${name}"`).join(", ")} FROM "${table}" WHERE rowid > $after ORDER BY rowid LIMIT ${most}`,
      { bind: { after }, type: QueryTypes.SELECT },
    );
    if (rows.length === 0) return;
    after = rows.at(-1)?.at ?? after;
    yield rows;
  }
}

/** Which of these rows are here already, and whether they say the same. */
async function presentOf(
  store: Store,
  table: PackedTable,
  columns: readonly string[],
  rows: readonly Row[],
): Promise<readonly (Row | undefined)[]> {
  const keys = rows.map((row) => table.key.map((name) => row[name] as string | number));
  const found = await store.sequelize.query<Row & { readonly at_key: number }>(
    `SELECT j.key AS at_key, ${columns.map((name) => `t."${name}"`).join(", ")} FROM json_each($keys) j CROSS JOIN "${table.name}" t
     ON ${table.key.map((name, i) => `t."${name}" = j.value->>${i}`).join(" AND ")}`,
    { bind: { keys: JSON.stringify(keys) }, type: QueryTypes.SELECT },
  );
  const byKey = new Map(found.map((row) => [row.at_key, row]));
  return rows.map((_, i) => byKey.get(i));
}

async function insertRows(store: Store, mark: string, table: PackedTable, columns: readonly string[], rows: readonly Row[]): Promise<void> {
  if (rows.length === 0) return;
  await store.writer.write(async (transaction) => {
    if (table.name !== "session")
      await noteRows(
        store,
        mark,
        table,
        rows.map((row) => table.key.map((name) => row[name])),
        transaction,
      );
    if (table.name === "horse_photo") {
      await store.models.horsePhoto.bulkCreate(rows.map((row) => Object.fromEntries(columns.map((name) => [name, row[name]]))) as never, {
        transaction,
        ignoreDuplicates: true,
      });
      return;
    }
    const session = table.name === "session";
    const names = session ? [...columns, "no"] : [...columns];
    const [last] = session
      ? await store.sequelize.query<{ no: number }>("SELECT COALESCE(MAX(no), 0) AS no FROM session", {
          type: QueryTypes.SELECT,
          transaction,
        })
      : [undefined];
    const values = rows.map((row, i) => {
      // What lies in the bin there lies in it here; everything else waits out of sight for its taps.
      const whole: Record<string, Value> = { ...row };
      if (session) whole.no = (last?.no ?? 0) + 1 + i;
      if (session && row.binned_ms === null) Object.assign(whole, { binned_ms: store.now(), binned_with: mark });
      return names.map((name) => whole[name] ?? null);
    });
    await store.sequelize.query(
      `INSERT OR IGNORE INTO "${table.name}" (${names.map((name) => `"${name}"`).join(", ")}) SELECT ${names.map((_, i) => `value->>${i}`).join(", ")} FROM json_each($rows)`,
      { bind: { rows: JSON.stringify(values) }, transaction },
    );
  });
}

/** A ladder that was edited further there goes on from there: its versions are here now. */
async function followEdits(store: Store, rows: readonly Row[]): Promise<void> {
  await store.writer.write((transaction) =>
    store.sequelize.query(
      `UPDATE ladder SET version = j.value->>1, revision = j.value->>2 FROM json_each($rows) j
       WHERE ladder.id = j.value->>0 AND ladder.revision < j.value->>2 AND ladder.version < j.value->>1`,
      { bind: { rows: JSON.stringify(rows.map(({ id, version, revision }) => [id, version, revision])) }, transaction },
    ),
  );
}

type LogRow = readonly (string | number)[];

/** The log of another store in the order it came there, in parts. */
async function* eventsOf(from: Store): AsyncGenerator<{ readonly rows: readonly LogRow[]; readonly sources: readonly string[][] }> {
  for (let after = -1; ; ) {
    const rows = await from.sequelize.query<Record<string, string | number>>(
      `SELECT * FROM event_log WHERE position > $after ORDER BY position LIMIT ${EVENTS_AT_ONCE}`,
      { bind: { after }, type: QueryTypes.SELECT },
    );
    if (rows.length === 0) return;
    after = Number(rows.at(-1)?.position);
    const sources = new Map(
      rows.map(({ recorder, load, part }) => [JSON.stringify([recorder, load, part]), [recorder, load, part] as string[]]),
    );
    yield {
      sources: [...sources.values()],
      rows: rows.map(
        ({ id, session_id, recorder, load, part, seq, mono_ms, wall_ms, type, payload, received_ms }): LogRow =>
          [id, session_id, JSON.stringify([recorder, load, part]), seq, mono_ms, wall_ms, type, payload, received_ms] as LogRow,
      ),
    };
  }
}

/**
 * Brings everything of another store into this one, by its ids: what is here
 * already is not doubled, and stays as it is here where the two say something
 * else. In small writes, so that taps get in between; sessions come into sight
 * together when all of their taps are here. Where it fails everything new is
 * taken away at once. Done twice it is done once, so one that was cut off is
 * done again.
 */
export async function mergeStore(into: Store, from: Store, onEvents?: (events: number) => void): Promise<Merged> {
  const mark = newMark();
  try {
    return await mergeUnder(mark, into, from, onEvents);
  } catch (error) {
    // On a disk that takes nothing the next start takes it away.
    await dropOnTheWay(into, mark).catch(() => undefined);
    throw error;
  }
}

async function mergeUnder(mark: string, into: Store, from: Store, onEvents?: (events: number) => void): Promise<Merged> {
  let rowsNew = 0;
  let kept = 0;
  let sessions = 0;
  for (const table of PACKED_TABLES) {
    const columns = (await columnsOf(into.sequelize, table)).map(({ name }) => name);
    for await (const rows of rowsOf(from, table.name, columns)) {
      const present = await presentOf(into, table, columns, rows);
      const fresh = rows.filter((_, i) => present[i] === undefined);
      // A photo's bytes and times of making are no difference worth a word.
      kept += rows.filter((row, i) => {
        const here = present[i];
        return here !== undefined && columns.some((name) => name !== "created_ms" && name !== "changed_ms" && !same(here[name], row[name]));
      }).length;
      await insertRows(into, mark, table, columns, fresh);
      if (table.name === "session") sessions += fresh.length;
      else rowsNew += fresh.length;
    }
  }
  const before = await countOf(into);
  const touched = new Set<string>();
  let told = 0;
  for await (const { rows, sources } of eventsOf(from)) {
    await into.writer.write(async (transaction) => {
      await into.sequelize.query(
        "INSERT OR IGNORE INTO source (recorder, load, part) SELECT value->>0, value->>1, value->>2 FROM json_each($rows)",
        { bind: { rows: JSON.stringify(sources) }, transaction },
      );
      const numbers = await into.sequelize.query<{ no: number; recorder: string; load: string; part: string }>(
        "SELECT s.no, s.recorder, s.load, s.part FROM json_each($rows) j CROSS JOIN source s ON s.load = j.value->>1 AND s.recorder = j.value->>0 AND s.part = j.value->>2",
        { bind: { rows: JSON.stringify(sources) }, type: QueryTypes.SELECT, transaction },
      );
      const noOf = new Map(numbers.map(({ no, recorder, load, part }) => [JSON.stringify([recorder, load, part]), no]));
      const packed = rows.map((row) => row.map((value, i) => (i === 2 ? (noOf.get(String(value)) ?? null) : value)));
      await into.sequelize.query(EVENT_INSERT.replace("INSERT INTO", "INSERT OR IGNORE INTO"), {
        bind: { rows: JSON.stringify(packed) },
        transaction,
      });
      for (const row of rows) touched.add(String(row[1]));
      // Sessions that were here already are behind their taps from this write on, whatever becomes of the rest.
      const inSight = await into.sequelize.query<{ no: number }>(
        "SELECT s.no FROM json_each($ids) j CROSS JOIN session s ON s.id = j.value WHERE s.binned_ms IS NULL",
        { bind: { ids: JSON.stringify([...new Set(rows.map((row) => String(row[1])))]) }, type: QueryTypes.SELECT, transaction },
      );
      await markStale(
        into,
        inSight.map(({ no }) => no),
        transaction,
      );
    }, "sums");
    told += rows.length;
    onEvents?.(told);
    // Whoever taps meanwhile gets in between.
    await new Promise((resolve) => setImmediate(resolve));
  }
  for (const { key, value } of (await from.models.meta.findAll()).map((row) => ({
    key: String(row.get("key")),
    value: String(row.get("value")),
  })))
    if (SETTINGS_KEYS.includes(key) && (await into.models.meta.findByPk(key)) === null)
      await into.writer.write((transaction) => into.models.meta.create({ key, value }, { transaction }));
  await into.writer.write((transaction) => reveal(into, mark, [...touched], transaction));
  // Only where everything is here: its versions are.
  for await (const rows of rowsOf(from, "ladder", ["id", "version", "revision"])) await followEdits(into, rows);
  into.caches.catchUp();
  return { sessions, events: (await countOf(into)) - before, rows: rowsNew, kept };
}

const countOf = async (store: Store) =>
  (await store.sequelize.query<{ n: number }>("SELECT COUNT(*) AS n FROM event", { type: QueryTypes.SELECT }))[0]?.n ?? 0;

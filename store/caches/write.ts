import { QueryTypes, type Transaction } from "sequelize";
import { whoseTrial } from "@/core/record";
import type { StoreParts } from "../store";
import { setWhole } from "./damaged";
import type { SessionCache } from "./kept";
import { sealed } from "./sealed";
import { TRIAL_COLUMNS, trialRow, type Whose } from "./trial-columns";

const TABLES = {
  session_summary:
    "session_no started_ms finished seen last_ms runs_on_ms shift_ms work_s n met pieces food_g do_next struck_notes drawing digest past circle aftermath",
  block: "session_no position number behaviour ladder_no version rung side kind seconds n met",
  rung_side_summary: "session_no ladder_no version rung side n met met_at_lightest",
  trial: TRIAL_COLUMNS.join(" "),
} as const satisfies Readonly<Record<string, string>>;

/** One statement and one text for many rows: SQLite takes it apart on its own thread. */
const insertSql = (table: keyof typeof TABLES) => {
  const columns = TABLES[table].split(" ");
  return `INSERT INTO ${table} (${columns.join(", ")}) SELECT ${columns.map((_, i) => `value->>${i}`).join(", ")} FROM jsonb_each(jsonb($rows))`;
};

async function insert(store: StoreParts, table: keyof typeof TABLES, rows: readonly unknown[][], transaction: Transaction): Promise<void> {
  if (rows.length === 0) return;
  await store.sequelize.query(insertSql(table), { bind: { rows: JSON.stringify(rows) }, transaction });
}

/** The numbers the caches name ladders, horses and people by; new ones are given to ids that have none. */
async function numbersOf(store: StoreParts, ids: ReadonlySet<string>, transaction: Transaction): Promise<Map<string, number>> {
  const bind = { ids: JSON.stringify([...ids]) };
  await store.sequelize.query("INSERT OR IGNORE INTO cache_key (id) SELECT value FROM json_each($ids)", { bind, transaction });
  const rows = await store.sequelize.query<{ no: number; id: string }>(
    "SELECT k.no, k.id FROM json_each($ids) j CROSS JOIN cache_key k ON k.id = j.value",
    { bind, type: QueryTypes.SELECT, transaction },
  );
  return new Map(rows.map(({ no, id }) => [id, no]));
}

/** Texts with a check sum before them; whoever reads them opens them. */
const SEALED: ReadonlySet<string> = new Set(["struck_notes", "drawing", "digest", "past", "circle", "aftermath"]);
const seal = (text: unknown) => (typeof text === "string" ? sealed(text) : null);

/** Takes away what is kept of no session, or of one in the bin. */
export async function dropKeptOfNone(store: StoreParts, transaction: Transaction): Promise<void> {
  for (const table of Object.keys(TABLES))
    await store.sequelize.query(`DELETE FROM ${table} WHERE session_no NOT IN (SELECT no FROM session WHERE binned_ms IS NULL)`, {
      transaction,
    });
}

/** Takes what is kept of these sessions away; they are not thereby stale. */
export async function dropKept(store: StoreParts, nos: readonly number[], transaction: Transaction): Promise<void> {
  for (const table of Object.keys(TABLES))
    await store.sequelize.query(`DELETE FROM ${table} WHERE session_no IN (SELECT value FROM json_each($nos))`, {
      bind: { nos: JSON.stringify(nos) },
      transaction,
    });
}

/** Keeps what was worked out of these sessions, in place of what was kept before, and takes them off the stale ones. */
export async function writeKept(
  store: StoreParts,
  kept: readonly SessionCache[],
  whose: ReadonlyMap<number, Whose>,
  transaction: Transaction,
): Promise<void> {
  const ids = new Set<string>();
  for (const { no, blocks, record } of kept) {
    const { horse_id, person_id } = whose.get(no) ?? { horse_id: "", person_id: null };
    const handlers = record.trials.map((trial) => whoseTrial(trial, null));
    for (const id of [horse_id, person_id, ...handlers, ...blocks.map(({ ladder }) => ladder)]) if (id !== null) ids.add(id);
  }
  const numbers = await numbersOf(store, ids, transaction);
  const number = (id: string | null) => (id === null ? null : (numbers.get(id) ?? null));
  const nos = kept.map(({ no }) => no);
  await dropKept(store, nos, transaction);
  const columns = TABLES.session_summary.split(" ") as (keyof SessionCache["summary"])[];
  const cell = (value: unknown) => (typeof value === "boolean" ? Number(value) : value);
  await insert(
    store,
    "session_summary",
    kept.map(({ summary }) => columns.map((column) => (SEALED.has(column) ? seal(summary[column]) : cell(summary[column])))),
    transaction,
  );
  await insert(
    store,
    "block",
    kept.flatMap(({ no, blocks }) =>
      blocks.map((b) => [
        no,
        b.position,
        b.number,
        b.behaviour,
        number(b.ladder),
        b.version,
        b.rung,
        b.side,
        b.kind,
        b.seconds,
        b.n,
        b.met,
      ]),
    ),
    transaction,
  );
  await insert(
    store,
    "rung_side_summary",
    kept.flatMap(({ no, rungs }) => rungs.map((r) => [no, number(r.ladder), r.version, r.rung, r.side, r.n, r.met, r.met_at_lightest])),
    transaction,
  );
  await insert(
    store,
    "trial",
    kept.flatMap((one) => {
      const of = whose.get(one.no) ?? { horse_id: "", person_id: null };
      return one.record.trials.map((trial) => trialRow(one, trial, number, of));
    }),
    transaction,
  );
  setWhole(store, nos);
  await store.sequelize.query("DELETE FROM stale WHERE session_no IN (SELECT value FROM json_each($nos))", {
    bind: { nos: JSON.stringify(nos) },
    transaction,
  });
}

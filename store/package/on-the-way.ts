import { randomUUID as newId } from "node:crypto";
import { QueryTypes, type Transaction } from "sequelize";
import { markStale } from "../caches";
import type { Store, StoreParts } from "../store";
import { PACKED_TABLES, type PackedTable } from "./tables";

/**
 * What is being brought in, under a mark of its own: sessions lie out of sight
 * under it until all of their taps are here, and every other new row is
 * written down with it. Where it fails, or the program is killed, all of it is
 * taken away again by that mark, and nothing of another import.
 */
export const newMark = (): string => `import:${newId()}`;

/** Marks of sessions on their way in, as SQL; "import" alone is that of versions before 0.14. */
export const IS_ON_THE_WAY = "(binned_with = 'import' OR binned_with LIKE 'import:%')";

type Of = Pick<StoreParts, "sequelize">;

/** Writes down which rows are new here, in the write that brings them. */
export async function noteRows(
  { sequelize }: Of,
  mark: string,
  table: PackedTable,
  keys: readonly (readonly unknown[])[],
  transaction: Transaction,
): Promise<void> {
  if (keys.length === 0) return;
  await sequelize.query(
    `INSERT INTO import_row (mark, place, name, key)
     SELECT $mark, (SELECT COALESCE(MAX(place), 0) FROM import_row WHERE mark = $mark) + j.key + 1, $name, j.value FROM json_each($keys) j`,
    { bind: { mark, name: table.name, keys: JSON.stringify(keys.map((key) => JSON.stringify(key))) }, transaction },
  );
}

/** Brings what lies out of sight under a mark into sight, together, and says that its sums are to be made. */
export async function reveal(store: Store, mark: string, ids: readonly string[], transaction: Transaction): Promise<void> {
  await store.sequelize.query("UPDATE session SET binned_ms = NULL, binned_with = NULL WHERE binned_with = $mark", {
    bind: { mark },
    transaction,
  });
  await store.sequelize.query("DELETE FROM import_row WHERE mark = $mark", { bind: { mark }, transaction });
  const nos = await store.sequelize.query<{ no: number }>(
    "SELECT s.no FROM json_each($ids) j CROSS JOIN session s ON s.id = j.value WHERE s.binned_ms IS NULL",
    { bind: { ids: JSON.stringify(ids) }, type: QueryTypes.SELECT, transaction },
  );
  await markStale(
    store,
    nos.map(({ no }) => no),
    transaction,
  );
}

interface Pointer {
  readonly child: string;
  readonly from: string;
  readonly to: string;
}

/** Which columns point at a table's rows. */
async function pointersAt({ sequelize }: Of, table: string, transaction: Transaction): Promise<Pointer[]> {
  return sequelize.query<Pointer>(
    `SELECT m.name AS child, f."from" AS "from", COALESCE(f."to", 'id') AS "to" FROM sqlite_master m CROSS JOIN pragma_foreign_key_list(m.name) f
     WHERE m.type = 'table' AND f."table" = $table`,
    { bind: { table }, type: QueryTypes.SELECT, transaction },
  );
}

/**
 * Takes away what lies under a mark: its sessions with their taps, then the
 * other rows from the last to the first. A row that somebody has begun to use
 * meanwhile stays.
 */
export async function dropOnTheWay(store: Of & Pick<StoreParts, "writer">, mark: string): Promise<void> {
  await store.writer.write((transaction) => dropMark(store, mark, transaction));
}

/** The same of every mark a program before this one left, at the opening of a store. */
export async function dropAllOnTheWay(store: Of & Pick<StoreParts, "writer">): Promise<void> {
  await store.writer.write(async (transaction) => {
    const marks = await store.sequelize.query<{ mark: string }>(
      `SELECT DISTINCT mark FROM import_row UNION SELECT DISTINCT binned_with FROM session WHERE ${IS_ON_THE_WAY}`,
      { type: QueryTypes.SELECT, transaction },
    );
    for (const { mark } of marks) await dropMark(store, mark, transaction);
  });
}

async function dropMark({ sequelize }: Of, mark: string, transaction: Transaction): Promise<void> {
  await sequelize.query("DELETE FROM session WHERE binned_with = $mark", { bind: { mark }, transaction });
  for (const table of [...PACKED_TABLES].reverse()) {
    if (table.name === "session") continue;
    const pointers = await pointersAt({ sequelize }, table.name, transaction);
    const own = table.key.map((name, i) => `t."${name}" = r.key->>${i}`).join(" AND ");
    const unused = pointers.map(({ child, from, to }) => `NOT EXISTS (SELECT 1 FROM "${child}" c WHERE c."${from}" = t."${to}")`);
    await sequelize.query(
      `DELETE FROM "${table.name}" WHERE rowid IN (SELECT t.rowid FROM import_row r CROSS JOIN "${table.name}" t ON ${own}
       WHERE r.mark = $mark AND r.name = $name ${unused.map((one) => `AND ${one}`).join(" ")})`,
      { bind: { mark, name: table.name }, transaction },
    );
  }
  await sequelize.query("DELETE FROM import_row WHERE mark = $mark", { bind: { mark }, transaction });
}

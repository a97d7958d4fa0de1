import type { QueryInterface } from "sequelize";

/** Lower-cases a table's ids where that makes no two of them one. */
const lowered = (table: string, column: string) =>
  `UPDATE ${table} SET ${column} = LOWER(${column}) WHERE ${column} <> LOWER(${column})
   AND NOT EXISTS (SELECT 1 FROM ${table} AS other WHERE other.${column} = LOWER(${table}.${column}))`;

/** A column that points at a session follows it. */
const following = (table: string) =>
  `UPDATE ${table} SET session_id = LOWER(session_id) WHERE session_id <> LOWER(session_id)
   AND session_id NOT IN (SELECT id FROM session)`;

/**
 * A ladder counts its edits, so that an editor can say on which one it began.
 * Ids of sessions and events compare without case: they are kept in one.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE ladder ADD COLUMN revision INTEGER NOT NULL DEFAULT 1");
  await run(lowered("session", "id"));
  for (const table of ["event", "session_summary", "block", "rung_side_summary"]) await run(following(table));
  await run(lowered("event", "id"));
}

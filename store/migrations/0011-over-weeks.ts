import type { QueryInterface } from "sequelize";

/**
 * What the views over weeks read of a session beside its trials, kept with it,
 * and experiments that try two ways on one rung. Everything kept beside the
 * events is made anew from them before the doors open.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE session_summary ADD COLUMN past TEXT NOT NULL DEFAULT '{}'");
  await run(`CREATE TABLE try_both (
    id TEXT NOT NULL PRIMARY KEY, horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE,
    ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE, ladder_version INTEGER NOT NULL, rung INTEGER NOT NULL,
    question TEXT NOT NULL, way_a TEXT NOT NULL, way_b TEXT NOT NULL, counts TEXT NOT NULL, arms TEXT NOT NULL,
    most_alike INTEGER NOT NULL, asks_each INTEGER NOT NULL, created_ms DOUBLE PRECISION NOT NULL, ended_ms DOUBLE PRECISION,
    ended_why TEXT)`);
  await run("CREATE INDEX try_both_by_horse ON try_both (horse_id)");
  await run("CREATE INDEX try_both_by_ladder ON try_both (ladder_id)");
  for (const table of ["trial", "rung_side_summary", "block", "session_summary"]) await run(`DELETE FROM ${table}`);
  await run("INSERT OR IGNORE INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL");
}

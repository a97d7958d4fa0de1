import type { QueryInterface } from "sequelize";

/**
 * What is derived of a session changed: whether a trial may be held against
 * the other side, what a tally that fell short earned, sides by rung, signs in
 * work alone. Everything kept beside the events is made anew from them before
 * the doors open.
 */
export async function up(query: QueryInterface): Promise<void> {
  for (const table of ["trial", "rung_side_summary", "block", "session_summary"]) await query.sequelize.query(`DELETE FROM ${table}`);
  await query.sequelize.query("INSERT OR IGNORE INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL");
}

import type { QueryInterface } from "sequelize";

/**
 * What happens between the asks. A ladder says what is logged there, a rung
 * how the movement is graded and what the handler may do; a yard has signs of
 * its own and a horse those it is watched for; a zone has rules. What is kept
 * of a session holds wrong choices, runs and acts, so it is made anew.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE ladder_version ADD COLUMN conversation TEXT");
  await run("ALTER TABLE rung ADD COLUMN least_movement INTEGER");
  await run("ALTER TABLE rung ADD COLUMN handler_most TEXT");
  await run("ALTER TABLE horse ADD COLUMN pinned_signs TEXT NOT NULL DEFAULT '[]'");
  await run("ALTER TABLE place_item ADD COLUMN rule TEXT");
  await run("ALTER TABLE trial ADD COLUMN movement INTEGER");
  await run(`CREATE TABLE own_sign (class TEXT NOT NULL, name TEXT NOT NULL, created_ms REAL NOT NULL, PRIMARY KEY (class, name))`);
  for (const table of ["trial", "rung_side_summary", "block", "session_summary"]) await run(`DELETE FROM ${table}`);
  await run("INSERT OR IGNORE INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL");
}

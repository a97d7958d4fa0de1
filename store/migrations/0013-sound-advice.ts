import type { QueryInterface } from "sequelize";

/**
 * Sound advice: what a session leaves for the next start is kept beside its
 * sums, and all sums are made anew, since signs have other classes. A horse
 * may bear heat badly. A restriction may name one leg, and whether it may carry
 * the others; those that are there name none and go on meaning all of them.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE session_summary ADD COLUMN aftermath TEXT");
  await run("ALTER TABLE horse ADD COLUMN bears_heat_badly INTEGER NOT NULL DEFAULT 0");
  await run("ALTER TABLE restriction ADD COLUMN limb TEXT");
  await run("ALTER TABLE restriction ADD COLUMN carries_others TEXT");
  await run("INSERT OR IGNORE INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL");
}

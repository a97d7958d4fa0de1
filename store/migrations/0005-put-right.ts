import type { QueryInterface } from "sequelize";

/** What can go to the bin. What goes with something else carries its id, so that it comes back with it. */
const BINNED = ["horse", "ladder", "chain", "session", "person", "place", "kit"];

/**
 * A bin, ladders put away, restrictions that end with a reason, and sessions
 * in which nothing was seen told apart. Silences became pauses: every cache is stale.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  for (const table of BINNED) {
    await run(`ALTER TABLE ${table} ADD COLUMN binned_ms REAL`);
    await run(`ALTER TABLE ${table} ADD COLUMN binned_with TEXT`);
    await run(`CREATE INDEX ${table}_binned ON ${table} (binned_ms) WHERE binned_ms IS NOT NULL`);
  }
  await run("ALTER TABLE ladder ADD COLUMN away_ms REAL");
  await run("ALTER TABLE restriction ADD COLUMN ended_ms REAL");
  await run("ALTER TABLE restriction ADD COLUMN ended_why TEXT NOT NULL DEFAULT ''");
  await run("ALTER TABLE session_summary ADD COLUMN seen INTEGER NOT NULL DEFAULT 0");
  await run("UPDATE session_summary SET last_position = -1");
}

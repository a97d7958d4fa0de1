import type { QueryInterface } from "sequelize";

/**
 * Work on the circle: the plan a session was begun with, what it came to beside
 * its sums (none of the old ones has any), how each horse works on the circle,
 * how kit fits it, and work entered by hand.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE session ADD COLUMN circle TEXT");
  await run("ALTER TABLE session_summary ADD COLUMN circle TEXT");
  await run(`CREATE TABLE circle_setup (horse_id TEXT NOT NULL PRIMARY KEY REFERENCES horse (id) ON DELETE CASCADE,
    body TEXT NOT NULL, updated_ms DOUBLE PRECISION NOT NULL)`);
  await run(`CREATE TABLE kit_fit (horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE,
    kit_id TEXT NOT NULL REFERENCES kit (id) ON DELETE CASCADE, body TEXT NOT NULL, updated_ms DOUBLE PRECISION NOT NULL,
    PRIMARY KEY (horse_id, kit_id))`);
  await run("CREATE INDEX kit_fit_by_kit ON kit_fit (kit_id)");
  await run(`CREATE TABLE hand_load (id TEXT NOT NULL PRIMARY KEY, horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE,
    day TEXT NOT NULL, kind TEXT NOT NULL, minutes DOUBLE PRECISION NOT NULL, note TEXT NOT NULL, created_ms DOUBLE PRECISION NOT NULL)`);
  await run("CREATE INDEX hand_load_by_horse ON hand_load (horse_id, day)");
}

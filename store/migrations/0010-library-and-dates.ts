import type { QueryInterface } from "sequelize";

/**
 * Dates of a horse, days on which a restriction was gone against with the
 * reason, and what to look at of a sample horse. Nothing that is kept of a
 * session changes.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE restriction ADD COLUMN gone_against TEXT NOT NULL DEFAULT '[]'");
  await run("ALTER TABLE horse ADD COLUMN gone_against TEXT NOT NULL DEFAULT '[]'");
  await run("ALTER TABLE horse ADD COLUMN look_at TEXT NOT NULL DEFAULT ''");
  await run(`CREATE TABLE horse_date (
    id TEXT NOT NULL PRIMARY KEY, horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE, kind TEXT NOT NULL, day TEXT NOT NULL,
    every_weeks INTEGER, note TEXT NOT NULL, done_ms DOUBLE PRECISION, created_ms DOUBLE PRECISION NOT NULL)`);
  await run("CREATE INDEX horse_date_by_horse ON horse_date (horse_id)");
}

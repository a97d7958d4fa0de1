import type { QueryInterface } from "sequelize";

/** Restrictions were one free text; each becomes a row of its own kind "other", so that nothing written is lost. */
const RESTRICTIONS_FROM_TEXT = `
  INSERT INTO restriction (id, horse_id, kind, amount, detail, reason, given_by, from_day, until_day, created_ms)
  SELECT 'text-' || id, id, 'other', NULL, '', restrictions, '', NULL, NULL, created_ms FROM horse WHERE TRIM(restrictions) <> ''`;

/**
 * Everything known of a horse before any plan. A session may now be something
 * else than work on a ladder, so its ladder may be missing; SQLite cannot
 * loosen a column, and dropping the old table with foreign keys on would take
 * every event with it: the runner has them off and checks them before it
 * keeps the change.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  for (const column of [
    "born_day TEXT",
    "triggers TEXT NOT NULL DEFAULT ''",
    "preferred_reinforcers TEXT NOT NULL DEFAULT ''",
    "resting_breaths_per_min DOUBLE PRECISION",
    "resting_heart_per_min DOUBLE PRECISION",
    "away TEXT",
    "away_since TEXT",
    "away_note TEXT NOT NULL DEFAULT ''",
  ])
    await run(`ALTER TABLE horse ADD COLUMN ${column}`);
  await run(`CREATE TABLE restriction (
    id TEXT NOT NULL PRIMARY KEY, horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE, kind TEXT NOT NULL,
    amount DOUBLE PRECISION, detail TEXT NOT NULL, reason TEXT NOT NULL, given_by TEXT NOT NULL,
    from_day TEXT, until_day TEXT, created_ms DOUBLE PRECISION NOT NULL)`);
  await run(RESTRICTIONS_FROM_TEXT);
  await run("ALTER TABLE horse DROP COLUMN restrictions");
  await run(`CREATE TABLE horse_photo (
    horse_id TEXT NOT NULL PRIMARY KEY REFERENCES horse (id) ON DELETE CASCADE, type TEXT NOT NULL, bytes BLOB NOT NULL,
    changed_ms DOUBLE PRECISION NOT NULL)`);
  await run("ALTER TABLE behaviour ADD COLUMN involves TEXT NOT NULL DEFAULT '[]'");
  await run("ALTER TABLE place ADD COLUMN footing TEXT NOT NULL DEFAULT ''");
  await run("ALTER TABLE place ADD COLUMN fence TEXT NOT NULL DEFAULT ''");
  await run(`CREATE TABLE place_item (
    place_id TEXT NOT NULL REFERENCES place (id) ON DELETE CASCADE, position INTEGER NOT NULL, name TEXT NOT NULL, kind TEXT NOT NULL,
    x_m DOUBLE PRECISION NOT NULL, y_m DOUBLE PRECISION NOT NULL, across_m DOUBLE PRECISION NOT NULL, down_m DOUBLE PRECISION NOT NULL,
    PRIMARY KEY (place_id, position))`);
  await run(`CREATE TABLE kit (
    id TEXT NOT NULL PRIMARY KEY, name TEXT NOT NULL, kind TEXT NOT NULL, length_m DOUBLE PRECISION, mass_g DOUBLE PRECISION,
    buckles_equal TINYINT(1), note TEXT NOT NULL, sample TINYINT(1) NOT NULL DEFAULT 0, created_ms DOUBLE PRECISION NOT NULL)`);
  await run(`CREATE TABLE practice (
    id TEXT NOT NULL PRIMARY KEY, person_id TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE, day TEXT NOT NULL, what TEXT NOT NULL,
    minutes INTEGER NOT NULL, note TEXT NOT NULL, created_ms DOUBLE PRECISION NOT NULL)`);
  await run("CREATE INDEX restriction_by_horse ON restriction (horse_id)");
  await run("CREATE INDEX practice_by_person ON practice (person_id, day)");

  await run(`CREATE TABLE session_new (
    id TEXT NOT NULL PRIMARY KEY, horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE,
    person_id TEXT REFERENCES person (id) ON DELETE SET NULL, place_id TEXT REFERENCES place (id) ON DELETE SET NULL,
    kind TEXT NOT NULL, ladder_id TEXT REFERENCES ladder (id) ON DELETE CASCADE, ladder_version INTEGER, start_rung INTEGER,
    kit TEXT NOT NULL, sample TINYINT(1) NOT NULL DEFAULT 0, created_ms DOUBLE PRECISION NOT NULL)`);
  await run(`INSERT INTO session_new (id, horse_id, person_id, place_id, kind, ladder_id, ladder_version, start_rung, kit, sample, created_ms)
    SELECT id, horse_id, person_id, place_id, 'work', ladder_id, ladder_version, start_rung, '[]', sample, created_ms FROM session`);
  await run("DROP TABLE session");
  await run("ALTER TABLE session_new RENAME TO session");
  await run("CREATE INDEX session_by_horse ON session (horse_id, created_ms)");
  await run("CREATE INDEX session_by_ladder ON session (ladder_id, created_ms)");

  // The digest of what a session shows of the horse; every cache counts as stale and is made anew when it is next read.
  await run("ALTER TABLE session_summary ADD COLUMN digest TEXT NOT NULL DEFAULT ''");
  await run("UPDATE session_summary SET last_position = -1");
}

import type { QueryInterface } from "sequelize";

/**
 * What a ladder says beyond its rungs' values, what a behaviour rests on, and
 * chains of behaviours.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  for (const [table, column] of [
    ["behaviour", "movement TEXT NOT NULL DEFAULT 'other'"],
    ["behaviour", "template TEXT"],
    ["behaviour", "free TINYINT(1) NOT NULL DEFAULT 0"],
    ["behaviour", "prerequisites TEXT NOT NULL DEFAULT '[]'"],
    ["ladder_version", "hold_on_wrong TINYINT(1) NOT NULL DEFAULT 1"],
    ["ladder_version", "first_touch_cm DOUBLE PRECISION"],
    ["ladder_version", "transfer_gap_s DOUBLE PRECISION"],
    ["ladder_version", "reinforcer TEXT NOT NULL DEFAULT 'food'"],
    ["ladder_version", "piece_g DOUBLE PRECISION"],
    ["ladder_version", "day_limit_g DOUBLE PRECISION"],
    ["ladder_version", "fed_where TEXT NOT NULL DEFAULT ''"],
    ["ladder_version", "polite_s DOUBLE PRECISION NOT NULL DEFAULT 0"],
    ["ladder_version", "ways TEXT NOT NULL DEFAULT '{}'"],
    ["rung", "method TEXT"],
    ["rung", "schedule TEXT"],
    ["rung", "percentile TEXT"],
    ["rung", "kept TEXT"],
  ] as const)
    await run(`ALTER TABLE ${table} ADD COLUMN ${column}`);
  await run(`CREATE TABLE chain (
    id TEXT NOT NULL PRIMARY KEY, horse_id TEXT NOT NULL REFERENCES horse (id) ON DELETE CASCADE, name TEXT NOT NULL,
    direction TEXT NOT NULL, sample TINYINT(1) NOT NULL DEFAULT 0, created_ms DOUBLE PRECISION NOT NULL)`);
  await run(`CREATE TABLE chain_link (
    chain_id TEXT NOT NULL REFERENCES chain (id) ON DELETE CASCADE, position INTEGER NOT NULL,
    ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE, rung INTEGER NOT NULL, PRIMARY KEY (chain_id, position))`);
  await run("CREATE INDEX chain_by_horse ON chain (horse_id)");
  // Evidence now carries its value: every cache counts as stale and is made anew when it is next read.
  await run("UPDATE session_summary SET last_position = -1");
}

import type { QueryInterface } from "sequelize";

/** A number of this size is a time, a length or a count of ours; a text or a blob is larger than every number, and no number here. */
const within = (column: string, least: number, most: number) => `CHECK (${column} BETWEEN ${least} AND ${most})`;
const ms = (column: string, type: string, need = "") => `${column} ${type} ${need} ${within(column, -4e14, 4e14)}`;
const number = (column: string, type: string, need = "") => `${column} ${type} ${need} ${within(column, -1e15, 1e15)}`;
const ofSession = "session_no INTEGER NOT NULL REFERENCES session (no) ON DELETE CASCADE";

/**
 * What is derived of a session cannot be what it is not: numbers are numbers,
 * and each text carries its check sum, by which damage is found when it is
 * read. All of it is made anew. What a package is bringing in stands in a list
 * until all of it is there, so that one that fails is taken away whole.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  for (const table of ["session_summary", "block", "rung_side_summary", "trial"]) await run(`DROP TABLE ${table}`);
  await run(`CREATE TABLE session_summary (
    session_no INTEGER PRIMARY KEY REFERENCES session (no) ON DELETE CASCADE, ${ms("started_ms", "REAL")},
    ${number("finished", "INTEGER", "NOT NULL")}, ${number("seen", "INTEGER", "NOT NULL")}, ${ms("last_ms", "REAL", "NOT NULL")},
    ${ms("runs_on_ms", "REAL")}, ${ms("shift_ms", "REAL", "NOT NULL")}, ${number("work_s", "REAL", "NOT NULL")},
    ${number("n", "INTEGER", "NOT NULL")}, ${number("met", "INTEGER", "NOT NULL")}, ${number("pieces", "INTEGER", "NOT NULL")},
    food_g REAL CHECK (typeof(food_g) <> 'text'), do_next TEXT, struck_notes TEXT, drawing TEXT NOT NULL, digest TEXT NOT NULL,
    past TEXT NOT NULL, circle TEXT, aftermath TEXT)`);
  await run("CREATE INDEX session_summary_struck ON session_summary (session_no) WHERE struck_notes IS NOT NULL");
  await run("CREATE INDEX session_summary_open ON session_summary (session_no) WHERE finished = 0");
  await run(`CREATE TABLE block (
    ${ofSession}, position INTEGER NOT NULL, ${number("number", "INTEGER", "NOT NULL")}, behaviour TEXT NOT NULL,
    ${number("ladder_no", "INTEGER")}, ${number("version", "INTEGER")}, rung TEXT NOT NULL, side TEXT, kind TEXT,
    ${number("seconds", "REAL", "NOT NULL")}, ${number("n", "INTEGER", "NOT NULL")}, ${number("met", "INTEGER", "NOT NULL")},
    PRIMARY KEY (session_no, position)) WITHOUT ROWID`);
  await run("CREATE INDEX block_by_ladder ON block (ladder_no, version)");
  await run(`CREATE TABLE rung_side_summary (
    ${ofSession}, ${number("ladder_no", "INTEGER", "NOT NULL")}, ${number("version", "INTEGER", "NOT NULL")},
    ${number("rung", "INTEGER", "NOT NULL")}, side TEXT NOT NULL, ${number("n", "INTEGER", "NOT NULL")},
    ${number("met", "INTEGER", "NOT NULL")}, ${number("met_at_lightest", "INTEGER", "NOT NULL")},
    PRIMARY KEY (session_no, ladder_no, version, rung, side)) WITHOUT ROWID`);
  await run("CREATE INDEX rung_side_by_ladder ON rung_side_summary (ladder_no, version, rung, n, met, met_at_lightest)");
  await run(`CREATE TABLE trial (
    session_no INTEGER NOT NULL, number INTEGER NOT NULL, ${number("block", "INTEGER")}, ${number("horse_no", "INTEGER", "NOT NULL")},
    ${number("handler_no", "INTEGER")}, ${number("ladder_no", "INTEGER")}, ${number("version", "INTEGER")}, ${number("rung", "INTEGER")},
    side TEXT CHECK (side IN ('L', 'R')), kind TEXT, outcome TEXT NOT NULL CHECK (outcome IN ('met', 'try', 'miss', 'refused')),
    ${number("phase", "INTEGER")}, ${number("ease", "INTEGER")}, value REAL CHECK (typeof(value) <> 'text'), unit TEXT,
    ${ms("wall_ms", "INTEGER", "NOT NULL")}, ${ms("ask_ms", "INTEGER", "NOT NULL")}, ${ms("end_ms", "INTEGER", "NOT NULL")},
    ${ms("answer_ms", "INTEGER")}, ${number("latency_s", "REAL")}, ${number("waited_s", "REAL")}, ${number("release_lag_s", "REAL")},
    ${number("mark_lag_s", "REAL")}, ${number("feed_delay_s", "REAL")}, ${number("wrong_before", "INTEGER", "NOT NULL")},
    ${number("released", "INTEGER")}, ${number("marked", "INTEGER")}, ${number("reinforced", "INTEGER")},
    ${number("reinforcers", "INTEGER")}, zone TEXT, ended_by TEXT, logged TEXT, ${number("flags", "INTEGER", "NOT NULL")},
    ${number("movement", "INTEGER")}, PRIMARY KEY (session_no, number)) WITHOUT ROWID`);
  await run("CREATE INDEX trial_by_ladder ON trial (ladder_no, wall_ms)");
  await run("INSERT OR IGNORE INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL");

  // Taps of helpers that only somebody with full rights may take in.
  await run(`CREATE TABLE tap_aside (id TEXT NOT NULL PRIMARY KEY, session_id TEXT NOT NULL, person_id TEXT, event TEXT NOT NULL,
    aside_ms REAL NOT NULL) WITHOUT ROWID`);
  await run("CREATE INDEX tap_aside_by_person ON tap_aside (person_id)");

  // Sessions that an import cut off by this start left out of sight: the next start takes them away by their mark.
  await run(`CREATE TABLE import_row (mark TEXT NOT NULL, place INTEGER NOT NULL, name TEXT NOT NULL, key TEXT NOT NULL,
    PRIMARY KEY (mark, place)) WITHOUT ROWID`);
}

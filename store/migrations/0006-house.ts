import { type QueryInterface, QueryTypes } from "sequelize";

/** A UUID in small letters is kept as its sixteen bytes; whatever else an old id may be stays text. */
const PACKED = "CASE WHEN id = LOWER(id) AND LENGTH(id) = 36 THEN COALESCE(unhex(id, '-'), id) ELSE id END";
/** And back. */
const TEXT_ID = `CASE TYPEOF(e.id) WHEN 'blob' THEN LOWER(SUBSTR(HEX(e.id), 1, 8) || '-' || SUBSTR(HEX(e.id), 9, 4) || '-' ||
  SUBSTR(HEX(e.id), 13, 4) || '-' || SUBSTR(HEX(e.id), 17, 4) || '-' || SUBSTR(HEX(e.id), 21)) ELSE e.id END`;

/** One for each session, with all of a table's other columns. */
const ofSession = "session_no INTEGER NOT NULL REFERENCES session (no) ON DELETE CASCADE";

/**
 * A house for ten years of data. An event names its session and where it came
 * from by number, and its own id is sixteen bytes: a third of what it took.
 * What is derived of a session stands in narrow rows instead of copies of
 * itself as text: a trial table, blocks, sums by rung, one row of sums. Which
 * of them are behind their events stands in a table of its own. The view
 * event_log shows events as they were tapped.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("ALTER TABLE session ADD COLUMN no INTEGER");
  await run("UPDATE session SET no = rowid");
  await run("CREATE UNIQUE INDEX session_by_no ON session (no)");
  // The order of lists is by kind too, so that a horse's last work is found without the rest of its sessions.
  await run("CREATE INDEX session_by_kind ON session (horse_id, kind, created_ms)");
  await run("CREATE INDEX session_by_person ON session (person_id)");
  await run("CREATE INDEX session_by_place ON session (place_id)");

  await run("CREATE TABLE source (no INTEGER PRIMARY KEY, recorder TEXT NOT NULL, load TEXT NOT NULL, UNIQUE (load, recorder))");
  await run("INSERT INTO source (recorder, load) SELECT DISTINCT recorder, load FROM event");
  const [reach] = await query.sequelize.query<{ seq: number }>("SELECT seq FROM sqlite_sequence WHERE name = 'event'", {
    type: QueryTypes.SELECT,
  });
  await run(`CREATE TABLE event_new (
    position INTEGER PRIMARY KEY AUTOINCREMENT, id BLOB NOT NULL UNIQUE, ${ofSession},
    source_no INTEGER NOT NULL REFERENCES source (no), seq INTEGER NOT NULL, mono_ms REAL NOT NULL, wall_ms REAL NOT NULL,
    type TEXT NOT NULL, payload TEXT NOT NULL, received_ms REAL NOT NULL)`);
  await run(`INSERT INTO event_new (position, id, session_no, source_no, seq, mono_ms, wall_ms, type, payload, received_ms)
    SELECT e.position, p.id, s.no, o.no, e.seq, e.mono_ms, e.wall_ms, e.type, e.payload, e.received_ms
    FROM (SELECT position, ${PACKED} AS id FROM event) p JOIN event e ON e.position = p.position
    JOIN session s ON s.id = e.session_id JOIN source o ON o.load = e.load AND o.recorder = e.recorder ORDER BY e.position`);
  await run("DROP TABLE event");
  await run("ALTER TABLE event_new RENAME TO event");
  await run("CREATE INDEX event_by_session ON event (session_no)");
  // How far the events ever reached must not fall, also where the last ones were removed.
  if (reach !== undefined) {
    await run("DELETE FROM sqlite_sequence WHERE name = 'event'");
    await run(`INSERT INTO sqlite_sequence (name, seq) VALUES ('event', ${reach.seq})`);
  }
  await run(`CREATE VIEW event_log AS SELECT e.position, ${TEXT_ID} AS id, s.id AS session_id, o.recorder, o.load, e.seq, e.mono_ms,
    e.wall_ms, e.type, e.payload, e.received_ms FROM event e JOIN session s ON s.no = e.session_no JOIN source o ON o.no = e.source_no`);

  for (const table of ["session_summary", "block", "rung_side_summary"]) await run(`DROP TABLE ${table}`);
  await run("CREATE TABLE cache_key (no INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE)");
  await run(`CREATE TABLE session_summary (
    session_no INTEGER PRIMARY KEY REFERENCES session (no) ON DELETE CASCADE, started_ms REAL, finished INTEGER NOT NULL,
    seen INTEGER NOT NULL, last_ms REAL NOT NULL, runs_on_ms REAL, shift_ms REAL NOT NULL, work_s REAL NOT NULL, n INTEGER NOT NULL,
    met INTEGER NOT NULL, pieces INTEGER NOT NULL, food_g REAL, do_next TEXT, struck_notes TEXT, drawing TEXT NOT NULL,
    digest TEXT NOT NULL)`);
  await run("CREATE INDEX session_summary_struck ON session_summary (session_no) WHERE struck_notes IS NOT NULL");
  await run("CREATE INDEX session_summary_open ON session_summary (session_no) WHERE finished = 0");
  await run(`CREATE TABLE block (
    ${ofSession}, position INTEGER NOT NULL, number INTEGER NOT NULL, behaviour TEXT NOT NULL, ladder_no INTEGER, version INTEGER,
    rung TEXT NOT NULL, side TEXT, kind TEXT, seconds REAL NOT NULL, n INTEGER NOT NULL, met INTEGER NOT NULL,
    PRIMARY KEY (session_no, position)) WITHOUT ROWID`);
  await run("CREATE INDEX block_by_ladder ON block (ladder_no, version)");
  await run(`CREATE TABLE rung_side_summary (
    ${ofSession}, ladder_no INTEGER NOT NULL, version INTEGER NOT NULL, rung INTEGER NOT NULL, side TEXT NOT NULL, n INTEGER NOT NULL,
    met INTEGER NOT NULL, met_at_lightest INTEGER NOT NULL, PRIMARY KEY (session_no, ladder_no, version, rung, side)) WITHOUT ROWID`);
  await run("CREATE INDEX rung_side_by_ladder ON rung_side_summary (ladder_no, version, rung, n, met, met_at_lightest)");
  // Looking a session up for each of a million trials costs a fifth of writing them: the trigger below does the same in the end.
  await run(`CREATE TABLE trial (
    session_no INTEGER NOT NULL, number INTEGER NOT NULL, block INTEGER, horse_no INTEGER NOT NULL, handler_no INTEGER, ladder_no INTEGER,
    version INTEGER, rung INTEGER, side TEXT, kind TEXT, outcome TEXT NOT NULL, phase INTEGER, ease INTEGER, value REAL, unit TEXT,
    wall_ms INTEGER NOT NULL, ask_ms INTEGER NOT NULL, end_ms INTEGER NOT NULL, answer_ms INTEGER, latency_s REAL, waited_s REAL,
    release_lag_s REAL, mark_lag_s REAL, feed_delay_s REAL, wrong_before INTEGER NOT NULL, released INTEGER, marked INTEGER,
    reinforced INTEGER, reinforcers INTEGER, zone TEXT, ended_by TEXT, logged TEXT, flags INTEGER NOT NULL,
    PRIMARY KEY (session_no, number)) WITHOUT ROWID`);
  await run("CREATE TRIGGER session_gone AFTER DELETE ON session BEGIN DELETE FROM trial WHERE session_no = OLD.no; END");
  await run("CREATE INDEX trial_by_ladder ON trial (ladder_no, wall_ms)");
  await run("CREATE TABLE stale (session_no INTEGER PRIMARY KEY REFERENCES session (no) ON DELETE CASCADE)");
  await run("INSERT INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL");
}

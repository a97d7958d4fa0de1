import type { QueryInterface } from "sequelize";

/** As 0006 shows an id. */
const TEXT_ID = `CASE TYPEOF(e.id) WHEN 'blob' THEN LOWER(SUBSTR(HEX(e.id), 1, 8) || '-' || SUBSTR(HEX(e.id), 9, 4) || '-' ||
  SUBSTR(HEX(e.id), 13, 4) || '-' || SUBSTR(HEX(e.id), 17, 4) || '-' || SUBSTR(HEX(e.id), 21)) ELSE e.id END`;

/**
 * Several people at one horse. Where an event comes from says the part its
 * recorder took (empty: none); people may sign in from the network, each from
 * devices of their own; each sign-in is a row that can be ended.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql);
  await run("DROP VIEW event_log");
  await run(
    "CREATE TABLE source_new (no INTEGER PRIMARY KEY, recorder TEXT NOT NULL, load TEXT NOT NULL, part TEXT NOT NULL DEFAULT '', UNIQUE (load, recorder, part))",
  );
  await run("INSERT INTO source_new (no, recorder, load) SELECT no, recorder, load FROM source");
  await run("DROP TABLE source");
  await run("ALTER TABLE source_new RENAME TO source");
  await run(`CREATE VIEW event_log AS SELECT e.position, ${TEXT_ID} AS id, s.id AS session_id, o.recorder, o.load, o.part, e.seq, e.mono_ms,
    e.wall_ms, e.type, e.payload, e.received_ms FROM event e JOIN session s ON s.no = e.session_no JOIN source o ON o.no = e.source_no`);
  await run("ALTER TABLE person ADD COLUMN access TEXT");
  await run("ALTER TABLE person ADD COLUMN passphrase TEXT");
  await run(`CREATE TABLE sign_in (
    id TEXT PRIMARY KEY, token_hash TEXT NOT NULL UNIQUE, person_id TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    device TEXT NOT NULL, device_name TEXT NOT NULL, recorder TEXT NOT NULL, host TEXT NOT NULL, created_ms REAL NOT NULL,
    used_ms REAL NOT NULL, ended_ms REAL)`);
  await run("CREATE INDEX sign_in_by_device ON sign_in (device)");
  await run("CREATE INDEX sign_in_by_person ON sign_in (person_id)");
}

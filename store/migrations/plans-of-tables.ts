import { QueryTypes, type Sequelize, type Transaction } from "sequelize";

/**
 * A plan as it was kept until 0.14: a head, and three tables that were only
 * ever read whole. What is written here never changes, since stores and
 * packages of that time are brought forward by it.
 */
export const PLAN_TABLES: Readonly<Record<"ladder_version" | "strand" | "rung" | "cue_phase", string>> = {
  ladder_version: `CREATE TABLE ladder_version (ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE, version INTEGER NOT NULL,
    method TEXT NOT NULL, maximum_s DOUBLE PRECISION NOT NULL, mastery TEXT NOT NULL, schedule TEXT NOT NULL, offers TEXT NOT NULL,
    working_strand TEXT, planned INTEGER NOT NULL, created_ms DOUBLE PRECISION NOT NULL, hold_on_wrong TINYINT(1) NOT NULL DEFAULT 1,
    first_touch_cm DOUBLE PRECISION, transfer_gap_s DOUBLE PRECISION, reinforcer TEXT NOT NULL DEFAULT 'food', piece_g DOUBLE PRECISION,
    day_limit_g DOUBLE PRECISION, fed_where TEXT NOT NULL DEFAULT '', polite_s DOUBLE PRECISION NOT NULL DEFAULT 0,
    ways TEXT NOT NULL DEFAULT '{}', conversation TEXT, PRIMARY KEY (ladder_id, version))`,
  strand: `CREATE TABLE strand (ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE, version INTEGER NOT NULL,
    position INTEGER NOT NULL, strand_id TEXT NOT NULL, key TEXT NOT NULL, name TEXT NOT NULL, kind TEXT NOT NULL, unit TEXT NOT NULL,
    levels TEXT NOT NULL, harder TEXT NOT NULL, PRIMARY KEY (ladder_id, version, position))`,
  rung: `CREATE TABLE rung (ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE, version INTEGER NOT NULL,
    number INTEGER NOT NULL, rung_values TEXT NOT NULL, method TEXT, schedule TEXT, percentile TEXT, kept TEXT, least_movement INTEGER,
    handler_most TEXT, PRIMARY KEY (ladder_id, version, number))`,
  cue_phase: `CREATE TABLE cue_phase (ladder_id TEXT NOT NULL REFERENCES ladder (id) ON DELETE CASCADE, version INTEGER NOT NULL,
    number INTEGER NOT NULL, label TEXT NOT NULL, kind TEXT NOT NULL, profile TEXT NOT NULL, dwell_s DOUBLE PRECISION NOT NULL,
    pulses_per_min DOUBLE PRECISION, PRIMARY KEY (ladder_id, version, number))`,
};

type Row = Readonly<Record<string, string | number | null>>;

const HEADS_AT_ONCE = 200;

/** JSON of a column; text that is none stands there as it is, so that whoever opens the plan for repair sees it. */
function jsonOf(text: string | number | null | undefined): unknown {
  if (text === null || text === undefined) return undefined;
  try {
    return JSON.parse(String(text));
  } catch {
    return text;
  }
}

const said = (value: string | number | null | undefined) => value ?? undefined;

/** One plan as a document; keys that hold nothing are not there. */
const documentOf = (head: Row, strands: readonly Row[], rungs: readonly Row[], phases: readonly Row[]): string =>
  JSON.stringify({
    method: head.method,
    maximumSeconds: head.maximum_s,
    mastery: jsonOf(head.mastery),
    schedule: jsonOf(head.schedule),
    offers: head.offers,
    workingStrandId: head.working_strand,
    plannedRepetitions: head.planned,
    holdOnWrong: Boolean(head.hold_on_wrong),
    firstTouchCentimetres: head.first_touch_cm,
    transfer: head.transfer_gap_s === null ? null : { gapSeconds: head.transfer_gap_s },
    feeding: {
      reinforcer: head.reinforcer,
      pieceGrams: head.piece_g,
      dayLimitGrams: head.day_limit_g,
      where: head.fed_where,
      politeSeconds: head.polite_s,
    },
    ways: jsonOf(head.ways),
    conversation: jsonOf(head.conversation),
    strands: strands.map((s) => ({
      id: s.strand_id,
      key: s.key,
      name: s.name,
      kind: s.kind,
      unit: s.unit,
      levels: jsonOf(s.levels),
      harder: s.harder,
    })),
    rungs: rungs.map((r) => ({
      values: jsonOf(r.rung_values),
      method: said(r.method),
      schedule: jsonOf(r.schedule),
      percentile: jsonOf(r.percentile),
      kept: said(r.kept),
      leastMovement: said(r.least_movement),
      handlerMost: jsonOf(r.handler_most),
    })),
    phases: phases.map((p) => ({
      label: p.label,
      kind: p.kind,
      profile: p.profile,
      dwellSeconds: p.dwell_s,
      pulsesPerMinute: p.pulses_per_min,
    })),
  });

/**
 * Takes every plan out of the four tables into `ladder_plan`, and the tables
 * away. A store that is migrated and a package of format 1 that is brought in
 * go through here alike. Memory is bounded; cost grows with the plans.
 */
export async function plansOfTables(sequelize: Sequelize, transaction?: Transaction): Promise<void> {
  const select = (sql: string, bind: Record<string, unknown> = {}) =>
    sequelize.query<Row>(sql, { bind, type: QueryTypes.SELECT, transaction });
  let after: Row = { ladder_id: "", version: 0 };
  for (;;) {
    const heads = await select(
      `SELECT * FROM ladder_version WHERE (ladder_id, version) > ($ladder, $version) ORDER BY ladder_id, version LIMIT ${HEADS_AT_ONCE}`,
      { ladder: after.ladder_id, version: after.version },
    );
    const last = heads.at(-1);
    if (last === undefined) break;
    const keys = JSON.stringify(heads.map(({ ladder_id, version }) => [ladder_id, version]));
    const partsOf = async (table: string, by: string) => {
      const found = new Map<string, Row[]>();
      const rows = await select(
        `SELECT * FROM ${table} WHERE (ladder_id, version) IN (SELECT value->>0, value->>1 FROM json_each($keys)) ORDER BY ${by}`,
        { keys },
      );
      for (const row of rows) {
        const key = JSON.stringify([row.ladder_id, row.version]);
        found.set(key, [...(found.get(key) ?? []), row]);
      }
      return (head: Row) => found.get(JSON.stringify([head.ladder_id, head.version])) ?? [];
    };
    const strands = await partsOf("strand", "position");
    const rungs = await partsOf("rung", "number");
    const phases = await partsOf("cue_phase", "number");
    const documents = heads.map((head) => [
      head.ladder_id,
      head.version,
      documentOf(head, strands(head), rungs(head), phases(head)),
      head.created_ms,
    ]);
    await sequelize.query(
      `INSERT INTO ladder_plan (ladder_id, version, format, document, created_ms)
       SELECT value->>0, value->>1, 1, value->>2, value->>3 FROM json_each($rows)`,
      { bind: { rows: JSON.stringify(documents) }, transaction },
    );
    after = last;
  }
  for (const table of Object.keys(PLAN_TABLES)) await sequelize.query(`DROP TABLE ${table}`, { transaction });
}

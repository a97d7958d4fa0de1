import { DataTypes, type ModelAttributeColumnOptions, type ModelAttributes, type QueryInterface } from "sequelize";

const text = { type: DataTypes.TEXT, allowNull: false } as const;
const maybeText = { type: DataTypes.TEXT, allowNull: true } as const;
const integer = { type: DataTypes.INTEGER, allowNull: false } as const;
const maybeInteger = { type: DataTypes.INTEGER, allowNull: true } as const;
const real = { type: DataTypes.DOUBLE, allowNull: false } as const;
const maybeReal = { type: DataTypes.DOUBLE, allowNull: true } as const;
const flag = { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false } as const;
const id = { type: DataTypes.TEXT, allowNull: false, primaryKey: true } as const;
const of = (table: string) => ({ ...text, references: { model: table, key: "id" }, onDelete: "CASCADE" });
const partOfKey = { primaryKey: true } as const;

/** Sequelize writes the column's name into the description it is given: each table gets descriptions of its own. */
function tables(query: QueryInterface) {
  return (name: string, columns: ModelAttributes) =>
    query.createTable(
      name,
      Object.fromEntries(
        Object.entries(columns).map(([column, description]) => [column, { ...(description as ModelAttributeColumnOptions) }]),
      ),
    );
}

/** The tables of the whole line, from the horse to the caches. */
export async function up(query: QueryInterface): Promise<void> {
  const create = tables(query);
  await create("store_meta", { key: id, value: text });
  await create("person", { id, name: text, role: text, sample: flag, created_ms: real });
  await create("place", { id, name: text, shape: text, length_m: maybeReal, width_m: maybeReal, sample: flag, created_ms: real });
  await create("horse", {
    id,
    name: text,
    birth_year: maybeInteger,
    sex: maybeText,
    kind: text,
    height_cm: maybeReal,
    mass_kg: maybeReal,
    history: text,
    restrictions: text,
    sample: flag,
    created_ms: real,
  });
  await create("behaviour", { id, name: text, finished: text, cue: text, why: text, sample: flag });
  await create("ladder", {
    id,
    horse_id: of("horse"),
    behaviour_id: of("behaviour"),
    version: integer,
    sample: flag,
    created_ms: real,
  });
  await create("ladder_version", {
    ladder_id: { ...of("ladder"), ...partOfKey },
    version: { ...integer, ...partOfKey },
    method: text,
    maximum_s: real,
    mastery: text,
    schedule: text,
    offers: text,
    working_strand: maybeText,
    planned: integer,
    created_ms: real,
  });
  const ofVersion = { ladder_id: { ...of("ladder"), ...partOfKey }, version: { ...integer, ...partOfKey } };
  await create("strand", {
    ...ofVersion,
    position: { ...integer, ...partOfKey },
    strand_id: text,
    key: text,
    name: text,
    kind: text,
    unit: text,
    levels: text,
    harder: text,
  });
  await create("rung", { ...ofVersion, number: { ...integer, ...partOfKey }, rung_values: text });
  await create("cue_phase", {
    ...ofVersion,
    number: { ...integer, ...partOfKey },
    label: text,
    kind: text,
    profile: text,
    dwell_s: real,
    pulses_per_min: maybeReal,
  });
  await create("session", {
    id,
    horse_id: of("horse"),
    person_id: { ...maybeText, references: { model: "person", key: "id" }, onDelete: "SET NULL" },
    place_id: { ...maybeText, references: { model: "place", key: "id" }, onDelete: "SET NULL" },
    ladder_id: of("ladder"),
    ladder_version: integer,
    start_rung: integer,
    sample: flag,
    created_ms: real,
  });
  await create("event", {
    position: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
    id: { ...text, unique: true },
    session_id: of("session"),
    recorder: text,
    load: text,
    seq: integer,
    mono_ms: real,
    wall_ms: real,
    type: text,
    payload: text,
    received_ms: real,
  });
  await create("recorder_clock", { load: id, recorder: text, offset_ms: real });
  await create("session_summary", {
    session_id: { ...of("session"), ...partOfKey },
    last_position: integer,
    started_ms: maybeReal,
    finished: flag,
    work_s: real,
    n: integer,
    met: integer,
    record: text,
    evidence: text,
  });
  await create("block", {
    session_id: { ...of("session"), ...partOfKey },
    position: { ...integer, ...partOfKey },
    number: integer,
    behaviour: text,
    ladder_id: maybeText,
    version: maybeInteger,
    rung: text,
    side: maybeText,
    kind: maybeText,
    seconds: real,
    n: integer,
    met: integer,
  });
  await create("rung_side_summary", {
    session_id: { ...of("session"), ...partOfKey },
    ladder_id: { ...text, ...partOfKey },
    version: { ...integer, ...partOfKey },
    rung: { ...integer, ...partOfKey },
    side: { ...text, ...partOfKey },
    n: integer,
    met: integer,
    met_at_lightest: integer,
  });
  await query.addIndex("event", ["session_id", "position"], { name: "event_by_session" });
  await query.addIndex("session", ["horse_id", "created_ms"], { name: "session_by_horse" });
  await query.addIndex("session", ["ladder_id", "created_ms"], { name: "session_by_ladder" });
  await query.addIndex("ladder", ["horse_id"], { name: "ladder_by_horse" });
  await query.addIndex("rung_side_summary", ["ladder_id", "version"], { name: "rung_side_by_ladder" });
}

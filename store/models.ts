import { DataTypes, type Model, type ModelStatic, type Sequelize } from "sequelize";

/** Rows as the tables hold them. JSON columns are text. */
export interface PersonRow {
  id: string;
  name: string;
  role: string;
  sample: boolean;
  created_ms: number;
}
export interface PlaceRow {
  id: string;
  name: string;
  shape: string;
  length_m: number | null;
  width_m: number | null;
  footing: string;
  fence: string;
  sample: boolean;
  created_ms: number;
}
export interface PlaceItemRow {
  place_id: string;
  position: number;
  name: string;
  kind: string;
  x_m: number;
  y_m: number;
  across_m: number;
  down_m: number;
}
export interface KitRow {
  id: string;
  name: string;
  kind: string;
  length_m: number | null;
  mass_g: number | null;
  buckles_equal: boolean | null;
  note: string;
  sample: boolean;
  created_ms: number;
}
export interface PracticeRow {
  id: string;
  person_id: string;
  day: string;
  what: string;
  minutes: number;
  note: string;
  created_ms: number;
}
export interface HorseRow {
  id: string;
  name: string;
  born_day: string | null;
  birth_year: number | null;
  sex: string | null;
  kind: string;
  height_cm: number | null;
  mass_kg: number | null;
  history: string;
  triggers: string;
  preferred_reinforcers: string;
  resting_breaths_per_min: number | null;
  resting_heart_per_min: number | null;
  /** Why the horse is put away for now, or null where it is in work. */
  away: string | null;
  away_since: string | null;
  away_note: string;
  sample: boolean;
  created_ms: number;
}
export interface RestrictionRow {
  id: string;
  horse_id: string;
  kind: string;
  amount: number | null;
  detail: string;
  reason: string;
  given_by: string;
  from_day: string | null;
  until_day: string | null;
  created_ms: number;
}
export interface HorsePhotoRow {
  horse_id: string;
  type: string;
  bytes: Buffer;
  changed_ms: number;
}
export interface BehaviourRow {
  id: string;
  name: string;
  finished: string;
  cue: string;
  why: string;
  /** JSON list of what the behaviour involves that a restriction may name. */
  involves: string;
  sample: boolean;
}
export interface LadderRow {
  id: string;
  horse_id: string;
  behaviour_id: string;
  version: number;
  sample: boolean;
  created_ms: number;
}
export interface LadderVersionRow {
  ladder_id: string;
  version: number;
  method: string;
  maximum_s: number;
  mastery: string;
  schedule: string;
  offers: string;
  working_strand: string | null;
  planned: number;
  created_ms: number;
}
export interface StrandRow {
  ladder_id: string;
  version: number;
  position: number;
  strand_id: string;
  key: string;
  name: string;
  kind: string;
  unit: string;
  levels: string;
  harder: string;
}
export interface RungRow {
  ladder_id: string;
  version: number;
  number: number;
  rung_values: string;
}
export interface CuePhaseRow {
  ladder_id: string;
  version: number;
  number: number;
  label: string;
  kind: string;
  profile: string;
  dwell_s: number;
  pulses_per_min: number | null;
}
export interface SessionRow {
  id: string;
  horse_id: string;
  person_id: string | null;
  place_id: string | null;
  kind: string;
  /** Null where the session is not work on a ladder. */
  ladder_id: string | null;
  ladder_version: number | null;
  start_rung: number | null;
  /** JSON list of kit ids. */
  kit: string;
  sample: boolean;
  created_ms: number;
}
export interface EventRow {
  position?: number;
  id: string;
  session_id: string;
  recorder: string;
  load: string;
  seq: number;
  mono_ms: number;
  wall_ms: number;
  type: string;
  payload: string;
  received_ms: number;
}
export interface RecorderClockRow {
  load: string;
  recorder: string;
  offset_ms: number;
}
export interface SessionSummaryRow {
  session_id: string;
  last_position: number;
  started_ms: number | null;
  finished: boolean;
  work_s: number;
  n: number;
  met: number;
  record: string;
  evidence: string;
  digest: string;
}
export interface BlockRow {
  session_id: string;
  position: number;
  number: number;
  behaviour: string;
  ladder_id: string | null;
  version: number | null;
  rung: string;
  side: string | null;
  kind: string | null;
  seconds: number;
  n: number;
  met: number;
}
export interface RungSideSummaryRow {
  session_id: string;
  ladder_id: string;
  version: number;
  rung: number;
  side: string;
  n: number;
  met: number;
  met_at_lightest: number;
}
export interface StoreMetaRow {
  key: string;
  value: string;
}

type Table<Row extends object> = ModelStatic<Model<Row, Partial<Row>>>;

const TEXT = { type: DataTypes.TEXT };
const WHOLE = { type: DataTypes.INTEGER };
const REAL = { type: DataTypes.DOUBLE };
const FLAG = { type: DataTypes.BOOLEAN };
const KEY = { ...TEXT, primaryKey: true };
const WHOLE_KEY = { ...WHOLE, primaryKey: true };
const VERSION_KEY = { ladder_id: KEY, version: WHOLE_KEY };

/** The models of one open store. */
export function defineModels(sequelize: Sequelize) {
  const table = <Row extends object>(name: string, columns: Record<keyof Row & string, object>) =>
    // Sequelize writes into the descriptions it is given, so each model gets its own.
    sequelize.define<Model<Row, Partial<Row>>>(
      name,
      Object.fromEntries(Object.entries<object>(columns).map(([column, d]) => [column, { ...d }])) as never,
    ) as Table<Row>;
  return {
    meta: table<StoreMetaRow>("store_meta", { key: KEY, value: TEXT }),
    person: table<PersonRow>("person", { id: KEY, name: TEXT, role: TEXT, sample: FLAG, created_ms: REAL }),
    place: table<PlaceRow>("place", {
      id: KEY,
      name: TEXT,
      shape: TEXT,
      length_m: REAL,
      width_m: REAL,
      footing: TEXT,
      fence: TEXT,
      sample: FLAG,
      created_ms: REAL,
    }),
    placeItem: table<PlaceItemRow>("place_item", {
      place_id: KEY,
      position: WHOLE_KEY,
      name: TEXT,
      kind: TEXT,
      x_m: REAL,
      y_m: REAL,
      across_m: REAL,
      down_m: REAL,
    }),
    kit: table<KitRow>("kit", {
      id: KEY,
      name: TEXT,
      kind: TEXT,
      length_m: REAL,
      mass_g: REAL,
      buckles_equal: FLAG,
      note: TEXT,
      sample: FLAG,
      created_ms: REAL,
    }),
    practice: table<PracticeRow>("practice", {
      id: KEY,
      person_id: TEXT,
      day: TEXT,
      what: TEXT,
      minutes: WHOLE,
      note: TEXT,
      created_ms: REAL,
    }),
    restriction: table<RestrictionRow>("restriction", {
      id: KEY,
      horse_id: TEXT,
      kind: TEXT,
      amount: REAL,
      detail: TEXT,
      reason: TEXT,
      given_by: TEXT,
      from_day: TEXT,
      until_day: TEXT,
      created_ms: REAL,
    }),
    horsePhoto: table<HorsePhotoRow>("horse_photo", { horse_id: KEY, type: TEXT, bytes: { type: DataTypes.BLOB }, changed_ms: REAL }),
    horse: table<HorseRow>("horse", {
      id: KEY,
      name: TEXT,
      born_day: TEXT,
      birth_year: WHOLE,
      sex: TEXT,
      kind: TEXT,
      height_cm: REAL,
      mass_kg: REAL,
      history: TEXT,
      triggers: TEXT,
      preferred_reinforcers: TEXT,
      resting_breaths_per_min: REAL,
      resting_heart_per_min: REAL,
      away: TEXT,
      away_since: TEXT,
      away_note: TEXT,
      sample: FLAG,
      created_ms: REAL,
    }),
    behaviour: table<BehaviourRow>("behaviour", {
      id: KEY,
      name: TEXT,
      finished: TEXT,
      cue: TEXT,
      why: TEXT,
      involves: TEXT,
      sample: FLAG,
    }),
    ladder: table<LadderRow>("ladder", { id: KEY, horse_id: TEXT, behaviour_id: TEXT, version: WHOLE, sample: FLAG, created_ms: REAL }),
    ladderVersion: table<LadderVersionRow>("ladder_version", {
      ...VERSION_KEY,
      method: TEXT,
      maximum_s: REAL,
      mastery: TEXT,
      schedule: TEXT,
      offers: TEXT,
      working_strand: TEXT,
      planned: WHOLE,
      created_ms: REAL,
    }),
    strand: table<StrandRow>("strand", {
      ...VERSION_KEY,
      position: WHOLE_KEY,
      strand_id: TEXT,
      key: TEXT,
      name: TEXT,
      kind: TEXT,
      unit: TEXT,
      levels: TEXT,
      harder: TEXT,
    }),
    rung: table<RungRow>("rung", { ...VERSION_KEY, number: WHOLE_KEY, rung_values: TEXT }),
    cuePhase: table<CuePhaseRow>("cue_phase", {
      ...VERSION_KEY,
      number: WHOLE_KEY,
      label: TEXT,
      kind: TEXT,
      profile: TEXT,
      dwell_s: REAL,
      pulses_per_min: REAL,
    }),
    session: table<SessionRow>("session", {
      id: KEY,
      horse_id: TEXT,
      person_id: TEXT,
      place_id: TEXT,
      kind: TEXT,
      ladder_id: TEXT,
      ladder_version: WHOLE,
      start_rung: WHOLE,
      kit: TEXT,
      sample: FLAG,
      created_ms: REAL,
    }),
    event: table<EventRow>("event", {
      position: { ...WHOLE_KEY, autoIncrement: true },
      id: TEXT,
      session_id: TEXT,
      recorder: TEXT,
      load: TEXT,
      seq: WHOLE,
      mono_ms: REAL,
      wall_ms: REAL,
      type: TEXT,
      payload: TEXT,
      received_ms: REAL,
    }),
    recorderClock: table<RecorderClockRow>("recorder_clock", { load: KEY, recorder: TEXT, offset_ms: REAL }),
    sessionSummary: table<SessionSummaryRow>("session_summary", {
      session_id: KEY,
      last_position: WHOLE,
      started_ms: REAL,
      finished: FLAG,
      work_s: REAL,
      n: WHOLE,
      met: WHOLE,
      record: TEXT,
      evidence: TEXT,
      digest: TEXT,
    }),
    block: table<BlockRow>("block", {
      session_id: KEY,
      position: WHOLE_KEY,
      number: WHOLE,
      behaviour: TEXT,
      ladder_id: TEXT,
      version: WHOLE,
      rung: TEXT,
      side: TEXT,
      kind: TEXT,
      seconds: REAL,
      n: WHOLE,
      met: WHOLE,
    }),
    rungSideSummary: table<RungSideSummaryRow>("rung_side_summary", {
      session_id: KEY,
      ladder_id: KEY,
      version: WHOLE_KEY,
      rung: WHOLE_KEY,
      side: KEY,
      n: WHOLE,
      met: WHOLE,
      met_at_lightest: WHOLE,
    }),
  };
}

export type Models = ReturnType<typeof defineModels>;

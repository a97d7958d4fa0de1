import { QueryTypes, type Sequelize } from "sequelize";

/** A table as a package holds it. */
export interface PackedTable {
  readonly name: string;
  /** What tells its rows apart. */
  readonly key: readonly string[];
  /** Columns that stay at home. */
  readonly but?: readonly string[];
}

/** The format a package is written in. Format 1 held a plan in four tables. */
export const PACKAGE_FORMAT = 2;

/** Every table a package holds, each after those it points at. Events are told apart by their own id, and carry where they came from. */
export const PACKED_TABLES: readonly PackedTable[] = [
  { name: "person", key: ["id"], but: ["access", "passphrase"] },
  { name: "place", key: ["id"] },
  { name: "place_item", key: ["place_id", "position"] },
  { name: "kit", key: ["id"] },
  { name: "practice", key: ["id"] },
  { name: "horse", key: ["id"] },
  { name: "horse_photo", key: ["horse_id"] },
  { name: "horse_date", key: ["id"] },
  { name: "restriction", key: ["id"] },
  { name: "behaviour", key: ["id"] },
  { name: "ladder", key: ["id"] },
  { name: "ladder_plan", key: ["ladder_id", "version"] },
  { name: "chain", key: ["id"] },
  { name: "chain_link", key: ["chain_id", "position"] },
  { name: "try_both", key: ["id"] },
  { name: "circle_setup", key: ["horse_id"] },
  { name: "kit_fit", key: ["horse_id", "kit_id"] },
  { name: "hand_load", key: ["id"] },
  { name: "own_sign", key: ["class", "name"] },
  { name: "recorder_clock", key: ["load"] },
  { name: "session", key: ["id"], but: ["no"] },
];

/** The log of taps, under this name in a package. */
export const EVENTS_FILE = "event";
/** What of the store's own facts travels. */
export const SETTINGS_KEYS: readonly string[] = ["word-settings", "import-mapping"];
export const SETTINGS_FILE = "settings";

/** Tables that are in no package, each with its reason: a test holds the two lists against the store. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
  trial: "worked out from the events",
  block: "worked out from the events",
  rung_side_summary: "worked out from the events",
  session_summary: "worked out from the events",
  cache_key: "numbers of what is worked out",
  stale: "what is to be worked out",
  sign_in: "secrets of this computer",
  import_row: "what is on its way in",
  tap_aside: "taps that are not taken; they stay on their devices",
  source: "stands with each event",
  migration: "the program's own",
  store_meta: "this computer's own; the settings are in a file of theirs",
};

/** A column with what it may hold. */
export interface PackedColumn {
  readonly name: string;
  readonly type: "string" | "number" | "integer" | "bytes";
  readonly required: boolean;
}

/** The columns of the log, as the view shows it. */
export const EVENT_COLUMNS: readonly PackedColumn[] = [
  { name: "id", type: "string", required: true },
  { name: "session_id", type: "string", required: true },
  { name: "recorder", type: "string", required: false },
  { name: "load", type: "string", required: true },
  { name: "part", type: "string", required: false },
  { name: "seq", type: "integer", required: true },
  { name: "mono_ms", type: "number", required: true },
  { name: "wall_ms", type: "number", required: true },
  { name: "type", type: "string", required: true },
  { name: "payload", type: "string", required: true },
  { name: "received_ms", type: "number", required: true },
];

const typeOf = (declared: string): PackedColumn["type"] =>
  /BLOB/i.test(declared) ? "bytes" : /INT/i.test(declared) ? "integer" : /REAL|DOUBLE|FLOAT/i.test(declared) ? "number" : "string";

/** The columns of a table as this version of the store has them, in its own order, those that stay at home aside. */
export async function columnsOf(sequelize: Sequelize, table: PackedTable): Promise<PackedColumn[]> {
  const rows = await sequelize.query<{ name: string; type: string; notnull: number; dflt_value: string | null }>(
    `SELECT name, type, "notnull", dflt_value FROM pragma_table_info($table) ORDER BY cid`,
    { bind: { table: table.name }, type: QueryTypes.SELECT },
  );
  return rows
    .filter(({ name }) => table.but?.includes(name) !== true)
    .map(({ name, type, notnull, dflt_value }) => ({ name, type: typeOf(type), required: notnull === 1 && dflt_value === null }));
}

import { QueryTypes, type Sequelize } from "sequelize";
import { TABLES, type Table } from "../tables";

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
export const PACKED_TABLES: readonly PackedTable[] = Object.values<Table>(TABLES).flatMap(({ name, packed, stays }) =>
  packed === null ? [] : [{ name, key: packed, ...(stays.length === 0 ? {} : { but: stays }) }],
);

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

const TYPES = { text: "string", whole: "integer", real: "number", flag: "integer", blob: "bytes" } as const;
/** Of the log what may be an empty text. */
const EMPTY_IN_LOG: ReadonlySet<string> = new Set(["recorder", "part"]);

/** The columns of the log, as the view shows it; where it stands in this store stays at home. */
export const EVENT_COLUMNS: readonly PackedColumn[] = Object.entries(TABLES.eventLog.columns)
  .filter(([name]) => name !== "position")
  .map(([name, { kind }]) => ({ name, type: TYPES[kind], required: !EMPTY_IN_LOG.has(name) }));

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

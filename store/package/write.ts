import { createHash } from "node:crypto";
import { strToU8, Zip, ZipDeflate } from "fflate";
import { QueryTypes } from "sequelize";
import { packageCell, packageLine } from "@/core/formats";
import type { Store } from "../store";
import {
  columnsOf,
  EVENT_COLUMNS,
  EVENTS_FILE,
  PACKAGE_FORMAT,
  PACKED_TABLES,
  type PackedColumn,
  SETTINGS_FILE,
  SETTINGS_KEYS,
} from "./tables";

const ROWS_AT_ONCE = 2000;
/** Every file of a package has this date, so that the same rows make the same bytes. */
const MADE = new Date(Date.UTC(2000, 0, 1, 12));

type Row = Readonly<Record<string, string | number | Buffer | null>>;

const cellOf = (value: string | number | Buffer | null | undefined): string =>
  value === undefined || value === null ? "" : Buffer.isBuffer(value) ? value.toString("base64") : packageCell(value);

const lineOf = (row: Row, columns: readonly PackedColumn[]) => packageLine(columns.map(({ name }) => cellOf(row[name])));

const headOf = (columns: readonly PackedColumn[]) => packageLine(columns.map(({ name }) => name));

/** The rows of a table in the order of their key, part after part. */
async function* rowsOfTable(store: Store, name: string, key: readonly string[], columns: readonly PackedColumn[]): AsyncGenerator<Row[]> {
  const names = columns.map((column) => `"${column.name}"`).join(", ");
  for (let at = 0; ; at += ROWS_AT_ONCE) {
    const rows = await store.sequelize.query<Row>(
      `SELECT ${names} FROM "${name}" ORDER BY ${key.map((one) => `"${one}"`).join(", ")} LIMIT ${ROWS_AT_ONCE} OFFSET ${at}`,
      { type: QueryTypes.SELECT },
    );
    if (rows.length > 0) yield rows;
    if (rows.length < ROWS_AT_ONCE) return;
  }
}

/** The log, session after session in the order of their ids, and within each as it came from its devices. */
async function* eventRows(store: Store): AsyncGenerator<Row[]> {
  const sessions = await store.sequelize.query<{ no: number }>("SELECT no FROM session ORDER BY id", { type: QueryTypes.SELECT });
  const names = EVENT_COLUMNS.map(({ name }) => `l.${name}`).join(", ");
  for (let at = 0; at < sessions.length; at += 20) {
    const nos = sessions.slice(at, at + 20).map(({ no }) => no);
    const rows = await store.sequelize.query<Row & { readonly at: number }>(
      `SELECT ${names}, j.key AS at FROM json_each($nos) j CROSS JOIN event e ON e.session_no = j.value
       CROSS JOIN event_log l ON l.position = e.position ORDER BY j.key, l.load, l.recorder, l.part, l.seq, l.id`,
      { bind: { nos: JSON.stringify(nos) }, type: QueryTypes.SELECT },
    );
    if (rows.length > 0) yield rows;
  }
}

/** A table schema of the Data Package standard. */
const schemaOf = (columns: readonly PackedColumn[], key: readonly string[]) => ({
  fields: columns.map(({ name, type, required }) => ({
    name,
    type: type === "bytes" ? "string" : type,
    ...(type === "bytes" ? { format: "binary" } : {}),
    ...(required ? { constraints: { required: true } } : {}),
  })),
  primaryKey: [...key],
  missingValues: [""],
});

/**
 * The whole store as one file: a zip with a CSV for each table and what they
 * hold in datapackage.json (Data Package standard). Caches, secrets and what
 * belongs to this computer stay at home. The same rows make the same bytes,
 * but for the time it was made. Memory is bounded; cost grows with the rows.
 */
export async function* writePackage(store: Store, made: { readonly version: string; readonly nowMs: number }): AsyncGenerator<Uint8Array> {
  let waiting: Uint8Array[] = [];
  let failed: Error | null = null;
  const zip = new Zip((error, piece) => {
    if (error !== null) failed = error;
    else waiting.push(piece);
  });
  const drain = function* () {
    if (failed !== null) throw failed;
    const pieces = waiting;
    waiting = [];
    yield* pieces;
  };
  const hashed = new Map<string, { hash: string; bytes: number }>();
  /** A file of the zip that is told its pieces, and hashed by them. */
  const add = (name: string) => {
    const file = new ZipDeflate(name, { level: 3 });
    file.mtime = MADE;
    zip.add(file);
    const hash = createHash("sha256");
    let bytes = 0;
    return {
      push: (text: string) => {
        const piece = strToU8(text);
        hash.update(piece);
        bytes += piece.length;
        file.push(piece);
      },
      end: () => {
        file.push(new Uint8Array(0), true);
        hashed.set(name, { hash: `sha256:${hash.digest("hex")}`, bytes });
      },
    };
  };
  const resources: { readonly path: string; readonly [key: string]: unknown }[] = [];
  const files: { name: string; columns: readonly PackedColumn[]; key: readonly string[]; rows: AsyncGenerator<Row[]> }[] = [];
  for (const table of PACKED_TABLES) {
    const columns = await columnsOf(store.sequelize, table);
    files.push({ name: table.name, columns, key: table.key, rows: rowsOfTable(store, table.name, table.key, columns) });
  }
  files.push({ name: EVENTS_FILE, columns: EVENT_COLUMNS, key: ["id"], rows: eventRows(store) });
  for (const { name, columns, key } of files)
    resources.push({ name, path: `${name}.csv`, format: "csv", mediatype: "text/csv", encoding: "utf-8", schema: schemaOf(columns, key) });
  const settings: readonly PackedColumn[] = [
    { name: "key", type: "string", required: true },
    { name: "value", type: "string", required: true },
  ];
  resources.push({
    name: SETTINGS_FILE,
    path: `${SETTINGS_FILE}.csv`,
    format: "csv",
    encoding: "utf-8",
    schema: schemaOf(settings, ["key"]),
  });
  for (const { name, columns, rows } of files) {
    const file = add(`${name}.csv`);
    file.push(headOf(columns));
    for await (const part of rows) {
      file.push(part.map((row) => lineOf(row, columns)).join(""));
      yield* drain();
      // Whoever taps meanwhile gets in between.
      await new Promise((resolve) => setImmediate(resolve));
    }
    file.end();
    yield* drain();
  }
  const own = add(`${SETTINGS_FILE}.csv`);
  const kept = (await store.models.meta.findAll()).map((row) => ({ key: String(row.get("key")), value: String(row.get("value")) }));
  own.push(
    headOf(settings) +
      kept
        .filter(({ key }) => SETTINGS_KEYS.includes(key))
        .sort((a, b) => (a.key < b.key ? -1 : 1))
        .map((row) => lineOf(row, settings))
        .join(""),
  );
  own.end();
  yield* drain();
  // Last, since it holds the hash of every other file.
  const descriptor = add("datapackage.json");
  descriptor.push(
    `${JSON.stringify({ profile: "tabular-data-package", name: "deft-tether-yard", created: new Date(made.nowMs).toISOString(), "deft-tether": { version: made.version, format: PACKAGE_FORMAT }, resources: resources.map((one) => ({ ...one, ...hashed.get(one.path) })) }, null, 1)}\n`,
  );
  descriptor.end();
  zip.end();
  yield* drain();
}

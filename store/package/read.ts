import { statSync } from "node:fs";
import { QueryTypes } from "sequelize";
import { checkPayload, EVENT_TYPES, type EventType, wallClockPlausible } from "@/core/events";
import { CsvPieces, NotSuchAFileError } from "@/core/formats";
import { fieldsOf } from "@/core/typed";
import { markAllStale } from "../caches";
import type { Store } from "../store";
import type { Cell } from "../tables";
import { bringForward, makeRoom, PLAN_FILE_VALUES, PLAN_FILES } from "./format-1";
import {
  columnsOf,
  EVENT_COLUMNS,
  EVENTS_FILE,
  PACKAGE_FORMAT,
  PACKED_TABLES,
  type PackedColumn,
  type PackedTable,
  SETTINGS_FILE,
  SETTINGS_KEYS,
} from "./tables";
import { type FileTaker, problem, type TypedFile, typedRows } from "./typed-rows";
import { VALUES } from "./values";
import { CheckedZip, type Promised } from "./zip";

/** What is told while a file is read. */
export interface Reading {
  /** Bytes of the file taken so far. */
  readonly onBytes?: (bytes: number) => void;
  /** Asked between parts: whether to give up. */
  readonly cancelled?: () => boolean;
}

/** Thrown where whoever asked for it gave up. */
export class CancelledError extends Error {
  readonly code = "cancelled";
}

/** Longer than any row of a yard: a picture is the longest. */
const LONGEST_PICTURE_ROW = 8 * 1024 * 1024;
const LONGEST_ROW = 1024 * 1024;
const LONGEST_DESCRIPTOR = 4 * 1024 * 1024;

/** The tables of a package by its format. */
const tablesOf = (format: number): readonly PackedTable[] =>
  format === 1 ? PACKED_TABLES.flatMap((table) => (table.name === "ladder_plan" ? PLAN_FILES : [table])) : PACKED_TABLES;

/** The names of every file that a package of any format holds. */
const EVERY_FILE: ReadonlySet<string> = new Set(
  [...[...tablesOf(1), ...tablesOf(PACKAGE_FORMAT)].map(({ name }) => name), EVENTS_FILE, SETTINGS_FILE].map((name) => `${name}.csv`),
);

const insertSql = (table: string, names: readonly string[]) =>
  `INSERT INTO "${table}" (${names.map((name) => `"${name}"`).join(", ")}) SELECT ${names.map((_, i) => `value->>${i}`).join(", ")} FROM jsonb_each(jsonb($rows))`;

const fits = (file: string, line: number, error: unknown) =>
  problem(
    file,
    line,
    `the rows up to here do not fit together (${error instanceof Error ? error.message.replace(/^SQLITE_\w+: /, "").slice(0, 120) : "refused"}).`,
  );

function tableTaker(store: Store, table: PackedTable, columns: readonly PackedColumn[]): FileTaker {
  const file = `${table.name}.csv`;
  const put: TypedFile["put"] = async (names, rows, lines) => {
    try {
      await store.writer.write(async (transaction) => {
        if (table.name === "horse_photo") {
          const bytes = names.indexOf("bytes");
          await store.models.horsePhoto.bulkCreate(
            rows.map((row) =>
              Object.fromEntries(names.map((name, i) => [name, i === bytes ? Buffer.from(String(row[i]), "base64") : row[i]])),
            ) as never,
            { transaction },
          );
          return;
        }
        await store.sequelize.query(insertSql(table.name, names), { bind: { rows: JSON.stringify(rows) }, transaction });
        if (table.name === "session") await store.sequelize.query("UPDATE session SET no = rowid WHERE no IS NULL", { transaction });
      });
    } catch (error) {
      throw fits(file, lines.at(-1) ?? 1, error);
    }
  };
  return typedRows({ name: table.name, columns, values: VALUES[table.name] ?? PLAN_FILE_VALUES[table.name], put });
}

const KNOWN_TYPES: ReadonlySet<string> = new Set(EVENT_TYPES);
const MOST_KNOWN_PAYLOADS = 50_000;

/** Takes the log: each payload checked as a device's would be, the same text only once. */
function eventTaker(store: Store): FileTaker {
  const file = `${EVENTS_FILE}.csv`;
  const known = new Map<string, true>();
  const sources = new Map<string, number>();
  let offsets: ReadonlyMap<string, number> | null = null;
  const check = (type: string, payload: string): string | null => {
    const key = `${type} ${payload}`;
    if (known.has(key)) return null;
    if (!KNOWN_TYPES.has(type)) return `there is no event “${type.slice(0, 40)}”.`;
    let value: unknown;
    try {
      value = JSON.parse(payload);
    } catch {
      return "“payload” cannot be read.";
    }
    const checked = checkPayload(type as EventType, value);
    if (!checked.ok) return checked.problems[0]?.message ?? "“payload” is wrong.";
    if (known.size > MOST_KNOWN_PAYLOADS) known.clear();
    known.set(key, true);
    return null;
  };
  const put: TypedFile["put"] = async (names, rows, lines) => {
    offsets ??= await clockOffsets(store);
    const at = Object.fromEntries(names.map((name, i) => [name, i])) as Record<string, number>;
    const cell = (row: readonly Cell[], name: string): Cell => row[at[name] ?? -1] ?? null;
    for (const [i, row] of rows.entries()) {
      const wrong = check(String(cell(row, "type")), String(cell(row, "payload")));
      const here = lines[i] ?? 1;
      if (wrong !== null) throw problem(file, here, wrong);
      // As for taps that come from a device: by its clock as it was put right.
      const offset = offsets.get(String(cell(row, "load")).toLowerCase()) ?? 0;
      if (!wallClockPlausible(Number(cell(row, "wall_ms")), offset, store.now()))
        throw problem(file, here, `“wall_ms” ${String(cell(row, "wall_ms")).slice(0, 40)} is no time of ours.`);
    }
    try {
      await store.writer.write(async (transaction) => {
        const wanted = new Map(
          rows.map((row) => {
            const source = [String(cell(row, "recorder") ?? ""), String(cell(row, "load")), String(cell(row, "part") ?? "")] as const;
            return [JSON.stringify(source), source] as const;
          }),
        );
        const fresh = [...wanted].filter(([key]) => !sources.has(key));
        if (fresh.length > 0) {
          await store.sequelize.query(
            "INSERT OR IGNORE INTO source (recorder, load, part) SELECT value->>0, value->>1, value->>2 FROM json_each($rows)",
            { bind: { rows: JSON.stringify(fresh.map(([, source]) => source)) }, transaction },
          );
          const found = await store.sequelize.query<{ no: number; recorder: string; load: string; part: string }>(
            "SELECT s.no, s.recorder, s.load, s.part FROM json_each($rows) j CROSS JOIN source s ON s.load = j.value->>1 AND s.recorder = j.value->>0 AND s.part = j.value->>2",
            { bind: { rows: JSON.stringify(fresh.map(([, source]) => source)) }, type: QueryTypes.SELECT, transaction },
          );
          for (const { no, recorder, load, part } of found) sources.set(JSON.stringify([recorder, load, part]), no);
        }
        const packed = rows.map((row) => {
          const key = JSON.stringify([String(cell(row, "recorder") ?? ""), String(cell(row, "load")), String(cell(row, "part") ?? "")]);
          return [
            cell(row, "id"),
            cell(row, "session_id"),
            sources.get(key),
            cell(row, "seq"),
            cell(row, "mono_ms"),
            cell(row, "wall_ms"),
            cell(row, "type"),
            cell(row, "payload"),
            cell(row, "received_ms"),
          ];
        });
        await store.sequelize.query(EVENT_INSERT, { bind: { rows: JSON.stringify(packed) }, transaction });
      }, "sums");
    } catch (error) {
      if (error instanceof NotSuchAFileError) throw error;
      throw fits(file, lines.at(-1) ?? 1, error);
    }
  };
  return typedRows({ name: EVENTS_FILE, columns: EVENT_COLUMNS, values: VALUES[EVENTS_FILE], put });
}

async function clockOffsets(store: Store): Promise<ReadonlyMap<string, number>> {
  const rows = await store.sequelize.query<{ load: string; offset_ms: number }>("SELECT load, offset_ms FROM recorder_clock", {
    type: QueryTypes.SELECT,
  });
  return new Map(rows.map(({ load, offset_ms }) => [load.toLowerCase(), offset_ms]));
}

/** Events by the id of their session and the number of their source; a session that is not there makes the row refuse. */
export const EVENT_INSERT = `INSERT INTO event (id, session_no, source_no, seq, mono_ms, wall_ms, type, payload, received_ms)
  SELECT CASE WHEN value->>0 = LOWER(value->>0) AND LENGTH(value->>0) = 36 THEN COALESCE(unhex(value->>0, '-'), value->>0) ELSE value->>0 END,
  (SELECT s.no FROM session s WHERE s.id = value->>1), value->>2, value->>3, value->>4, value->>5, value->>6, value->>7, value->>8
  FROM json_each($rows)`;

function settingsTaker(store: Store): FileTaker {
  const columns: readonly PackedColumn[] = [
    { name: "key", type: "string", required: true },
    { name: "value", type: "string", required: true },
  ];
  const put: TypedFile["put"] = async (names, rows) => {
    const [key, value] = [names.indexOf("key"), names.indexOf("value")];
    await store.writer.write(async (transaction) => {
      for (const row of rows)
        if (SETTINGS_KEYS.includes(String(row[key])))
          await store.models.meta.upsert({ key: String(row[key]), value: String(row[value]) }, { transaction });
    });
  };
  return typedRows({ name: SETTINGS_FILE, columns, values: VALUES[SETTINGS_FILE], put });
}

/**
 * Reads a package into an empty store, file after file, each value checked. A
 * package is whole or refused: its directory, the check sum of each file and,
 * where its descriptor has one, its hash are held against what comes. What does
 * not fit is refused with its file and line, and nothing of it counts. Memory
 * is bounded; cost grows with the rows.
 * @throws NotSuchAFileError where it is no package, or a value of it is wrong. CancelledError where whoever asked gave up.
 */
export async function readPackage(store: Store, path: string, { onBytes, cancelled }: Reading = {}): Promise<void> {
  const size = statSync(path).size;
  const zip = await CheckedZip.open(path, size);
  let format = PACKAGE_FORMAT;
  try {
    const refuseStrangers = (known: ReadonlySet<string>) => {
      const stranger = zip.names.find((name) => name !== DESCRIPTOR && !known.has(name));
      if (stranger !== undefined) throw new NotSuchAFileError(`“${stranger.slice(0, 80)}” belongs in no package.`);
    };
    refuseStrangers(EVERY_FILE);
    if (!zip.names.includes(DESCRIPTOR)) throw new NotSuchAFileError("It has no datapackage.json, so it is no package.");
    const described = checkDescriptor(await wholeText(zip, DESCRIPTOR));
    format = described.format;
    if (format === 1) await makeRoom(store);
    const takers = new Map<string, FileTaker>();
    for (const table of tablesOf(format))
      takers.set(`${table.name}.csv`, tableTaker(store, table, await columnsOf(store.sequelize, table)));
    takers.set(`${EVENTS_FILE}.csv`, eventTaker(store));
    takers.set(`${SETTINGS_FILE}.csv`, settingsTaker(store));
    refuseStrangers(new Set(takers.keys()));
    const total = zip.names.reduce((sum, name) => sum + zip.bytesOf(name), 0);
    let done = 0;
    for (const [name, taker] of takers) {
      // Packages of before the settings travelled have none.
      if (name === `${SETTINGS_FILE}.csv` && !zip.names.includes(name)) continue;
      const longest = name === "horse_photo.csv" ? LONGEST_PICTURE_ROW : LONGEST_ROW;
      const decoder = new TextDecoder("utf-8", { fatal: true });
      const pieces = new CsvPieces(taker.take);
      for await (const piece of zip.read(name, described.promised.get(name))) {
        pieces.push(decoded(decoder, name, piece));
        if (pieces.waiting > longest) throw problem(name, pieces.linesTaken + 1, "a row is too long.");
        await taker.flush();
        done += piece.length;
        onBytes?.(Math.min(size, Math.round((size * done) / Math.max(1, total))));
        if (cancelled?.() === true) throw new CancelledError("Given up.");
      }
      pieces.push(decoded(decoder, name));
      pieces.end();
      await taker.end();
    }
  } finally {
    zip.close();
  }
  if (format === 1) await bringForward(store);
  await checkPointers(store);
  await store.writer.write((transaction) => markAllStale(store, transaction));
}

const DESCRIPTOR = "datapackage.json";

function decoded(decoder: TextDecoder, name: string, piece?: Uint8Array): string {
  try {
    return piece === undefined ? decoder.decode() : decoder.decode(piece, { stream: true });
  } catch {
    throw new NotSuchAFileError(`“${name}” is not UTF-8.`);
  }
}

async function wholeText(zip: CheckedZip, name: string): Promise<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let text = "";
  for await (const piece of zip.read(name)) {
    text += decoded(decoder, name, piece);
    if (text.length > LONGEST_DESCRIPTOR) throw new NotSuchAFileError(`“${name}” is too long.`);
  }
  return text + decoded(decoder, name);
}

/** What a descriptor promises of each file. @throws NotSuchAFileError where it is none of ours. */
function checkDescriptor(text: string): { readonly promised: ReadonlyMap<string, Promised>; readonly format: number } {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    throw new NotSuchAFileError("datapackage.json cannot be read.");
  }
  const { "deft-tether": own, resources } = fieldsOf(found);
  const format = fieldsOf(own).format;
  if (typeof format !== "number" || format < 1 || format > PACKAGE_FORMAT || !Number.isInteger(format))
    throw new NotSuchAFileError(typeof format === "number" ? "It was made by a newer version." : "It is no package of Deft Tether.");
  const promised = new Map<string, Promised>();
  for (const one of Array.isArray(resources) ? (resources as unknown[]) : []) {
    const { path, hash, bytes } = fieldsOf(one);
    if (typeof path !== "string" || promised.has(path))
      throw new NotSuchAFileError("datapackage.json names a file twice, or one without a name.");
    promised.set(path, {
      ...(typeof hash === "string" ? { hash } : {}),
      ...(typeof bytes === "number" ? { bytes } : {}),
    });
  }
  return { promised, format };
}

/** What single rows cannot tell: that they point at each other. */
async function checkPointers(store: Store): Promise<void> {
  const [loose] = await store.sequelize.query<{ table: string }>("PRAGMA foreign_key_check", { type: QueryTypes.SELECT });
  if (loose !== undefined) throw new NotSuchAFileError(`A row of ${loose.table}.csv points at something that is not there.`);
}

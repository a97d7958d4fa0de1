import { createReadStream, statSync } from "node:fs";
import { Unzip, UnzipInflate } from "fflate";
import { QueryTypes } from "sequelize";
import { checkPayload, EVENT_TYPES, type EventType, wallClockPlausible } from "@/core/events";
import { CsvPieces, type CsvRecord, NotSuchAFileError, readPackageCell } from "@/core/formats";
import { checkLadderPlan } from "@/core/schemas";
import { markAllStale } from "../caches";
import { listLadders, plansOf } from "../ladders";
import type { Store } from "../store";
import {
  columnsOf,
  EVENT_COLUMNS,
  EVENTS_FILE,
  PACKED_TABLES,
  type PackedColumn,
  type PackedTable,
  SETTINGS_FILE,
  SETTINGS_KEYS,
} from "./tables";

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

/** Nothing of this size or ratio is a yard: a small file that swells beyond it is no package. */
const MOST_TIMES = 120;
const LEAST_MOST_BYTES = 64 * 1024 * 1024;
const MOST_FILES = 60;
const ROWS_AT_ONCE = 500;
const LONGEST_CELL = 4 * 1024 * 1024;

type Cell = string | number | null;

/** Where the rows of one file of a package go. */
interface FileTaker {
  readonly take: (record: CsvRecord) => void;
  readonly end: () => Promise<void>;
  readonly flush: () => Promise<void>;
}

const problem = (file: string, line: number | null, words: string) =>
  new NotSuchAFileError(line === null ? `${file}: ${words}` : `${file}, line ${line}: ${words}`);

/** Rows of a file as typed values, in parts. */
function typedRows(
  file: string,
  columns: readonly PackedColumn[],
  json: readonly string[],
  put: (names: readonly string[], rows: Cell[][], line: number) => Promise<void>,
): FileTaker {
  let places: (PackedColumn | null)[] | null = null;
  let waiting: Cell[][] = [];
  let line = 1;
  const names: string[] = [];
  return {
    take: ({ cells, line: at, malformed }) => {
      if (malformed) throw problem(file, at, "a quoted cell is not closed.");
      if (places === null) {
        places = cells.map((name) => columns.find((column) => column.name === name) ?? null);
        const unknown = cells.filter((_, i) => places?.[i] === null);
        if (unknown.length > 0) throw problem(file, at, `made by a newer version, it has “${unknown[0]}”.`);
        const missing = columns.find(({ name, required }) => required && !cells.includes(name));
        if (missing !== undefined) throw problem(file, at, `“${missing.name}” is missing.`);
        if (new Set(cells).size !== cells.length) throw problem(file, at, "a column stands there twice.");
        names.push(...cells);
        return;
      }
      if (cells.length !== places.length) throw problem(file, at, `${places.length} cells are needed, ${cells.length} are there.`);
      const row = cells.map((cell, i): Cell => {
        const column = places?.[i] as PackedColumn;
        if (cell.length > LONGEST_CELL) throw problem(file, at, `“${column.name}” is too long.`);
        const value = readPackageCell(cell, column.type);
        if (value === undefined)
          throw problem(file, at, `“${column.name}” is no ${column.type === "integer" ? "whole number" : "number"}.`);
        if (value === null && column.required) throw problem(file, at, `“${column.name}” is empty.`);
        if (typeof value === "string" && json.includes(column.name)) {
          try {
            JSON.parse(value);
          } catch {
            throw problem(file, at, `“${column.name}” cannot be read.`);
          }
        }
        return value;
      });
      waiting.push(row);
      line = at;
    },
    flush: async () => {
      if (waiting.length < ROWS_AT_ONCE) return;
      const rows = waiting;
      waiting = [];
      await put(names, rows, line);
    },
    end: async () => {
      if (places === null) throw problem(file, null, "is empty.");
      if (waiting.length > 0) await put(names, waiting, line);
      waiting = [];
    },
  };
}

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
  return typedRows(file, columns, table.json ?? [], async (names, rows, line) => {
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
      throw fits(file, line, error);
    }
  });
}

const KNOWN_TYPES: ReadonlySet<string> = new Set(EVENT_TYPES);
const MOST_KNOWN_PAYLOADS = 50_000;

/** Takes the log: each payload checked as a device's would be, the same text only once. */
function eventTaker(store: Store): FileTaker {
  const file = `${EVENTS_FILE}.csv`;
  const known = new Map<string, true>();
  const sources = new Map<string, number>();
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
  return typedRows(file, EVENT_COLUMNS, [], async (names, rows, line) => {
    const at = Object.fromEntries(names.map((name, i) => [name, i])) as Record<string, number>;
    const cell = (row: readonly Cell[], name: string): Cell => row[at[name] ?? -1] ?? null;
    for (const [i, row] of rows.entries()) {
      const wrong = check(String(cell(row, "type")), String(cell(row, "payload")));
      const here = line - rows.length + 1 + i;
      if (wrong !== null) throw problem(file, here, wrong);
      if (!wallClockPlausible(Number(cell(row, "wall_ms")), 0, store.now())) throw problem(file, here, "“wall_ms” is no time of ours.");
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
      throw fits(file, line, error);
    }
  });
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
  return typedRows(`${SETTINGS_FILE}.csv`, columns, ["value"], async (names, rows) => {
    const [key, value] = [names.indexOf("key"), names.indexOf("value")];
    await store.writer.write(async (transaction) => {
      for (const row of rows)
        if (SETTINGS_KEYS.includes(String(row[key])))
          await store.models.meta.upsert({ key: String(row[key]), value: String(row[value]) }, { transaction });
    });
  });
}

/**
 * Reads a package into an empty store, file after file, each row checked. What
 * does not fit is refused with its file and line, and nothing of it counts.
 * Memory is bounded; cost grows with the rows.
 * @throws NotSuchAFileError where it is no package, or a row of it is wrong. CancelledError where whoever asked gave up.
 */
export async function readPackage(store: Store, path: string, { onBytes, cancelled }: Reading = {}): Promise<void> {
  const size = statSync(path).size;
  const most = Math.max(LEAST_MOST_BYTES, size * MOST_TIMES);
  const takers = new Map<string, FileTaker>();
  for (const table of PACKED_TABLES) takers.set(`${table.name}.csv`, tableTaker(store, table, await columnsOf(store.sequelize, table)));
  takers.set(`${EVENTS_FILE}.csv`, eventTaker(store));
  takers.set(`${SETTINGS_FILE}.csv`, settingsTaker(store));
  const seen = new Set<string>();
  let swollen = 0;
  let failed: unknown = null;
  const work: (() => Promise<void>)[] = [];
  const unzip = new Unzip((file) => {
    const { name } = file;
    if (seen.has(name)) failed ??= new NotSuchAFileError(`“${name.slice(0, 80)}” stands in it twice.`);
    seen.add(name);
    if (seen.size > MOST_FILES) failed ??= new NotSuchAFileError("There are far too many files in it.");
    const taker = name === "datapackage.json" ? null : takers.get(name);
    if (taker === undefined) {
      failed ??= new NotSuchAFileError(`“${name.slice(0, 80)}” belongs in no package.`);
      return;
    }
    const decoder = new TextDecoder("utf-8", { fatal: true });
    const pieces = taker === null ? null : new CsvPieces(taker.take);
    let head = "";
    file.ondata = (error, data, final) => {
      if (failed !== null) return;
      try {
        if (error !== null) throw new NotSuchAFileError(`“${name}” is damaged.`);
        swollen += data.length;
        if (swollen > most) throw new NotSuchAFileError("It swells far beyond what a yard holds.");
        let text: string;
        try {
          text = decoder.decode(data, { stream: !final });
        } catch {
          throw new NotSuchAFileError(`“${name}” is not UTF-8.`);
        }
        if (pieces === null || taker === null || taker === undefined) {
          head += text;
          if (final) checkDescriptor(head);
          return;
        }
        pieces.push(text);
        if (final) pieces.end();
        work.push(taker.flush);
        if (final) work.push(taker.end);
      } catch (caught) {
        failed = caught;
        file.terminate();
      }
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  let bytes = 0;
  try {
    for await (const piece of createReadStream(path, { highWaterMark: 64 * 1024 })) {
      const part = piece as Buffer;
      if (bytes === 0 && !(part[0] === 0x50 && part[1] === 0x4b)) throw new NotSuchAFileError("It is no zip file.");
      bytes += part.length;
      unzip.push(new Uint8Array(part), false);
      if (failed !== null) throw failed;
      for (const one of work.splice(0)) await one();
      onBytes?.(bytes);
      if (cancelled?.() === true) throw new CancelledError("Given up.");
    }
    unzip.push(new Uint8Array(0), true);
  } catch (error) {
    if (error instanceof NotSuchAFileError || error instanceof CancelledError) throw error;
    throw new NotSuchAFileError("The zip file is damaged.");
  }
  if (failed !== null) throw failed;
  for (const one of work.splice(0)) await one();
  if (!seen.has("datapackage.json")) throw new NotSuchAFileError("It has no datapackage.json, so it is no package.");
  for (const name of takers.keys())
    if (!seen.has(name) && name !== `${SETTINGS_FILE}.csv`) throw new NotSuchAFileError(`“${name}” is missing; the file may be cut off.`);
  await checkWhole(store);
  await store.writer.write((transaction) => markAllStale(store, transaction));
}

function checkDescriptor(text: string): void {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    throw new NotSuchAFileError("datapackage.json cannot be read.");
  }
  const format = (found as { "deft-tether"?: { format?: unknown } } | null)?.["deft-tether"]?.format;
  if (format !== 1)
    throw new NotSuchAFileError(typeof format === "number" ? "It was made by a newer version." : "It is no package of Deft Tether.");
}

/** What single rows cannot tell: that they point at each other, and that the plans are plans. */
async function checkWhole(store: Store): Promise<void> {
  const [loose] = await store.sequelize.query<{ table: string }>("PRAGMA foreign_key_check", { type: QueryTypes.SELECT });
  if (loose !== undefined) throw new NotSuchAFileError(`A row of ${loose.table}.csv points at something that is not there.`);
  const horses = await store.sequelize.query<{ id: string }>("SELECT id FROM horse", { type: QueryTypes.SELECT });
  for (const { id } of horses) {
    let ladders: Awaited<ReturnType<typeof listLadders>>;
    try {
      ladders = await listLadders(store, id);
    } catch {
      throw new NotSuchAFileError("A plan in ladder_version.csv, strand.csv, rung.csv or cue_phase.csv is not whole.");
    }
    const versions = ladders.flatMap(({ id: ladder, presentVersion }) =>
      Array.from({ length: Math.min(1000, presentVersion) }, (_, i) => ({ ladder, version: i + 1 })),
    );
    for (const { plan } of await plansOf(store, versions)) {
      const checked = checkLadderPlan(plan);
      if (!checked.ok) throw new NotSuchAFileError(`A plan in it cannot be worked: ${checked.problems[0]?.message ?? "it is not whole."}`);
    }
  }
}

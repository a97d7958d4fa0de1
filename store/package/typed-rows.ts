import { type CsvRecord, NotSuchAFileError, readPackageCell } from "@/core/formats";
import type { Cell, Check } from "../tables";
import type { PackedColumn } from "./tables";

const ROWS_AT_ONCE = 500;
const CHARACTERS_AT_ONCE = 2 * 1024 * 1024;
/** A picture is the longest cell there is. */
const LONGEST_CELL = 6 * 1024 * 1024;

export const problem = (file: string, line: number | null, words: string) =>
  new NotSuchAFileError(line === null ? `${file}: ${words}` : `${file}, line ${line}: ${words}`);

/** Where the rows of one file of a package go. */
export interface FileTaker {
  readonly take: (record: CsvRecord) => void;
  readonly end: () => Promise<void>;
  readonly flush: () => Promise<void>;
}

/** What may stand in a file, and where its rows go. */
export interface TypedFile {
  /** Its name without ".csv". */
  readonly name: string;
  readonly columns: readonly PackedColumn[];
  /** What each column may hold. */
  readonly values: Readonly<Record<string, Check>> | undefined;
  readonly put: (names: readonly string[], rows: Cell[][], lines: readonly number[]) => Promise<void>;
}

/** Rows of a file as typed values, each value checked, in parts that are bounded in rows and in size. */
export function typedRows({ name, columns, values = {}, put }: TypedFile): FileTaker {
  const file = `${name}.csv`;
  let places: PackedColumn[] | null = null;
  let waiting: Cell[][] = [];
  let lines: number[] = [];
  let characters = 0;
  const names: string[] = [];
  const head = (cells: readonly string[], at: number) => {
    const found = cells.map((cell) => {
      const column = columns.find((one) => one.name === cell);
      if (column === undefined) throw problem(file, at, `made by a newer version, it has “${cell.slice(0, 80)}”.`);
      return column;
    });
    const missing = columns.find((column) => column.required && !cells.includes(column.name));
    if (missing !== undefined) throw problem(file, at, `“${missing.name}” is missing.`);
    if (new Set(cells).size !== cells.length) throw problem(file, at, "a column stands there twice.");
    names.push(...cells);
    return found;
  };
  const cellValue = (cell: string, column: PackedColumn, at: number): Cell => {
    if (cell.length > LONGEST_CELL) throw problem(file, at, `“${column.name}” is too long.`);
    const value = readPackageCell(cell, column.type);
    if (value === undefined)
      throw problem(file, at, `“${column.name}” is no ${column.type === "integer" ? "whole number" : "number"}: “${cell.slice(0, 60)}”.`);
    if (value === null) {
      if (column.required) throw problem(file, at, `“${column.name}” is empty.`);
      return null;
    }
    const wrong = values[column.name]?.(value) ?? null;
    if (wrong !== null) throw problem(file, at, `“${column.name}” ${wrong}`);
    return value;
  };
  const handOn = async () => {
    const [rows, of] = [waiting, lines];
    waiting = [];
    lines = [];
    characters = 0;
    if (rows.length > 0) await put(names, rows, of);
  };
  return {
    take: ({ cells, line: at, malformed }) => {
      if (malformed) throw problem(file, at, "a quoted cell is not closed.");
      if (places === null) {
        places = head(cells, at);
        return;
      }
      const of = places;
      if (cells.length !== of.length) throw problem(file, at, `${of.length} cells are needed, ${cells.length} are there.`);
      waiting.push(cells.map((cell, i) => cellValue(cell, of[i] as PackedColumn, at)));
      lines.push(at);
      characters += cells.reduce((sum, cell) => sum + cell.length, 0);
    },
    flush: async () => {
      if (waiting.length >= ROWS_AT_ONCE || characters >= CHARACTERS_AT_ONCE) await handOn();
    },
    end: async () => {
      if (places === null) throw problem(file, null, "is empty.");
      await handOn();
    },
  };
}

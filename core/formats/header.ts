import type { Column } from "./column";
import { NotSuchAFileError } from "./csv";

/** Where each known column stands in a file, and the columns the product does not know. */
export interface HeaderMap {
  /** Index in the file by place in the column list; −1 where the file lacks it. */
  readonly places: readonly number[];
  readonly unknown: readonly string[];
}

/**
 * Reads a header row.
 * @throws NotSuchAFileError where a required column is missing or a name stands twice.
 * @example readHeader(columns, ["session", "work_s"], "sessions.csv")
 */
export function readHeader(columns: readonly Column[], cells: readonly string[], what: string): HeaderMap {
  const names = cells.map((cell) => cell.trim());
  const places = columns.map((column) => names.indexOf(column.name));
  const missing = columns.filter((column, i) => column.required && (places[i] ?? -1) < 0).map((column) => column.name);
  if (missing.length > 0) throw new NotSuchAFileError(`This is not a ${what}: it has no column ${missing.join(", ")}.`);
  const twice = columns.find((column) => names.indexOf(column.name) !== names.lastIndexOf(column.name));
  if (twice !== undefined) throw new NotSuchAFileError(`This is not a ${what}: the column ${twice.name} stands twice.`);
  const known = new Set(columns.map((column) => column.name));
  return { places, unknown: names.filter((name) => !known.has(name)) };
}

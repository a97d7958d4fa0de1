import { guardText, unguardText } from "./text-cell";

/**
 * A cell of a package. Nothing is an empty cell; an empty text is a lone
 * apostrophe, so that the two come back as they were.
 * @example packageCell("") // "'"
 */
export function packageCell(value: string | number | null): string {
  if (value === null) return "";
  if (typeof value === "number") return Object.is(value, -0) ? "0" : String(value);
  return value === "" ? "'" : guardText(value);
}

/** A cell as it was. @returns undefined where it is no such value. @example readPackageCell("2.5", "integer") // undefined */
export function readPackageCell(cell: string, type: "string" | "number" | "integer" | "bytes"): string | number | null | undefined {
  if (cell === "") return null;
  if (type === "string" || type === "bytes") return unguardText(cell);
  const value = Number(cell);
  if (cell.trim() === "" || !Number.isFinite(value) || (type === "integer" && !Number.isInteger(value))) return undefined;
  return value;
}

/** One line of a package's file. @example packageLine(["a", "b,c"]) // "a,\"b,c\"\r\n" */
export const packageLine = (cells: readonly string[]): string =>
  `${cells.map((cell) => (/[",\n\r]/.test(cell) || cell !== cell.trim() ? `"${cell.replaceAll('"', '""')}"` : cell)).join(",")}\r\n`;

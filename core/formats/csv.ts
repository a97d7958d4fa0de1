import Papa from "papaparse";

/** Thrown where a file is not such a file at all; the message is one plain line. */
export class NotSuchAFileError extends Error {
  readonly code = "not-such-a-file";
}

/** A record with the physical line it starts on; `malformed` where its quotes do not close. */
export interface CsvRecord {
  readonly line: number;
  readonly cells: readonly string[];
  readonly malformed: boolean;
}

/** Called with each batch of records, in order. */
export type TakeRecords = (records: readonly CsvRecord[]) => void;

/** Line breaks inside quoted cells make a record span several lines. */
export function linesSpanned(cells: readonly string[]): number {
  let lines = 1;
  for (const cell of cells) {
    for (let at = cell.indexOf("\n"); at >= 0; at = cell.indexOf("\n", at + 1)) lines++;
  }
  return lines;
}

/** Takes the byte-order mark off and makes every line ending a line feed. */
export function normaliseText(text: string): string {
  const start = text.charCodeAt(0) === 0xfeff ? text.slice(1) : text;
  return start.includes("\r") ? start.replace(/\r\n?/g, "\n") : start;
}

/** Parses a whole CSV text into records with their lines. Empty lines are passed over. */
export function parseCsv(text: string): CsvRecord[] {
  const parsed = Papa.parse<string[]>(normaliseText(text), { delimiter: ",", newline: "\n" });
  const broken = new Set(parsed.errors.filter((e) => e.type === "Quotes").map((e) => e.row));
  const records: CsvRecord[] = [];
  let line = 1;
  parsed.data.forEach((cells, index) => {
    if (!(cells.length === 1 && cells[0] === "")) records.push({ line, cells, malformed: broken.has(index) });
    line += linesSpanned(cells);
  });
  return records;
}

/** Writes rows as RFC 4180 CSV with a header row and CRLF line endings. */
export function writeCsv(header: readonly string[], rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse({ fields: [...header], data: rows.map((row) => [...row]) }, { newline: "\r\n" })}\r\n`;
}

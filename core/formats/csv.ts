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

/** Line breaks inside quoted cells make a record span several lines. @example linesSpanned([""]) // 1 */
export function linesSpanned(cells: readonly string[]): number {
  let lines = 1;
  for (const cell of cells) {
    for (let at = cell.indexOf("\n"); at >= 0; at = cell.indexOf("\n", at + 1)) lines++;
  }
  return lines;
}

/** Takes the byte-order mark off and makes every line ending a line feed. @example normaliseText(text) */
export function normaliseText(text: string): string {
  const start = text.charCodeAt(0) === 0xfeff ? text.slice(1) : text;
  return start.includes("\r") ? start.replace(/\r\n?/g, "\n") : start;
}

/** What may part the cells of a table. Our own files have commas; spreadsheets of many countries save semicolons. */
export const DELIMITERS = [",", ";", "\t"] as const;
export type Delimiter = (typeof DELIMITERS)[number];

/** A cell that is well formed, up to what ends it. */
const CELLS: Readonly<Record<Delimiter, RegExp>> = {
  ",": /(?:"[^"]*(?:""[^"]*)*"|[^",\n][^,\n]*|)(?=,|\n|$)/y,
  ";": /(?:"[^"]*(?:""[^"]*)*"|[^";\n][^;\n]*|)(?=;|\n|$)/y,
  "\t": /(?:"[^"]*(?:""[^"]*)*"|[^"\t\n][^\t\n]*|)(?=\t|\n|$)/y,
};

/**
 * What parts the cells of a table, by its first line: the one that stands there most outside quotes, a comma where none does.
 * @example delimiterOf("day;outcome;seconds") // ";"
 */
export function delimiterOf(text: string): Delimiter {
  const [line = ""] = normaliseText(text.slice(0, 64 * 1024)).split("\n", 1);
  const bare = line.replace(/"[^"]*"/g, "");
  const counts = DELIMITERS.map((delimiter) => bare.split(delimiter).length - 1);
  const most = Math.max(...counts);
  return most === 0 ? "," : (DELIMITERS[counts.indexOf(most)] ?? ",");
}

/**
 * Where the records from a place on are well formed: the end of the last of
 * them, and whether what stops them is a quote that does not close as it should
 * (or a record the text breaks off in).
 */
function wellFormed(text: string, from: number, delimiter: Delimiter): { end: number; stopped: boolean; open: boolean } {
  const CELL = CELLS[delimiter];
  let end = from;
  let at = from;
  while (at < text.length) {
    CELL.lastIndex = at;
    if (!CELL.test(text)) {
      // A quoted cell that nothing closes may go on in the next piece of the file.
      const cell = /"[^"]*(?:""[^"]*)*$/y;
      cell.lastIndex = at;
      return { end, stopped: true, open: cell.test(text) };
    }
    at = CELL.lastIndex + 1;
    if (at > text.length) return { end, stopped: false, open: true };
    if (text[at - 1] === "\n") end = at;
  }
  return { end, stopped: false, open: end < text.length };
}

/**
 * Hands on the records of a text whose lines end in line feeds. A quote that is
 * not closed where it should be reaches into the rows after it; only the line
 * it stands on is refused, and reading goes on at the next. Cost grows with the
 * text, also where every row is bad.
 * @param line the physical line the text begins on.
 * @param last whether the text ends the file; otherwise its last row is left for later.
 * @returns what was not read yet, and the line it begins on.
 * @example takeRecords(text, 1, true, take, ",") // { rest: "", line: 7 }
 */
export function takeRecords(
  text: string,
  line: number,
  last: boolean,
  take: (record: CsvRecord) => void,
  delimiter: Delimiter = ",",
): { rest: string; line: number } {
  let at = line;
  /** Hands on rows up to one with a bad quote that reaches over its line; returns whether there was one. */
  const handOn = (part: string, whole: boolean): { cursor: number; reachesOver: boolean } => {
    const quoted = part.includes('"');
    const { data, errors, meta } = new Papa.Parser({ delimiter, newline: "\n" }).parse(part, 0, !whole) as Papa.ParseResult<string[]>;
    const broken = new Set(errors.filter((e) => e.type === "Quotes").map((e) => e.row));
    for (const [i, cells] of data.entries()) {
      const lines = quoted ? linesSpanned(cells) : 1;
      if (lines > 1 && broken.has(i)) return { cursor: 0, reachesOver: true };
      if (!(cells.length === 1 && cells[0] === "")) take({ line: at, cells, malformed: broken.has(i) });
      at += lines;
    }
    return { cursor: meta.cursor, reachesOver: false };
  };
  if (text === "") return { rest: "", line };
  const { cursor, reachesOver } = handOn(text, last);
  if (!reachesOver) return { rest: last ? "" : text.slice(cursor), line: at };
  // From the line of the first bad quote on: what is well formed at once, then the bad line by itself.
  let from = 0;
  for (let passed = line; passed < at; passed++) from = text.indexOf("\n", from) + 1;
  for (;;) {
    const { end, stopped, open } = wellFormed(text, from, delimiter);
    // An empty line is a line, though nothing is handed on.
    if (end === from + 1) at++;
    else if (end > from) handOn(text.slice(from, end - 1), true);
    from = end;
    if (!last && open) return { rest: text.slice(from), line: at };
    if (!stopped) {
      if (from < text.length) handOn(text.slice(from), true);
      return { rest: "", line: at };
    }
    const feed = text.indexOf("\n", from);
    const lineEnd = feed < 0 ? text.length : feed;
    take({ line: at, cells: [text.slice(from, lineEnd)], malformed: true });
    at++;
    if (feed < 0) return { rest: "", line: at };
    from = feed + 1;
  }
}

/** Parses a whole CSV text into records with their lines. Empty lines are passed over. @example parseCsv(text) // 3 of them */
export function parseCsv(text: string, delimiter: Delimiter = ","): CsvRecord[] {
  const records: CsvRecord[] = [];
  takeRecords(normaliseText(text), 1, true, (record) => records.push(record), delimiter);
  return records;
}

/** Writes rows as RFC 4180 CSV with a header row and CRLF line endings. @example writeCsv(["a", "b"], [["򮳠񥇆򅴝", ""]]) */
export function writeCsv(header: readonly string[], rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse({ fields: [...header], data: rows.map((row) => [...row]) }, { newline: "\r\n" })}\r\n`;
}

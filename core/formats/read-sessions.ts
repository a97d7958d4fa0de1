import { cellProblem, type RefusedRow } from "./column";
import { NotSuchAFileError, parseCsv } from "./csv";
import { readHeader } from "./header";
import { unguardText } from "./text-cell";
import { SESSIONS_COLUMNS } from "./trials-columns";

/** Working seconds by session, and what was refused. */
export interface SessionsFile {
  readonly workSeconds: ReadonlyMap<string, number>;
  readonly refused: readonly RefusedRow[];
  readonly unknownColumns: readonly string[];
}

const SESSION = SESSIONS_COLUMNS.findIndex((column) => column.name === "session");
const WORK = SESSIONS_COLUMNS.findIndex((column) => column.name === "work_s");

/**
 * Reads sessions.csv for its working times.
 * @throws NotSuchAFileError where the header is not that of a sessions.csv.
 * @example readSessionsCsv(text)
 */
export function readSessionsCsv(text: string): SessionsFile {
  const [head, ...rows] = parseCsv(text);
  if (head === undefined) throw new NotSuchAFileError("The sessions file is empty.");
  const { places, unknown } = readHeader(SESSIONS_COLUMNS, head.cells, "sessions.csv");
  const workSeconds = new Map<string, number>();
  /** The line of each session that was read. */
  const seen = new Map<string, number>();
  const refused: RefusedRow[] = [];
  for (const record of rows) {
    const cells = SESSIONS_COLUMNS.map((column, i) => {
      const cell = (places[i] ?? -1) < 0 ? "" : (record.cells[places[i] as number] ?? "");
      return column.type === "text" ? cell : cell.trim();
    });
    const wrong = SESSIONS_COLUMNS.map((column, i) => ({ column: column.name, reason: cellProblem(column, cells[i] as string) })).find(
      (c) => c.reason !== null,
    );
    if (record.malformed || wrong !== undefined) {
      refused.push({
        line: record.line,
        column: wrong?.column ?? "",
        reason: `sessions.csv: ${record.malformed ? "a quoted cell is not closed" : wrong?.reason}`,
      });
      continue;
    }
    const session = unguardText(cells[SESSION] as string);
    const before = seen.get(session);
    if (before !== undefined) {
      refused.push({ line: record.line, column: "session", reason: `sessions.csv: the session stands in line ${before} already` });
      continue;
    }
    seen.set(session, record.line);
    if (cells[WORK] !== "") workSeconds.set(session, Number(cells[WORK]));
  }
  return { workSeconds, refused, unknownColumns: unknown };
}

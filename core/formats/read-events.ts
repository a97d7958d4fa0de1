import { checkEvent, type SessionEvent } from "../events";
import { cellProblem, type RefusedRow } from "./column";
import { NotSuchAFileError, parseCsv } from "./csv";
import { readHeader } from "./header";
import { unguardText } from "./text-cell";
import { EVENTS_COLUMNS } from "./trials-columns";

/** The good rows of an events.csv, with the times it gives, and what was refused. */
export interface EventsFile {
  readonly events: readonly SessionEvent[];
  readonly givenSeconds: ReadonlyMap<string, number>;
  readonly refused: readonly RefusedRow[];
  readonly unknownColumns: readonly string[];
}

function readPayload(cell: string): unknown {
  try {
    return JSON.parse(cell);
  } catch {
    return undefined;
  }
}

/**
 * Reads events.csv.
 * @throws NotSuchAFileError where the header is not that of an events.csv.
 * @example readEventsCsv(text)
 */
export function readEventsCsv(text: string): EventsFile {
  const [head, ...rows] = parseCsv(text);
  if (head === undefined) throw new NotSuchAFileError("The file is empty.");
  const { places, unknown } = readHeader(EVENTS_COLUMNS, head.cells, "events.csv");
  const events: SessionEvent[] = [];
  const givenSeconds = new Map<string, number>();
  const refused: RefusedRow[] = [];
  for (const record of rows) {
    const cells = EVENTS_COLUMNS.map((_, i) => ((places[i] ?? -1) < 0 ? "" : (record.cells[places[i] as number] ?? "")));
    const wrong = EVENTS_COLUMNS.map((column, i) => ({ column: column.name, reason: cellProblem(column, cells[i] as string) })).find(
      (c) => c.reason !== null,
    );
    if (record.malformed || wrong !== undefined) {
      refused.push({
        line: record.line,
        column: wrong?.column ?? "",
        reason: record.malformed ? "a quoted cell is not closed" : (wrong?.reason ?? ""),
      });
      continue;
    }
    const [id, session, recorder, load, seq, mono, wall, seconds, type, payloadCell, part] = cells as [
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
    ];
    const payload = readPayload(payloadCell);
    if (payload === undefined) {
      refused.push({ line: record.line, column: "payload", reason: "is not JSON" });
      continue;
    }
    const checked = checkEvent({
      id,
      session: unguardText(session),
      recorder: unguardText(recorder),
      load,
      seq: Number(seq),
      mono_ms: Number(mono),
      wall_ms: Number(wall),
      type,
      payload,
      ...(part === "" ? {} : { part }),
    });
    if (!checked.ok) {
      const problem = checked.problems[0];
      refused.push({ line: record.line, column: (problem?.path ?? "").split(".")[0] ?? "", reason: problem?.message ?? "is wrong" });
      continue;
    }
    events.push(checked.value);
    if (seconds !== "") givenSeconds.set(id, Number(seconds));
  }
  return { events, givenSeconds, refused, unknownColumns: unknown };
}

import type { MeasuredTrial, Outcome } from "../evidence";
import type { BlockKind } from "../record";
import { type Column, cellProblem, parseIsoTime, type RefusedRow } from "./column";
import type { CsvRecord } from "./csv";
import type { HeaderMap } from "./header";
import { unguardText } from "./text-cell";
import { TRIALS_COLUMNS, type TrialsColumn } from "./trials-columns";

/** A good row of trials.csv, as the analysis wants it. */
export interface TrialRow extends MeasuredTrial {
  readonly session: string;
  readonly startedMs: number;
  readonly behaviour: string;
  readonly rung: string;
  readonly side: "L" | "R" | null;
  readonly askSeconds: number;
  readonly logged: string;
  readonly trial: number;
}

/** What a row holds beside the measures, for what is said over sessions. */
export interface RowBeside {
  readonly horse: string;
  readonly block: number | null;
  readonly blockSeconds: number | null;
  readonly kind: BlockKind | null;
  readonly ease: number | null;
  readonly handler: string | null;
}

const at = (name: TrialsColumn) => TRIALS_COLUMNS.findIndex((column) => column.name === name);
const SESSION = at("session");
const STARTED = at("started_at");
const BEHAVIOUR = at("behaviour");
const RUNG = at("rung");
const SECONDS = at("t_s");
const SIDE = at("side");
const PHASE = at("phase");
const OUTCOME = at("outcome");
const LATENCY = at("latency_s");
const WAITED = at("waited_s");
const RELEASE_LAG = at("release_lag_s");
const MARK_LAG = at("mark_lag_s");
const FEED_DELAY = at("feed_delay_s");
const RELEASED = at("released");
const MARKED = at("marked");
const REINFORCED = at("reinforced");
const REINFORCERS = at("reinforcers");
const LOGGED = at("logged");
const HORSE = at("horse");
const TRIAL = at("trial");
const BLOCK = at("block");
const BLOCK_SECONDS = at("block_s");
const KIND = at("kind");
const EASE = at("ease");
const HANDLER = at("handler");

/** A cell without space at its edges; most have none, and a new string is saved. */
const trimmed = (cell: string) =>
  cell.length > 0 && (cell.charCodeAt(0) <= 32 || cell.charCodeAt(cell.length - 1) <= 32) ? cell.trim() : cell;

/** 10 to the powers a plain decimal of at most 15 digits can need. */
const POWERS_OF_TEN = Float64Array.from({ length: 16 }, (_, i) => 10 ** i);

/**
 * Reads digits with at most one point, 15 digits at most; NaN where the cell
 * is anything else, which then goes the careful way. Both the digits and the
 * power are exact, so the quotient is the same number `Number` would give.
 */
function plainDecimal(cell: string): number {
  const length = cell.length;
  if (length > 16) return Number.NaN;
  let digits = 0;
  let mantissa = 0;
  let pointAt = -1;
  for (let i = 0; i < length; i++) {
    const code = cell.charCodeAt(i);
    if (code >= 48 && code <= 57) {
      mantissa = mantissa * 10 + (code - 48);
      digits++;
    } else if (code === 46 && pointAt < 0) pointAt = i;
    else return Number.NaN;
  }
  if (digits === 0 || digits > 15) return Number.NaN;
  return pointAt < 0 ? mantissa : mantissa / (POWERS_OF_TEN[length - 1 - pointAt] as number);
}

/** A column as the quick reader sees it: where it stands in the file and in the list. */
interface PlacedColumn {
  readonly index: number;
  readonly place: number;
  readonly column: Column;
}

/**
 * Reads the rows of one trials.csv. Checking a million rows through the
 * schema would take a minute, so the common shapes of a cell are accepted at
 * once and everything else goes through {@link cellProblem}, the same rules
 * the schema is made of; a test holds the two together.
 */
export class TrialRowReader {
  private readonly checked: readonly PlacedColumn[];
  private readonly requiredText: readonly PlacedColumn[];
  /** Numbers of the row being read, by column; NaN where the cell is empty. */
  private readonly numbers = new Float64Array(TRIALS_COLUMNS.length).fill(Number.NaN);
  private readonly place: readonly number[];
  private lastStarted = "";
  private lastStartedMs = 0;

  constructor(
    header: HeaderMap,
    private readonly width: number,
  ) {
    this.place = header.places;
    const placed = TRIALS_COLUMNS.map((column: Column, index) => ({ index, place: header.places[index] as number, column })).filter(
      ({ place }) => place >= 0,
    );
    this.checked = placed.filter(({ column }) => column.type !== "text");
    this.requiredText = placed.filter(({ column }) => column.type === "text" && column.required);
  }

  private cell(cells: readonly string[], column: number): string {
    const place = this.place[column] as number;
    return place < 0 ? "" : (cells[place] ?? "");
  }

  /** Whether a cell that is not empty can be taken at once; its number is kept. */
  private takeAtOnce(index: number, column: Column, cell: string): boolean {
    switch (column.type) {
      case "integer":
      case "number": {
        const value = plainDecimal(cell);
        if (!(value >= (column.least ?? 0)) || (column.above !== undefined && value <= column.above)) return false;
        if (column.most !== undefined && value > column.most) return false;
        if (column.type === "integer" && cell.includes(".")) return false;
        this.numbers[index] = value;
        return true;
      }
      case "choice": {
        const choices = column.choices as readonly string[];
        for (let i = 0; i < choices.length; i++) if (choices[i] === cell) return true;
        return false;
      }
      case "time":
        return cell === this.lastStarted;
      case "text":
        return true;
    }
  }

  private problem({ line, cells, malformed }: CsvRecord): RefusedRow | null {
    if (malformed) return { line, column: "", reason: "a quoted cell is not closed" };
    if (cells.length > this.width && cells.slice(this.width).some((cell) => cell !== "")) {
      return { line, column: "", reason: "has more cells than the header" };
    }
    for (const { place, column } of this.requiredText) {
      if ((cells[place] ?? "") === "") return { line, column: column.name, reason: "is missing" };
    }
    const checked = this.checked;
    for (let i = 0; i < checked.length; i++) {
      const { index, place, column } = checked[i] as PlacedColumn;
      const cell = cells[place] ?? "";
      if (cell === "") {
        if (column.required) return { line, column: column.name, reason: "is missing" };
        this.numbers[index] = Number.NaN;
        continue;
      }
      if (this.takeAtOnce(index, column, cell)) continue;
      const bare = trimmed(cell);
      const problem = cellProblem(column, bare);
      if (problem !== null) return { line, column: column.name, reason: problem };
      this.numbers[index] = bare === "" ? Number.NaN : Number(bare);
    }
    return null;
  }

  private number(column: number): number | null {
    const value = this.numbers[column] as number;
    return Number.isNaN(value) ? null : value;
  }

  private flag(cells: readonly string[], column: number): boolean | null {
    const cell = this.cell(cells, column);
    return cell === "" ? null : cell === "1" || cell.trim() === "1";
  }

  /** The row, or why it is refused. */
  read(record: CsvRecord): TrialRow | RefusedRow {
    const problem = this.problem(record);
    if (problem !== null) return problem;
    const { cells } = record;
    const started = this.cell(cells, STARTED);
    if (started !== this.lastStarted) {
      this.lastStarted = started;
      this.lastStartedMs = parseIsoTime(started.trim()) ?? 0;
    }
    const side = trimmed(this.cell(cells, SIDE));
    return {
      session: unguardText(this.cell(cells, SESSION)),
      startedMs: this.lastStartedMs,
      behaviour: unguardText(this.cell(cells, BEHAVIOUR)),
      rung: unguardText(this.cell(cells, RUNG)),
      side: side === "" ? null : (side as "L" | "R"),
      askSeconds: this.numbers[SECONDS] as number,
      logged: trimmed(this.cell(cells, LOGGED)),
      trial: this.numbers[TRIAL] as number,
      outcome: trimmed(this.cell(cells, OUTCOME)) as Outcome,
      phase: this.number(PHASE),
      latencySeconds: this.number(LATENCY),
      waitedSeconds: this.number(WAITED),
      releaseLagSeconds: this.number(RELEASE_LAG),
      markLagSeconds: this.number(MARK_LAG),
      feedDelaySeconds: this.number(FEED_DELAY),
      released: this.flag(cells, RELEASED),
      marked: this.flag(cells, MARKED),
      reinforced: this.flag(cells, REINFORCED),
      reinforcers: this.number(REINFORCERS),
    };
  }

  /** What stands beside the measures of the row that was read last. */
  beside({ cells }: CsvRecord): RowBeside {
    const kind = trimmed(this.cell(cells, KIND));
    const handler = unguardText(this.cell(cells, HANDLER));
    return {
      horse: unguardText(this.cell(cells, HORSE)),
      block: this.number(BLOCK),
      blockSeconds: this.number(BLOCK_SECONDS),
      kind: kind === "" ? null : (kind as BlockKind),
      ease: this.number(EASE),
      handler: handler === "" ? null : handler,
    };
  }
}

/** Whether a row could not be taken. @example isRefused({ line: 3, column: "outcome", reason: "…" }) // true */
export const isRefused = (row: TrialRow | RefusedRow): row is RefusedRow => "reason" in row;

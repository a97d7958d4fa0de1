import type { SessionEvent } from "../events";
import { reduceSession, type SessionRecord, workSeconds } from "../record";
import { type MeasuresOutput, TrialsAnalysis } from "./analysis";
import { type CsvRecord, NotSuchAFileError, parseCsv } from "./csv";
import { readHeader } from "./header";
import { type OverSessions, overSessions } from "./over-sessions";
import { pastsOfRecords } from "./past-of-records";
import { pastsOfRows, type WholeRow } from "./past-of-rows";
import type { EventsFile } from "./read-events";
import { SeenTrials } from "./seen-trials";
import { isRefused, TrialRowReader } from "./trial-row";
import { TRIALS_COLUMNS } from "./trials-columns";

/** What `analyse` gives. */
export type AnalyseOutput = MeasuresOutput & {
  /** Horse by horse; null where the file is too large for it. */
  readonly over_sessions: readonly OverSessions[] | null;
};

/** Choices of `analyse`. */
export interface AnalyseOptions {
  readonly workSeconds?: ReadonlyMap<string, number>;
  readonly withoutLate?: boolean;
  /** Whether rows are kept for what is said over sessions: not for a file of many megabytes. */
  readonly overSessions?: boolean;
}

/** Takes the records of a trials.csv in order, header first, in as many batches as they come. */
export class TrialsFileAnalysis {
  readonly analysis = new TrialsAnalysis();
  readonly seen = new SeenTrials();
  private readonly rows: WholeRow[] = [];
  private reader: TrialRowReader | null = null;

  /** @param headerCells the file's header, for a later part of a file that does not begin with it. */
  constructor(
    private readonly options: AnalyseOptions = {},
    headerCells: readonly string[] | null = null,
  ) {
    if (headerCells !== null) this.reader = new TrialRowReader(readHeader(TRIALS_COLUMNS, headerCells, "trials.csv"), headerCells.length);
  }

  /** @throws NotSuchAFileError where the first record is not the header of a trials.csv. */
  take(record: CsvRecord): void {
    if (this.reader === null) {
      const header = readHeader(TRIALS_COLUMNS, record.cells, "trials.csv");
      this.analysis.unknownColumns.push(...header.unknown);
      this.reader = new TrialRowReader(header, record.cells.length);
      return;
    }
    const row = this.reader.read(record);
    if (isRefused(row)) this.analysis.refused.push(row);
    else if (!this.seen.take(row))
      this.analysis.refused.push({ line: record.line, column: "trial", reason: "the same trial of its session stands in the file before" });
    else if (!(this.options.withoutLate && row.logged === "late")) {
      this.analysis.add(row);
      if (this.options.overSessions !== false) this.rows.push({ ...row, ...this.reader.beside(record) });
    }
  }

  /** @throws NotSuchAFileError where not even a header came. */
  finish(): AnalyseOutput {
    if (this.reader === null) throw new NotSuchAFileError("The file is empty.");
    const given = this.options.workSeconds ?? new Map<string, number>();
    const over =
      this.options.overSessions === false
        ? null
        : pastsOfRows(this.rows, given).map((one) =>
            overSessions({ ...one, places: null, moments: false, planOf: () => undefined, names: new Map() }),
          );
    return { ...this.analysis.finish(given), over_sessions: over };
  }
}

/**
 * Analyses a trials.csv held as text. For a large file, feed {@link TrialsFileAnalysis} as it is read.
 * @example analyseTrialsText(text) // { trials: 4, sessions: 2, work_time: "estimated", … }
 */
export function analyseTrialsText(text: string, options: AnalyseOptions = {}): AnalyseOutput {
  const file = new TrialsFileAnalysis(options);
  for (const record of parseCsv(text)) file.take(record);
  return file.finish();
}

/**
 * Analyses an events.csv: each session is derived from its events, with its own working time.
 * @example analyseEvents(file) // { trials: 53, sessions: 1, work_time: "given", … }
 */
export function analyseEvents(file: EventsFile, options: AnalyseOptions = {}): AnalyseOutput {
  const bySession = new Map<string, SessionEvent[]>();
  for (const event of file.events) {
    const list = bySession.get(event.session);
    if (list === undefined) bySession.set(event.session, [event]);
    else list.push(event);
  }
  const analysis = new TrialsAnalysis();
  analysis.refused.push(...file.refused);
  analysis.unknownColumns.push(...file.unknownColumns);
  const seconds = new Map<string, number>();
  const records: [id: string, record: SessionRecord][] = [];
  for (const [session, events] of bySession) {
    const record = reduceSession(events, { givenSeconds: file.givenSeconds });
    records.push([session, record]);
    seconds.set(session, options.workSeconds?.get(session) ?? workSeconds(record));
    for (const trial of record.trials) {
      if (options.withoutLate && trial.logged === "late") continue;
      const block = trial.blockIndex === null ? undefined : record.blocks[trial.blockIndex];
      analysis.add({
        ...trial,
        session,
        startedMs: record.startWallMs ?? 0,
        behaviour: block?.behaviour ?? "unnamed",
        rung: block?.rung ?? "none",
        askSeconds: trial.askMs / 1000,
      });
    }
  }
  return { ...analysis.finish(seconds), over_sessions: pastsOfRecords(records, seconds, options.withoutLate ?? false).map(overSessions) };
}

import type { SessionEvent } from "../events";
import { blockSeconds, endOfWorkMs, type SessionRecord, type Trial, workSeconds } from "../record";
import { writeCsv } from "./csv";
import { guardText } from "./text-cell";
import { EVENTS_COLUMNS, SESSIONS_COLUMNS, type SessionsColumn, TRIALS_COLUMNS, type TrialsColumn } from "./trials-columns";

const numberCell = (value: number | null | undefined) => (value === null || value === undefined ? "" : String(value));
const flagCell = (value: boolean | null) => (value === null ? "" : value ? "1" : "0");
const textCell = (value: string | null | undefined) => guardText(value ?? "");

/** ISO 8601 in UTC with its offset. @example isoTime(1780308017125) // "2026-06-01T10:00:17.125Z" */
export const isoTime = (wallMs: number) => new Date(wallMs).toISOString();

/** A session as it is written to files: its id and what was derived from its events. */
export interface SessionForFile {
  readonly id: string;
  readonly record: SessionRecord;
}

function trialCells(session: SessionForFile, trial: Trial): Record<TrialsColumn, string> {
  const { record } = session;
  const block = trial.blockIndex === null ? undefined : record.blocks[trial.blockIndex];
  const seconds = trial.blockIndex === null ? 0 : blockSeconds(record, trial.blockIndex);
  return {
    session: textCell(session.id),
    started_at: isoTime(record.startWallMs ?? 0),
    horse: textCell(record.header?.horse),
    behaviour: textCell(block?.behaviour ?? "unnamed"),
    rung: textCell(block?.rung ?? "none"),
    place: textCell(record.header?.place),
    block: numberCell(block?.number),
    trial: String(trial.number),
    block_s: seconds > 0 ? String(seconds) : "",
    kind: block?.kind ?? "",
    t_s: String(trial.askMs / 1000),
    side: trial.side ?? "",
    phase: numberCell(trial.phase),
    outcome: trial.outcome,
    wrong_before: String(trial.wrongBefore),
    latency_s: numberCell(trial.latencySeconds),
    waited_s: numberCell(trial.waitedSeconds),
    release_lag_s: numberCell(trial.releaseLagSeconds),
    mark_lag_s: numberCell(trial.markLagSeconds),
    feed_delay_s: numberCell(trial.feedDelaySeconds),
    released: flagCell(trial.released),
    marked: flagCell(trial.marked),
    reinforced: flagCell(trial.reinforced),
    reinforcers: numberCell(trial.reinforcers),
    value: numberCell(trial.value),
    unit: textCell(trial.unit),
    ended_by: trial.endedBy ?? "",
    ease: numberCell(trial.ease),
    faults: textCell(trial.faults.join(";")),
    logged: trial.logged ?? "",
    zone: textCell(trial.zone),
    note: textCell(trial.note),
    movement: numberCell(trial.movement),
    handler: textCell(trial.handler?.name ?? record.header?.handler),
  };
}

/** trials.csv of one or more sessions. @example writeTrialsCsv(sessions) */
export function writeTrialsCsv(sessions: readonly SessionForFile[]): string {
  const names = TRIALS_COLUMNS.map((column) => column.name);
  const rows = sessions.flatMap((session) =>
    session.record.trials.map((trial) => {
      const cells = trialCells(session, trial);
      return names.map((name) => cells[name]);
    }),
  );
  return writeCsv(names, rows);
}

function sessionCells({ id, record }: SessionForFile): Record<SessionsColumn, string> {
  const start = record.startWallMs ?? 0;
  const preflight = record.facts.find((fact) => fact.type === "preflight")?.payload;
  const notes = record.facts.filter((fact) => fact.type === "note").map((fact) => fact.payload.text);
  return {
    session: textCell(id),
    started_at: isoTime(start),
    ended_at: record.finishMs === null ? "" : isoTime(start + endOfWorkMs(record)),
    horse: textCell(record.header?.horse),
    handler: textCell(record.header?.handler),
    place: textCell(record.header?.place),
    work_s: String(workSeconds(record)),
    food_other: String(record.foodPiecesOutside),
    temp_c: numberCell(preflight?.air_c),
    humidity_pct: numberCell(preflight?.humidity),
    wind: textCell(preflight?.wind),
    note: textCell(notes.join("\n")),
  };
}

/** sessions.csv of one or more sessions. @example writeSessionsCsv(sessions) */
export function writeSessionsCsv(sessions: readonly SessionForFile[]): string {
  const names = SESSIONS_COLUMNS.map((column) => column.name);
  const rows = sessions.map((session) => {
    const cells = sessionCells(session);
    return names.map((name) => cells[name]);
  });
  return writeCsv(names, rows);
}

/**
 * events.csv: every event as it was recorded, undone ones too.
 * @param secondsById derived seconds from the start of work, by event id.
 * @example writeEventsCsv(events, secondsById)
 */
export function writeEventsCsv(events: readonly SessionEvent[], secondsById: ReadonlyMap<string, number>): string {
  const rows = events.map((event) => [
    event.id,
    event.session,
    textCell(event.recorder),
    event.load,
    String(event.seq),
    String(event.mono_ms),
    String(event.wall_ms),
    numberCell(secondsById.get(event.id)),
    event.type,
    JSON.stringify(event.payload),
    event.part ?? "",
  ]);
  return writeCsv(
    EVENTS_COLUMNS.map((column) => column.name),
    rows,
  );
}

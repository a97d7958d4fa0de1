import { isEmptySession } from "./empty";
import { piecesUsed, weighedGrams } from "./food";
import type { SessionRecord } from "./reduce";
import { workSeconds } from "./time";

/** What lists, the yard and the week's sums need of a session, small enough to keep beside each. */
export interface SessionSums {
  /** Server wall clock of the start of work in milliseconds, null before it. */
  readonly startedMs: number | null;
  readonly finished: boolean;
  /** Whether anything was seen in it. */
  readonly seen: boolean;
  /** The last fact of the work, in milliseconds from its start, and how long after it an open session still counts as running. */
  readonly lastMs: number;
  readonly runsOnMs: number | null;
  readonly shiftMs: number;
  readonly workSeconds: number;
  readonly trials: number;
  readonly met: number;
  readonly pieces: number;
  readonly weighedGrams: number | null;
  /** What was written for next time, or null. */
  readonly doNext: string | null;
}

/** Sums a session up for lists. @example sumsOfSession(record).met */
export function sumsOfSession(record: SessionRecord): SessionSums {
  return {
    startedMs: record.startWallMs,
    finished: record.finishMs !== null,
    seen: !isEmptySession(record),
    lastMs: record.lastMs,
    runsOnMs: record.runsOnMs,
    shiftMs: record.shiftMs,
    workSeconds: workSeconds(record),
    trials: record.trials.length,
    met: record.trials.filter(({ outcome }) => outcome === "met").length,
    pieces: piecesUsed(record),
    weighedGrams: weighedGrams(record),
    doNext: record.facts.filter((fact) => fact.type === "note").findLast(({ payload }) => payload.about === "next")?.payload.text ?? null,
  };
}

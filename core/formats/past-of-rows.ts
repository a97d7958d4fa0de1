import { NO_FACTS, type Past, type PastSession, type PastTrial } from "../past";
import type { RowBeside, TrialRow } from "./trial-row";

/** A row with what stands beside it. */
export type WholeRow = TrialRow & RowBeside;

interface SoFar {
  readonly id: string;
  readonly horse: string;
  readonly startedMs: number;
  readonly rows: WholeRow[];
}

/** Seconds of work of a session: those given, those its blocks say, or as far as its rows show. */
function secondsOf(rows: readonly WholeRow[], given: number | undefined): number {
  if (given !== undefined) return given;
  const blocks = new Map(rows.flatMap(({ block, blockSeconds }) => (blockSeconds === null ? [] : [[block, blockSeconds] as const])));
  const said = [...blocks.values()].reduce((sum, seconds) => sum + seconds, 0);
  if (said > 0) return said;
  return Math.max(0, ...rows.map(({ askSeconds, waitedSeconds, latencySeconds }) => askSeconds + (waitedSeconds ?? latencySeconds ?? 0)));
}

function sessionOf({ id, horse, startedMs, rows }: SoFar, given: number | undefined): PastSession {
  const seconds = secondsOf(rows, given);
  const numbers = [...new Set(rows.map(({ block }) => block))];
  // Where rows name no block the session is one.
  const blocks = numbers.map((block) => {
    const own = rows.filter((row) => row.block === block);
    const from = Math.min(...own.map(({ askSeconds }) => askSeconds));
    const long = own.find(({ blockSeconds }) => blockSeconds !== null)?.blockSeconds ?? (numbers.length === 1 ? seconds : 0);
    return { seconds: long, planned: null, startMs: from * 1000, endMs: (from + long) * 1000 };
  });
  return {
    id,
    horse,
    startedMs,
    workSeconds: seconds,
    handler: rows[0]?.handler ?? null,
    place: null,
    kit: [],
    facts: { ...NO_FACTS, firstSide: rows.find(({ side }) => side !== null)?.side ?? null, blocks, endMs: seconds * 1000 },
  };
}

function trialOf(row: WholeRow, session: number, block: number): PastTrial {
  const rung = Number(row.rung);
  const counts = row.rung !== "" && Number.isInteger(rung);
  const end = row.askSeconds + (row.waitedSeconds ?? row.latencySeconds ?? 0);
  return {
    session,
    number: row.trial,
    block,
    handler: row.handler,
    ladder: counts ? row.behaviour : null,
    version: counts ? 1 : null,
    rung: counts ? rung : null,
    side: row.side,
    kind: row.kind ?? "work",
    outcome: row.outcome,
    phase: row.phase,
    ease: row.ease,
    movement: null,
    value: null,
    unit: null,
    askMs: row.askSeconds * 1000,
    endMs: end * 1000,
    answerMs: row.latencySeconds === null ? null : (row.askSeconds + row.latencySeconds) * 1000,
    latencySeconds: row.latencySeconds,
    waitedSeconds: row.waitedSeconds,
    releaseLagSeconds: row.releaseLagSeconds,
    markLagSeconds: row.markLagSeconds,
    feedDelaySeconds: row.feedDelaySeconds,
    wrongBefore: 0,
    released: row.released,
    marked: row.marked,
    reinforced: row.reinforced,
    reinforcers: row.reinforcers,
    zone: null,
    endedBy: null,
    logged: row.logged === "" ? null : (row.logged as PastTrial["logged"]),
    comparable: row.logged !== "late",
    clean: false,
    novel: false,
  };
}

/**
 * Rows of trials.csv as a past for each horse: a behaviour stands for its
 * ladder, and its rung counts where it is a number. Signs, departures and zones
 * are not in such a file.
 * @param workSeconds working time by session, where a sessions.csv gives it.
 * @example pastsOfRows([], new Map()) // []
 */
export function pastsOfRows(
  rows: readonly WholeRow[],
  workSeconds: ReadonlyMap<string, number>,
): { readonly horse: string | null; readonly past: Past }[] {
  const horses = new Map<string, Map<string, SoFar>>();
  for (const row of rows) {
    const sessions = horses.get(row.horse) ?? new Map<string, SoFar>();
    horses.set(row.horse, sessions);
    const session = sessions.get(row.session) ?? { id: row.session, horse: row.horse, startedMs: row.startedMs, rows: [] };
    sessions.set(row.session, session);
    session.rows.push(row);
  }
  return [...horses].map(([horse, sessions]) => {
    const inOrder = [...sessions.values()].sort((a, b) => a.startedMs - b.startedMs);
    return {
      horse: horse === "" ? null : horse,
      past: {
        sessions: inOrder.map((one) => sessionOf(one, workSeconds.get(one.id))),
        trials: inOrder.flatMap(({ rows: own }, session) => {
          const numbers = [...new Set(own.map(({ block }) => block))];
          return [...own]
            .sort((a, b) => a.askSeconds - b.askSeconds || a.trial - b.trial)
            .map((row) => trialOf(row, session, numbers.indexOf(row.block)));
        }),
      },
    };
  });
}

import type { Outcome } from "../evidence";
import { type BlockKind, isClean, isComparable, type LoggedWay, type SessionRecord, whoseTrial } from "../record";
import type { PastFacts } from "./facts";

/** A session as the views over weeks read it. */
export interface PastSession {
  readonly id: string;
  readonly horse: string;
  /** Server wall clock of the start of work, milliseconds. */
  readonly startedMs: number;
  readonly workSeconds: number;
  /** Whose session it is, by id. */
  readonly handler: string | null;
  /** Where, by id. */
  readonly place: string | null;
  /** What was worn and used, by id. */
  readonly kit: readonly string[];
  readonly facts: PastFacts;
}

/** A trial as the views over weeks read it: times in milliseconds from the start of work, lags and latencies in seconds. */
export interface PastTrial {
  /** The place of its session in {@link Past.sessions}. */
  readonly session: number;
  /** Counts inside the session, from 1. */
  readonly number: number;
  readonly block: number | null;
  readonly handler: string | null;
  readonly ladder: string | null;
  /** The version it counts for: the present one where its rung is unchanged since. */
  readonly version: number | null;
  readonly rung: number | null;
  readonly side: "L" | "R" | null;
  readonly kind: BlockKind;
  readonly outcome: Outcome;
  readonly phase: number | null;
  readonly ease: number | null;
  readonly movement: number | null;
  readonly value: number | null;
  readonly unit: string | null;
  readonly askMs: number;
  readonly endMs: number;
  readonly answerMs: number | null;
  readonly latencySeconds: number | null;
  readonly waitedSeconds: number | null;
  readonly releaseLagSeconds: number | null;
  readonly markLagSeconds: number | null;
  readonly feedDelaySeconds: number | null;
  readonly wrongBefore: number;
  readonly released: boolean | null;
  readonly marked: boolean | null;
  readonly reinforced: boolean | null;
  readonly reinforcers: number | null;
  readonly zone: string | null;
  readonly endedBy: "criterion" | "left" | "handler" | null;
  readonly logged: LoggedWay | null;
  /** A sign of tension, pain or danger came within the ask; left out where none did. */
  readonly troubled?: true;
  /** Whether it may be held against the other side. */
  readonly comparable: boolean;
  /** Met at phase 1 with the ease the rung asks for. */
  readonly clean: boolean;
  /** Whether its session was the first ever on its rung. */
  readonly novel: boolean;
}

/** What was worked in a span, oldest first; trials in the order of their asks. */
export interface Past {
  readonly sessions: readonly PastSession[];
  readonly trials: readonly PastTrial[];
}

/** The trials of one session from its record, as the store keeps them. @example pastTrialsOf(record, 0, null) // 53 of them */
export function pastTrialsOf(record: SessionRecord, session: number, handler: string | null): PastTrial[] {
  return record.trials.map((trial): PastTrial => {
    const block = trial.blockIndex === null ? undefined : record.blocks[trial.blockIndex];
    const rung = Number(block?.rung);
    const counts = block !== undefined && block.ladder !== null && block.version !== null && Number.isInteger(rung);
    return {
      session,
      number: trial.number,
      block: trial.blockIndex,
      handler: whoseTrial(trial, handler),
      ladder: counts ? block.ladder : null,
      version: block?.version ?? null,
      rung: Number.isInteger(rung) ? rung : null,
      side: trial.side,
      kind: block?.kind ?? "work",
      outcome: trial.outcome,
      phase: trial.phase,
      ease: trial.ease,
      movement: trial.movement,
      value: trial.value,
      unit: trial.unit,
      askMs: trial.askMs,
      endMs: trial.endMs,
      answerMs: trial.answerMs,
      latencySeconds: trial.latencySeconds,
      waitedSeconds: trial.waitedSeconds,
      releaseLagSeconds: trial.releaseLagSeconds,
      markLagSeconds: trial.markLagSeconds,
      feedDelaySeconds: trial.feedDelaySeconds,
      wrongBefore: trial.wrongBefore,
      released: trial.released,
      marked: trial.marked,
      reinforced: trial.reinforced,
      reinforcers: trial.reinforcers,
      zone: trial.zone,
      endedBy: trial.endedBy,
      logged: trial.logged,
      comparable: isComparable(trial, block?.criterion ?? null),
      clean: isClean(trial, block?.criterion ?? null),
      ...(trial.troubled === null ? {} : { troubled: true as const }),
      novel: false,
    };
  });
}

/** Trials by the session they belong to; a session without any has an empty list. @example bySession({ … }) // 2 of them */
export function bySession({ sessions, trials }: Past): readonly (readonly PastTrial[])[] {
  const lists: PastTrial[][] = sessions.map(() => []);
  for (const trial of trials) lists[trial.session]?.push(trial);
  return lists;
}

/**
 * The past without sessions that hold none of its trials, trials pointing at what is left.
 * @example onlyWorked({ sessions, trials: [] }).sessions // []
 */
export function onlyWorked({ sessions, trials }: Past): Past {
  const places = new Map<number, number>();
  for (const { session } of trials) places.set(session, 0);
  const kept = sessions.filter((_, i) => places.has(i));
  let next = 0;
  for (const [i] of sessions.entries()) if (places.has(i)) places.set(i, next++);
  return { sessions: kept, trials: trials.map((trial) => ({ ...trial, session: places.get(trial.session) ?? 0 })) };
}

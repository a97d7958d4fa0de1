import { type GroupMeasures, measureGroup } from "../evidence";
import type { Block, SessionRecord } from "./reduce";
import type { Trial } from "./trial";

/** A part of a session: what its trials come to, without rates. */
export interface SessionPart {
  readonly n: number;
  readonly met: number;
  readonly metAtLightest: number;
  readonly metWithPhase: number;
  readonly halfAnsweredSeconds: number | null;
  readonly timed: number;
  readonly meanEase: number | null;
  readonly eased: number;
  /** Median release lag in seconds; null where none was timed. */
  readonly releaseLag: number | null;
}

function partOf(trials: readonly Trial[]): SessionPart {
  const measures: GroupMeasures = measureGroup(trials, 0);
  const grades = trials.flatMap(({ ease }) => (ease === null ? [] : [ease]));
  return {
    n: measures.n,
    met: measures.met,
    metAtLightest: measures.metAtLightest,
    metWithPhase: measures.metWithPhase,
    halfAnsweredSeconds: measures.latency.halfAnsweredSeconds,
    timed: measures.latency.answered + measures.latency.censored,
    meanEase: grades.length === 0 ? null : grades.reduce((sum, one) => sum + one, 0) / grades.length,
    eased: grades.length,
    releaseLag: measures.releaseLag.median,
  };
}

const isWork = ({ blocks }: SessionRecord, { blockIndex }: Trial) =>
  blockIndex === null ? true : (blocks[blockIndex]?.kind ?? "work") === "work";

/** Fewest asks of work a session is cut into thirds from. */
export const FEWEST_FOR_THIRDS = 9;

/**
 * First, middle and last third of a session's work, by asks: what is over goes
 * to the middle. Warm-up, probes and the easy one at the end are left out.
 * @returns null under nine asks, and where it was written from memory: its order is not known.
 * @example sessionThirds(record)?.[2].met
 */
export function sessionThirds(record: SessionRecord): readonly [SessionPart, SessionPart, SessionPart] | null {
  const trials = record.trials.filter((trial) => isWork(record, trial));
  if (trials.length < FEWEST_FOR_THIRDS || trials.some(({ logged }) => logged === "late")) return null;
  const third = Math.floor(trials.length / 3);
  return [partOf(trials.slice(0, third)), partOf(trials.slice(third, trials.length - third)), partOf(trials.slice(trials.length - third))];
}

/**
 * First pass against second: the first block of work on a rung and side, and
 * the next one on it in the same session, over all rungs that were worked twice.
 * @returns null where none was.
 * @example firstAndSecondPass(record) // 2 of them
 */
export function firstAndSecondPass(record: SessionRecord): readonly [SessionPart, SessionPart] | null {
  const passes = new Map<string, number[]>();
  for (const [index, { ladder, version, rung, side, kind }] of record.blocks.entries()) {
    if ((kind ?? "work") !== "work" || !record.trials.some(({ blockIndex }) => blockIndex === index)) continue;
    const key = JSON.stringify([ladder, version, rung, side]);
    passes.set(key, [...(passes.get(key) ?? []), index]);
  }
  const twice = [...passes.values()].filter(({ length }) => length >= 2);
  if (twice.length === 0) return null;
  const of = (pass: 0 | 1) => {
    const blocks = new Set(twice.map((list) => list[pass]));
    return partOf(record.trials.filter(({ blockIndex }) => blockIndex !== null && blocks.has(blockIndex)));
  };
  return [of(0), of(1)];
}

/** How a session went beside its plan. */
export interface AgainstPlan {
  /** Asks planned for the blocks that said how many, and those that were made in them. */
  readonly planned: number;
  readonly made: number;
  /** Blocks with more asks than planned, and with fewer. */
  readonly over: number;
  readonly under: number;
}

/**
 * Asks planned for a block; null where its ladder said none. What is on no ladder has no plan: a first look allows one to three asks.
 * @example plannedAsks(block) // 8
 */
export const plannedAsks = ({ ladder, planned }: Pick<Block, "ladder" | "planned">): number | null =>
  ladder === null || planned === 0 ? null : planned;

/**
 * Asks beside those planned, block by block. @returns null where no block said how many.
 * @example againstPlan(record) // { planned: 8, made: 3, over: 0, under: 1 }
 */
export function againstPlan({ blocks, trials }: Pick<SessionRecord, "blocks" | "trials">): AgainstPlan | null {
  const made = blocks.map((_, i) => trials.filter(({ blockIndex }) => blockIndex === i).length);
  const told = blocks.flatMap((block, i) => {
    const planned = plannedAsks(block);
    return planned === null ? [] : [{ planned, made: made[i] ?? 0 }];
  });
  if (told.length === 0) return null;
  return {
    planned: told.reduce((sum, one) => sum + one.planned, 0),
    made: told.reduce((sum, one) => sum + one.made, 0),
    over: told.filter((one) => one.made > one.planned).length,
    under: told.filter((one) => one.made < one.planned).length,
  };
}

import { type Block, isClean, isComparable, type Trial, whoseTrial } from "@/core/record";
import { keysOf, recordOf } from "@/core/typed";
import type { SessionCache } from "./kept";

/** Whose a session is, as its trials name them. */
export interface Whose {
  readonly horse_id: string;
  readonly person_id: string | null;
}

/** A trial with what its row is made of. */
interface TrialOf {
  readonly kept: SessionCache;
  readonly trial: Trial;
  readonly block: Block | undefined;
  readonly whose: Whose;
  /** The number the caches name an id by. */
  readonly number: (id: string | null) => number | null;
}

/** What a trial's flags hold, a bit each. */
export const TRIAL_FLAGS = { clean: 1, overridden: 2, fellShort: 4, helped: 8, comparable: 16, troubled: 32 } as const;

const flagsOf = ({ trial, block }: TrialOf): number =>
  Number(isClean(trial, block?.criterion ?? null)) * TRIAL_FLAGS.clean +
  Number(trial.overridden) * TRIAL_FLAGS.overridden +
  Number(trial.shortfall !== null) * TRIAL_FLAGS.fellShort +
  Number(trial.helped !== null) * TRIAL_FLAGS.helped +
  Number(isComparable(trial, block?.criterion ?? null)) * TRIAL_FLAGS.comparable +
  Number(trial.troubled !== null) * TRIAL_FLAGS.troubled;

const bit = (flag: boolean | null) => (flag === null ? null : Number(flag));

/** Work on a rung of a ladder's version is evidence of it; what has none of the three is not. */
const counts = ({ block }: TrialOf) =>
  block !== undefined && block.ladder !== null && block.version !== null && Number.isInteger(Number(block.rung));

/** The table of trials: each column by its name, with what of a trial stands there. Written and read through here alone. */
const COLUMNS = {
  session_no: ({ kept }: TrialOf) => kept.no,
  number: ({ trial }: TrialOf) => trial.number,
  block: ({ trial }: TrialOf) => trial.blockIndex,
  horse_no: ({ number, whose }: TrialOf) => number(whose.horse_id),
  handler_no: ({ number, trial, whose }: TrialOf) => number(whoseTrial(trial, whose.person_id)),
  ladder_no: (of: TrialOf) => (counts(of) ? of.number(of.block?.ladder ?? null) : null),
  version: ({ block }: TrialOf) => block?.version ?? null,
  rung: ({ block }: TrialOf) => (Number.isInteger(Number(block?.rung)) ? Number(block?.rung) : null),
  side: ({ trial }: TrialOf) => trial.side,
  kind: ({ block }: TrialOf) => block?.kind ?? null,
  outcome: ({ trial }: TrialOf) => trial.outcome,
  phase: ({ trial }: TrialOf) => trial.phase,
  ease: ({ trial }: TrialOf) => trial.ease,
  value: ({ trial }: TrialOf) => trial.value,
  unit: ({ trial }: TrialOf) => trial.unit,
  wall_ms: ({ kept, trial }: TrialOf) => (kept.record.startWallMs ?? 0) + trial.askMs,
  ask_ms: ({ trial }: TrialOf) => trial.askMs,
  end_ms: ({ trial }: TrialOf) => trial.endMs,
  answer_ms: ({ trial }: TrialOf) => trial.answerMs,
  latency_s: ({ trial }: TrialOf) => trial.latencySeconds,
  waited_s: ({ trial }: TrialOf) => trial.waitedSeconds,
  release_lag_s: ({ trial }: TrialOf) => trial.releaseLagSeconds,
  mark_lag_s: ({ trial }: TrialOf) => trial.markLagSeconds,
  feed_delay_s: ({ trial }: TrialOf) => trial.feedDelaySeconds,
  wrong_before: ({ trial }: TrialOf) => trial.wrongBefore,
  released: ({ trial }: TrialOf) => bit(trial.released),
  marked: ({ trial }: TrialOf) => bit(trial.marked),
  reinforced: ({ trial }: TrialOf) => bit(trial.reinforced),
  reinforcers: ({ trial }: TrialOf) => trial.reinforcers,
  zone: ({ trial }: TrialOf) => trial.zone,
  ended_by: ({ trial }: TrialOf) => trial.endedBy,
  logged: ({ trial }: TrialOf) => trial.logged,
  flags: flagsOf,
  movement: ({ trial }: TrialOf) => trial.movement,
} as const;

export type TrialColumn = keyof typeof COLUMNS;
export const TRIAL_COLUMNS = keysOf(COLUMNS);
const WRITERS = Object.values(COLUMNS);

/** A trial as a row of its table, in the order of {@link TRIAL_COLUMNS}. */
export function trialRow(kept: SessionCache, trial: Trial, number: (id: string | null) => number | null, whose: Whose): unknown[] {
  const of: TrialOf = { kept, trial, number, whose, block: trial.blockIndex === null ? undefined : kept.record.blocks[trial.blockIndex] };
  return WRITERS.map((write) => write(of));
}

/** A cell as it is read; the kind of work, the outcome and the like come back as they went in. */
export type TrialCell<Name extends TrialColumn> = ReturnType<(typeof COLUMNS)[Name]>;

/** Some columns of many trials as one text of JSON: rows that are taken over one by one cost several times as much. */
export interface TrialPacking<Name extends TrialColumn> {
  /** The columns with the table's alias before them, for an inner query. */
  readonly columns: string;
  /** One trial as a list. */
  readonly json: string;
  /** A cell of such a list, by its column's name. */
  readonly cell: <One extends Name>(row: TrialCells, name: One) => TrialCell<One>;
}

/** A trial as a list of some columns; its cells are read by {@link TrialPacking.cell}. */
export type TrialCells = readonly unknown[] & { readonly _packed?: never };

const TEXTS: ReadonlySet<TrialColumn> = new Set(["side", "kind", "outcome", "unit", "zone", "ended_by", "logged"]);
/** Numbers with a fraction, and times too large to be printed short. */
const REALS: ReadonlySet<TrialColumn> = new Set([
  ...(["value", "wall_ms", "latency_s", "waited_s", "release_lag_s", "mark_lag_s", "feed_delay_s"] as const),
]);

const jsonOf = (name: TrialColumn): string =>
  TEXTS.has(name)
    ? `IIF(t.${name} IS NULL, 'null', json_quote(t.${name}))`
    : REALS.has(name)
      ? `IIF(t.${name} IS NULL, 'null', printf('%!.17g', t.${name}))`
      : `COALESCE(t.${name}, 'null')`;

/**
 * How these columns of the table `t` are packed and read.
 * @example const packing = packTrials(["rung", "outcome"]); packing.cell(JSON.parse(text)[0], "rung") // 3
 */
export function packTrials<const Name extends TrialColumn>(names: readonly Name[]): TrialPacking<Name> {
  const places = recordOf(names, (name) => names.indexOf(name));
  return {
    columns: names.map((name) => `t.${name}`).join(", "),
    json: `'[' || ${names.map(jsonOf).join(" || ',' || ")} || ']'`,
    cell: <One extends Name>(row: TrialCells, name: One) => row[places[name]] as TrialCell<One>,
  };
}

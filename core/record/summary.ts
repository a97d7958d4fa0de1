import { compareSides, type GroupMeasures, GroupTally, measureGroup, medianOf, type SideComparison } from "../evidence";
import { type DwellConsistency, dwellConsistency, heldPhases } from "./held-phases";
import { type Offers, offersOf } from "./offers";
import type { Block, SessionRecord } from "./reduce";
import { blockSeconds, workSeconds } from "./time";
import type { Trial } from "./trial";

/** The measures of one block, with rates per minute of the block's own time. */
export interface BlockSummary {
  readonly index: number;
  readonly block: Block;
  readonly seconds: number;
  readonly measures: GroupMeasures;
}

/** Met of all on one ladder, or on one behaviour without a ladder. */
export interface LadderShare {
  readonly behaviour: string;
  readonly met: number;
  readonly of: number;
}

/** How what was reinforced was reinforced: trials of each kind, one trial in as many as it got. */
export interface Earned {
  readonly released: number;
  readonly marked: number;
  readonly fed: number;
  /** Another reinforcer: a scratch, a rest, a game. */
  readonly other: number;
  /** Reinforced without a word of how. */
  readonly unsaid: number;
  /** Pieces of food given to trials, and outside of any. */
  readonly piecesInTrials: number;
  readonly piecesOutside: number;
}

/** The measures of a session, with rates per minute of its working time. */
export interface SessionSummary {
  readonly workSeconds: number;
  readonly measures: GroupMeasures;
  readonly blocks: readonly BlockSummary[];
  /** In the order they were first worked. Shares of several ladders are not one share. */
  readonly ladders: readonly LadderShare[];
  readonly earned: Earned;
  readonly left: GroupMeasures;
  readonly right: GroupMeasures;
  readonly sides: SideComparison;
  readonly medianInterResponseSeconds: number | null;
  /** The most met answers one after another in one block. */
  readonly longestMetRun: number;
  readonly faultCounts: Readonly<Record<string, number>>;
  readonly offers: Offers;
  readonly dwell: DwellConsistency;
  /** Whether any of it was written from memory: its rates rest on rough times. */
  readonly late: boolean;
}

/**
 * Times between successive met responses inside one block, breaks taken out, in seconds.
 * @example interResponseSeconds(record) // [10]
 */
export function interResponseSeconds(record: SessionRecord): number[] {
  const times: number[] = [];
  let before: Trial | null = null;
  for (const trial of record.trials) {
    // Times written from memory say nothing of the time between two answers.
    if (trial.outcome !== "met" || trial.logged === "late") continue;
    if (before !== null && before.blockIndex === trial.blockIndex) {
      const from = before.answerMs ?? before.askMs;
      const to = trial.answerMs ?? trial.askMs;
      const away = record.timeLine.breaks.reduce((sum, b) => sum + Math.max(0, Math.min(to, b.endMs ?? to) - Math.max(from, b.startMs)), 0);
      times.push((to - from - away) / 1000);
    }
    before = trial;
  }
  return times;
}

/** The most met answers one after another, none of them in another block. @example longestMetRun([met, met, miss, met]) // 2 */
export function longestMetRun(trials: readonly Pick<Trial, "outcome" | "blockIndex">[]): number {
  let longest = 0;
  let run = 0;
  for (const [i, { outcome, blockIndex }] of trials.entries()) {
    const goesOn = trials[i - 1]?.blockIndex === blockIndex;
    run = outcome === "met" ? (goesOn ? run + 1 : 1) : 0;
    longest = Math.max(longest, run);
  }
  return longest;
}

/** Met of all by ladder. Two ladders of one name are two. */
function laddersOf({ trials, blocks }: SessionRecord): LadderShare[] {
  const shares = new Map<string, { behaviour: string; met: number; of: number }>();
  for (const { blockIndex, outcome } of trials) {
    const block = blockIndex === null ? undefined : blocks[blockIndex];
    if (block === undefined) continue;
    const key = JSON.stringify([block.ladder, block.ladder === null ? block.behaviour : ""]);
    const share = shares.get(key) ?? { behaviour: block.behaviour, met: 0, of: 0 };
    share.of++;
    if (outcome === "met") share.met++;
    shares.set(key, share);
  }
  return [...shares.values()];
}

function earnedOf({ trials, foodPiecesOutside }: SessionRecord): Earned {
  const earned = { released: 0, marked: 0, fed: 0, other: 0, unsaid: 0, piecesInTrials: 0, piecesOutside: foodPiecesOutside };
  for (const { reinforced, released, marked, feedMs, reinforcers, reinforcerKinds } of trials) {
    earned.piecesInTrials += reinforcers ?? 0;
    if (reinforced !== true) continue;
    const fed = feedMs !== null || (reinforcers ?? 0) > 0;
    const other = reinforcerKinds.length > 0;
    if (released === true) earned.released++;
    if (marked === true) earned.marked++;
    if (fed) earned.fed++;
    if (other) earned.other++;
    if (released !== true && marked !== true && !fed && !other) earned.unsaid++;
  }
  return earned;
}

/**
 * Sums a session up. `nowMs` (from the start of work) is the present of a session still running.
 * @example summariseSession(record) // { workSeconds: 454.79, longestMetRun: 3, late: false, … }
 */
export function summariseSession(record: SessionRecord, nowMs: number | null = null): SessionSummary {
  const seconds = workSeconds(record, nowMs);
  const minutes = seconds / 60;
  const left = new GroupTally();
  const right = new GroupTally();
  const faultCounts: Record<string, number> = {};
  const byBlock = record.blocks.map(() => [] as Trial[]);
  for (const trial of record.trials) {
    if (trial.side === "L") left.add(trial);
    if (trial.side === "R") right.add(trial);
    if (trial.blockIndex !== null) byBlock[trial.blockIndex]?.push(trial);
    for (const fault of trial.faults) faultCounts[fault] = (faultCounts[fault] ?? 0) + 1;
  }
  return {
    workSeconds: seconds,
    measures: measureGroup(record.trials, minutes),
    blocks: record.blocks.map((block, index) => {
      const own = blockSeconds(record, index, nowMs);
      return { index, block, seconds: own, measures: measureGroup(byBlock[index] ?? [], own / 60) };
    }),
    ladders: laddersOf(record),
    earned: earnedOf(record),
    left: left.finish(minutes),
    right: right.finish(minutes),
    sides: compareSides(left, right),
    medianInterResponseSeconds: medianOf(interResponseSeconds(record)),
    longestMetRun: longestMetRun(record.trials),
    faultCounts,
    offers: offersOf(record, nowMs),
    dwell: dwellConsistency(heldPhases(record)),
    late: record.trials.some(({ logged }) => logged === "late"),
  };
}

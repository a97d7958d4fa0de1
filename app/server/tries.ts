import { recordOf } from "@/core/typed";
import "server-only";
import {
  COUNTED,
  type Counted,
  earlierBlockValues,
  type PackTry,
  type TriedBlock,
  type TryBoth,
  type TryResult,
  triedBlocks,
  tryResult,
} from "@/core/experiment";
import { DEFAULT_MASTERY_RULE } from "@/core/mastery";
import type { Past } from "@/core/past";
import { listTries, pastOfHorse, type Store, type StoredLadder } from "@/store";

/** An experiment with what it has come to. */
export interface TryState {
  readonly of: TryBoth;
  readonly blocks: readonly TriedBlock[];
  readonly result: TryResult;
}

const ruleOf = (ladders: readonly StoredLadder[], id: string) =>
  ladders.find((ladder) => ladder.id === id)?.plan.mastery ?? DEFAULT_MASTERY_RULE;

/** A horse's experiments with what each has come to, the newest first. One reading for all of them; none where there is none. */
export async function triesOf(store: Store, horseId: string, ladders: readonly StoredLadder[]): Promise<TryState[]> {
  const tries = await listTries(store, horseId);
  if (tries.length === 0) return [];
  const used = ladders.filter(({ id }) => tries.some(({ ladder }) => ladder === id));
  const past = await pastOfHorse(store, horseId, {
    // A session's row may be made a little before the experiment that is begun beside it.
    fromMs: Math.min(...tries.map(({ createdMs }) => createdMs)) - 86_400_000,
    ladders: used,
    only: "these ladders",
  });
  return tries.map((of) => {
    const blocks = triedBlocks(past, of.id, of.counts, ruleOf(ladders, of.ladder));
    return { of, blocks, result: tryResult(of, blocks) };
  });
}

/** Those that go on, as a device keeps them. */
export const packTries = (states: readonly TryState[]): PackTry[] =>
  states.flatMap(({ of, blocks, result }): PackTry[] => {
    if (of.endedMs !== null || result.complete) return [];
    const { id, ladder, version, rung, question, a, b, ways, arms, asksEach } = of;
    return [{ id, ladder, version, rung, question, a, b, ways, arms, asksEach, done: blocks.map(({ number }) => number) }];
  });

/** How much earlier blocks on a rung differed from one to the next, by what counts; null where under four were worked. */
export function blockSpreads(past: Past, ladder: StoredLadder, rung: number): Readonly<Record<Counted, number | null>> {
  const own = { ...past, trials: past.trials.filter((trial) => trial.ladder === ladder.id) };
  const spread = (counts: Counted) => {
    const values = earlierBlockValues(own, counts, rung, ladder.plan.mastery);
    if (values.length < 4) return null;
    const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
    return Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (values.length - 1));
  };
  return recordOf(COUNTED, spread);
}

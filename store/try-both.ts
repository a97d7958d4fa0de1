import { randomUUID as newId } from "node:crypto";
import { mixedChance } from "@/core/chance";
import { type Arm, drawOrder, type TryBoth, type TryBothInput, tryWaysOf, waysFrom } from "@/core/experiment";
import { armsDocument } from "@/core/experiment/document";
import { keptJson } from "./kept-json";
import { getLadder } from "./ladders";
import type { TryBothRow } from "./models";
import { ConflictError, NotFoundError, rowsOf } from "./rows";
import type { Store } from "./store";

const asTry = (row: TryBothRow, arms: readonly Arm[]): TryBoth => ({
  id: row.id,
  ladder: row.ladder_id,
  version: row.ladder_version,
  rung: row.rung,
  question: row.question,
  a: row.way_a,
  b: row.way_b,
  ways: tryWaysOf(row.way_changes, row.way_a, row.way_b),
  counts: row.counts,
  arms,
  mostAlike: row.most_alike,
  asksEach: row.asks_each,
  createdMs: row.created_ms,
  endedMs: row.ended_ms,
  endedWhy: row.ended_why,
});

/** A horse's experiments, the newest first. */
export const listTries = async (store: Store, horseId: string): Promise<TryBoth[]> =>
  (await rowsOf(store.models.tryBoth, "horse_id = :horse ORDER BY created_ms DESC", { horse: horseId })).flatMap((row) => {
    // An order that cannot be read says nothing of what was tried.
    const arms = keptJson(row.arms, armsDocument);
    return arms === undefined ? [] : [asTry(row, arms)];
  });

/** One of them. @throws NotFoundError where the horse has none of that id. */
export async function getTry(store: Store, horseId: string, id: string): Promise<TryBoth> {
  const [row] = await rowsOf(store.models.tryBoth, "id = :id AND horse_id = :horse", { id, horse: horseId });
  const arms = row === undefined ? undefined : keptJson(row.arms, armsDocument);
  if (row === undefined || arms === undefined) throw new NotFoundError("There is no such experiment.");
  return asTry(row, arms);
}

/**
 * Begins an experiment: its order is drawn here, once, from its own id, each
 * order that holds to the restriction as likely as another.
 * @throws NotFoundError where the ladder is another horse's or has no such rung.
 * @param options.complete experiments whose last block was worked: they stand in no other's way.
 * @throws ConflictError where one is running on that ladder.
 */
export async function beginTry(
  store: Store,
  horseId: string,
  input: TryBothInput,
  options: { id?: string; complete?: ReadonlySet<string> } = {},
): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write(async (transaction) => {
    const ladder = await getLadder(store, input.ladder);
    if (ladder.horseId !== horseId) throw new NotFoundError("This ladder belongs to another horse.");
    if (input.rung > ladder.plan.rungs.length) throw new NotFoundError(`${ladder.behaviour.name} has no rung ${input.rung}.`);
    const running = await rowsOf(store.models.tryBoth, "ladder_id = :ladder AND ended_ms IS NULL", { ladder: ladder.id }, transaction);
    if (running.some(({ id: other }) => other === id)) return;
    if (running.some(({ id: other }) => options.complete?.has(other) !== true))
      throw new ConflictError("An experiment is running on this ladder; end it first.");
    const arms = drawOrder(mixedChance(`try:${id}`), input.blocks, input.most_alike);
    await store.models.tryBoth.create(
      {
        id,
        horse_id: horseId,
        ladder_id: ladder.id,
        ladder_version: ladder.version,
        rung: input.rung,
        question: input.question,
        way_a: input.way_a,
        way_b: input.way_b,
        way_changes: JSON.stringify(waysFrom(input.differ ?? "", input.value_a ?? "", input.value_b ?? "")),
        counts: input.counts,
        arms: JSON.stringify(arms),
        most_alike: input.most_alike,
        asks_each: input.asks_each,
        created_ms: store.now(),
        ended_ms: null,
        ended_why: null,
      },
      { transaction },
    );
  });
  return id;
}

/** Ends an experiment; one that was ended stays as it was. @throws NotFoundError where the horse has none of that id. */
export async function endTry(store: Store, horseId: string, id: string, why: string): Promise<void> {
  await getTry(store, horseId, id);
  await store.writer.write((transaction) =>
    store.models.tryBoth.update(
      { ended_ms: store.now(), ended_why: why },
      { where: { id, horse_id: horseId, ended_ms: null }, transaction },
    ),
  );
}

import { randomUUID as newId } from "node:crypto";
import type { Transaction } from "sequelize";
import type { ChainDirection, ChainLink } from "@/core/behaviour";
import type { ChainInput } from "@/core/schemas";
import { getHorse } from "./horses";
import { getLadder } from "./ladders";
import { NotFoundError, plain, rowsOf } from "./rows";
import type { Store } from "./store";

/** A chain of behaviours of one horse, its links in the order they are asked. */
export interface StoredChain {
  readonly id: string;
  readonly horseId: string;
  readonly name: string;
  readonly direction: ChainDirection;
  readonly links: readonly ChainLink[];
}

/** A horse's chains, oldest first. */
export async function listChains(store: Store, horseId: string): Promise<StoredChain[]> {
  const rows = await rowsOf(store.models.chain, "horse_id = :horse ORDER BY created_ms", { horse: horseId });
  const links =
    rows.length === 0
      ? []
      : await rowsOf(store.models.chainLink, "chain_id IN (:ids) ORDER BY position", { ids: rows.map(({ id }) => id) });
  return rows.map(({ id, name, direction }) => ({
    id,
    horseId,
    name,
    direction: direction as ChainDirection,
    links: links.filter(({ chain_id }) => chain_id === id).map(({ ladder_id, rung }) => ({ ladder: ladder_id, rung })),
  }));
}

/** @throws NotFoundError where a link's ladder is another horse's or has no such rung. */
async function checkLinks(store: Store, horseId: string, links: readonly ChainLink[]): Promise<void> {
  for (const { ladder, rung } of links) {
    const { horseId: owner, plan, behaviour } = await getLadder(store, ladder);
    if (owner !== horseId) throw new NotFoundError("A link's ladder belongs to another horse.");
    if (rung > plan.rungs.length) throw new NotFoundError(`${behaviour.name} has no rung ${rung}.`);
  }
}

const writeLinks = (store: Store, chainId: string, links: readonly ChainLink[], transaction: Transaction) =>
  store.models.chainLink.bulkCreate(
    links.map(({ ladder, rung }, position) => ({ chain_id: chainId, position, ladder_id: ladder, rung })),
    { transaction },
  );

export async function addChain(
  store: Store,
  horseId: string,
  { name, direction, links }: ChainInput,
  options: { id?: string; sample?: boolean } = {},
): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write(async (transaction) => {
    await getHorse(store, horseId);
    await checkLinks(store, horseId, links);
    await store.models.chain.create(
      { id, horse_id: horseId, name, direction, sample: options.sample ?? false, created_ms: store.now() },
      { transaction },
    );
    await writeLinks(store, id, links, transaction);
  });
  return id;
}

async function chainRow(store: Store, id: string) {
  const row = await store.models.chain.findByPk(id);
  if (row === null) throw new NotFoundError("There is no such chain.");
  return plain(row);
}

export async function updateChain(store: Store, id: string, { name, direction, links }: ChainInput): Promise<void> {
  await store.writer.write(async (transaction) => {
    const { horse_id } = await chainRow(store, id);
    await checkLinks(store, horse_id, links);
    await store.models.chain.update({ name, direction }, { where: { id }, transaction });
    await store.models.chainLink.destroy({ where: { chain_id: id }, transaction });
    await writeLinks(store, id, links, transaction);
  });
}

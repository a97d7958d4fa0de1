import "server-only";
import { type ChainState, chainState } from "@/core/behaviour";
import { EVIDENCE_MAX_AGE_DAYS, movingOnSentence, valuesGoalOf } from "@/core/session";
import { criterionSentence } from "@/core/strands";
import type { LinkChoice } from "@/features/shape/chains/chain-form";
import type { ChainLinkFacts } from "@/features/shape/chains/chain-view";
import {
  evidenceOfLadder,
  getLadder,
  listChains,
  listLadders,
  NotFoundError,
  type Store,
  type StoredChain,
  type StoredLadder,
} from "@/store";

const sentenceOf = ({ plan }: StoredLadder, rung: number) =>
  criterionSentence(
    plan.strands,
    plan.rungs[rung - 1]?.values ?? {},
    plan.phases.map(({ label }) => label),
  );

/** The ladders of a horse that may be links. */
export async function linkChoices(store: Store, horseId: string): Promise<LinkChoice[]> {
  return (await listLadders(store, horseId)).map((ladder) => ({
    id: ladder.id,
    name: ladder.behaviour.name,
    rungs: ladder.plan.rungs.map((_, i) => sentenceOf(ladder, i + 1)),
  }));
}

/** @throws NotFoundError where the horse has no such chain. */
export async function chainOf(store: Store, horseId: string, id: string): Promise<StoredChain> {
  const chain = (await listChains(store, horseId)).find((one) => one.id === id);
  if (chain === undefined) throw new NotFoundError("There is no such chain.");
  return chain;
}

/** Where a chain stands by its links' own evidence. */
export async function chainStanding(store: Store, chain: StoredChain): Promise<{ links: ChainLinkFacts[]; state: ChainState }> {
  const known = await Promise.all(
    chain.links.map(async (link) => {
      const ladder = await getLadder(store, link.ladder);
      return { link, ladder, trials: await evidenceOfLadder(store, link.ladder) };
    }),
  );
  return {
    links: known.map(({ link: { rung }, ladder }) => ({
      ladderId: ladder.id,
      name: ladder.behaviour.name,
      rung,
      criterion: sentenceOf(ladder, rung),
      rule: movingOnSentence(ladder.plan.mastery, valuesGoalOf(ladder.plan, rung)),
    })),
    state: chainState(
      known.map(({ link, ladder, trials }) => ({
        ...link,
        name: ladder.behaviour.name,
        plan: ladder.plan,
        version: ladder.version,
        trials,
      })),
      chain.direction,
      { nowWallMs: store.now(), maxAgeDays: EVIDENCE_MAX_AGE_DAYS },
    ),
  };
}

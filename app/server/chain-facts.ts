import "server-only";
import { movingOnSentence, valuesGoalOf } from "@/core/advice";
import { type ChainState, chainState } from "@/core/behaviour";
import type { EvidenceTrial } from "@/core/record";
import { criterionSentence } from "@/core/strands";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import type { LinkChoice } from "@/features/shape/chains/chain-form";
import type { ChainLinkFacts } from "@/features/shape/chains/chain-view";
import {
  evidenceOfLadders,
  getSettings,
  listChains,
  listLadders,
  NotFoundError,
  type Store,
  type StoredChain,
  type StoredLadder,
} from "@/store";
import { ofPairAtWork } from "./ladder-state";

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
  const [standing] = await chainStandings(store, chain.horseId, [chain]);
  if (standing === undefined) throw new NotFoundError("There is no such chain.");
  return standing;
}

/** Where a horse's chains stand: their ladders and what is evidence still are read once for all of them. */
export async function chainStandings(
  store: Store,
  horseId: string,
  chains: readonly StoredChain[],
): Promise<{ links: ChainLinkFacts[]; state: ChainState }[]> {
  const used = new Set(chains.flatMap(({ links }) => links.map(({ ladder }) => ladder)));
  const ladders = used.size === 0 ? [] : (await listLadders(store, horseId)).filter(({ id }) => used.has(id));
  const settings = await getSettings(store);
  const { evidenceMaxAgeDays } = settings;
  const when = { nowWallMs: store.now(), maxAgeDays: evidenceMaxAgeDays };
  const oldestMs = when.nowWallMs - (evidenceMaxAgeDays + 1) * MILLISECONDS_PER_DAY;
  const evidence = ofPairAtWork(await evidenceOfLadders(store, ladders, oldestMs), settings);
  return chains.map((chain) => standingOf(when, chain, ladders, evidence));
}

function standingOf(
  when: { readonly nowWallMs: number; readonly maxAgeDays: number },
  chain: StoredChain,
  ladders: readonly StoredLadder[],
  evidence: ReadonlyMap<string, readonly EvidenceTrial[]>,
): { links: ChainLinkFacts[]; state: ChainState } {
  const known = chain.links.flatMap((link) => {
    const ladder = ladders.find(({ id }) => id === link.ladder);
    return ladder === undefined ? [] : [{ link, ladder, trials: evidence.get(ladder.id) ?? [] }];
  });
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
      when,
    ),
  };
}

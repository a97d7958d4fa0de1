import type { Metadata } from "next";
import { closedLinks } from "@/core/advice";
import { runsOfChain } from "@/core/behaviour";
import { todayOf } from "@/core/today";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { ChainForm } from "@/features/shape/chains/chain-form";
import { ChainRuns } from "@/features/shape/chains/chain-runs";
import { ChainView } from "@/features/shape/chains/chain-view";
import { RunWhole } from "@/features/shape/chains/run-whole";
import { digestsOfHorse, getHorse } from "@/store";
import { BinButton } from "@/ui/form";
import { chainOf, chainStanding, linkChoices } from "../../../../../../server/chain-facts";
import { findOr404 } from "../../../../../../server/find-or-404";
import { LOOK_BACK_DAYS } from "../../../../../../server/horse-picture";
import { horsePack, yardFacts } from "../../../../../../server/pack";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Chain" };

export default async function ChainPage({ params }: { params: Promise<{ horse: string; chain: string }> }) {
  const { horse: horseId, chain: id } = await params;
  const store = await getStore();
  const horse = await findOr404(getHorse(store, horseId));
  const chain = await findOr404(chainOf(store, horse.id, id));
  const { links, state } = await chainStanding(store, chain);
  const digests = await digestsOfHorse(store, horse.id, store.now() - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY);
  const runs = runsOfChain(
    digests.flatMap(({ digest }) => (digest.runs ?? []).filter((run) => run.chain === chain.id)),
    links.map(({ name }) => name),
  );
  const [pack, yard] = await Promise.all([horsePack(store, horse), yardFacts(store)]);
  const { allowance } = todayOf(pack, yard, store.now(), pack.last.person);
  const inPack = pack.chains?.find((one) => one.id === chain.id);
  const [first] = chain.links;
  const away = pack.horse.away === null ? [] : [`${horse.name} is put away: ${pack.horse.away}.`];
  const closed = [...away, ...closedLinks(inPack?.links ?? [], (ladder) => pack.ladders.find((one) => one.id === ladder), allowance)];
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 className="text-[2rem]">
          {chain.name}
          <span className="ml-4 font-sans text-base font-normal text-soft">a chain of {links.length}</span>
        </h1>
        <BinButton kind="chain" id={chain.id} name={chain.name} onwards={`/horses/${horse.id}/shape`} />
      </div>
      <ChainView horseId={horse.id} direction={chain.direction} links={links} state={state} />
      <ChainRuns found={runs}>
        <RunWhole
          storeId={store.id}
          chainId={chain.id}
          begun={{
            horse: horse.id,
            kind: "work",
            ladder: first?.ladder ?? null,
            person: pack.last.person,
            place: pack.last.place,
            start_rung: first?.rung ?? null,
            kit: [...pack.last.kit],
          }}
          running={pack.open.find(({ running }) => running)?.id ?? null}
          closed={closed}
        />
      </ChainRuns>
      <details className="no-print mt-6 border-t-2 border-hair pt-3">
        <summary className="min-h-10 font-semibold text-tarn">Change the chain</summary>
        <div className="mt-3">
          <ChainForm
            key={JSON.stringify(chain)}
            horseId={horse.id}
            chainId={chain.id}
            start={{ name: chain.name, direction: chain.direction, links: chain.links.map((link) => ({ ...link })) }}
            choices={await linkChoices(store, horse.id)}
          />
        </div>
      </details>
    </>
  );
}

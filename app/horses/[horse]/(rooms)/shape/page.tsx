import type { Metadata } from "next";
import Link from "next/link";
import { redirect } from "next/navigation";
import { getHorse, listChains, listLadders, unreadLadders } from "@/store";
import { chainStandings } from "../../../../server/chain-facts";
import { findOr404 } from "../../../../server/find-or-404";
import { horseCare } from "../../../../server/horse-care";
import { ladderStates } from "../../../../server/ladder-state";
import { RunningLine } from "../../../../server/running-line";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Shape" };

export default async function ShapePage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const { allowance } = await horseCare(store, horse);
  const states = await ladderStates(store, horse.id, allowance);
  const away = (await listLadders(store, horse.id)).filter((ladder) => ladder.away);
  const unread = await unreadLadders(store, horse.id);
  const [only] = states;
  const listed = await listChains(store, horse.id);
  const standings = await chainStandings(store, horse.id, listed);
  const chains = listed.flatMap((chain, i) => (standings[i] === undefined ? [] : [{ chain, standing: standings[i] }]));
  // With one ladder there is nothing to choose: its chart is the room.
  if (only !== undefined && states.length === 1 && chains.length === 0 && away.length === 0 && unread.length === 0)
    redirect(`/horses/${horse.id}/shape/${only.ladder.id}`);
  return (
    <>
      <RunningLine horseId={horse.id} />
      <h1 className="text-[2rem]">Shape</h1>
      {unread.map(({ id, name }) => (
        <p key={id} className="mt-3 max-w-prose font-semibold text-brick">
          This version cannot read the plan of “{name}”. It is kept, and nobody works on it until it is mended.{" "}
          <Link href={`/horses/${horse.id}/shape/${id}/mend`} className="link">
            Mend {name}
          </Link>
        </p>
      ))}
      {states.length === 0 && unread.length === 0 ? (
        <p className="mt-4 max-w-prose text-lg">
          A ladder cuts one behaviour into pieces so small that each is easy. Two rungs are enough to begin.
        </p>
      ) : (
        <ul className="mt-5 max-w-3xl border-b-2 border-hair">
          {states.map(({ ladder, next }) => (
            <li key={ladder.id} className="border-t-2 border-hair py-4">
              <Link href={`/horses/${horse.id}/shape/${ladder.id}`} className="font-head text-xl font-bold hover:underline">
                {ladder.behaviour.name}
              </Link>
              <span className="ml-3 text-soft">{ladder.plan.rungs.length} rungs</span>
              <p className={`font-semibold ${next.barred === null ? "text-tarn" : "text-brick"}`}>{next.headline}</p>
              {next.barred !== null && <p className="text-brick">{next.barred}</p>}
            </li>
          ))}
        </ul>
      )}
      {chains.length > 0 && (
        <section aria-labelledby="chains" className="mt-8">
          <h2 id="chains" className="text-xl">
            Chains
          </h2>
          <ul className="mt-2 max-w-3xl border-b-2 border-hair">
            {chains.map(({ chain, standing }) => (
              <li key={chain.id} className="border-t-2 border-hair py-4">
                <Link href={`/horses/${horse.id}/shape/chains/${chain.id}`} className="font-head text-xl font-bold hover:underline">
                  {chain.name}
                </Link>
                <span className="ml-3 text-soft">{chain.links.length} links</span>
                <p className="font-semibold text-tarn">{standing.state.sentence}</p>
              </li>
            ))}
          </ul>
        </section>
      )}
      {away.length > 0 && (
        <section aria-labelledby="away" className="mt-8">
          <h2 id="away" className="text-xl">
            Put away
          </h2>
          <ul className="mt-1">
            {away.map((ladder) => (
              <li key={ladder.id} className="py-1">
                <Link href={`/horses/${horse.id}/shape/${ladder.id}`} className="link">
                  {ladder.behaviour.name}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="mt-6 flex flex-wrap items-center gap-x-6 gap-y-3">
        <Link href={`/horses/${horse.id}/shape/library`} className="act">
          Begin from the library
        </Link>
        <Link href={`/horses/${horse.id}/shape/new`} className="act-quiet">
          Plan a ladder
        </Link>
        {states.length > 1 && (
          <Link href={`/horses/${horse.id}/shape/chains/new`} className="link">
            Chain behaviours
          </Link>
        )}
      </p>
    </>
  );
}

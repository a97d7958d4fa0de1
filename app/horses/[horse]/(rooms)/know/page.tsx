import type { Metadata } from "next";
import { Know } from "@/features/know/know";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { ladderStates } from "../../../../server/ladder-state";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Know" };

export default async function KnowPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const states = await ladderStates(store, horse.id);
  return (
    <Know
      horse={horse}
      year={new Date(store.now()).getFullYear()}
      ladders={states.map(({ ladder, next, trials }) => ({
        id: ladder.id,
        name: ladder.behaviour.name,
        rung: next.rung,
        rungs: ladder.plan.rungs.length,
        headline: next.headline,
        sides: (["L", "R"] as const).map((side) => {
          const own = trials.filter((t) => t.side === side && t.kind === "work").slice(-40);
          return { side, n: own.length, met: own.filter((t) => t.outcome === "met").length };
        }),
      }))}
    />
  );
}

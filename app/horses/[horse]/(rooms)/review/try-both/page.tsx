import type { Metadata } from "next";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { ReviewNav } from "@/features/weeks/review-nav";
import type { TryLadder } from "@/features/weeks/try-form";
import { TriesView } from "@/features/weeks/try-view";
import { getHorse, listKit, listLadders, pastOfHorse, placeZones } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { RunningLine } from "../../../../../server/running-line";
import { getStore } from "../../../../../server/store";
import { blockSpreads, triesOf } from "../../../../../server/tries";

export const metadata: Metadata = { title: "Try both" };

/** How far back blocks are looked at to say how much they differ. */
const SPREAD_DAYS = 91;

export default async function TryBothPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const ladders = await listLadders(store, horse.id);
  const [states, past, zones, kit] = await Promise.all([
    triesOf(store, horse.id, ladders),
    pastOfHorse(store, horse.id, { fromMs: store.now() - SPREAD_DAYS * MILLISECONDS_PER_DAY, ladders }),
    placeZones(store),
    listKit(store),
  ]);
  const running = new Set(states.flatMap(({ of, result }) => (of.endedMs === null && !result.complete ? [of.ladder] : [])));
  const lastOn = (id: string) => past.trials.findLast((trial) => trial.ladder === id && trial.kind === "work");
  const at = (id: string) => {
    const last = lastOn(id);
    return last === undefined ? 0 : (past.sessions[last.session]?.startedMs ?? 0);
  };
  const shown = ladders
    .filter(({ away }) => !away)
    .sort((a, b) => at(b.id) - at(a.id))
    .map((ladder): TryLadder => {
      const rung = Math.min(ladder.plan.rungs.length, lastOn(ladder.id)?.rung ?? 1);
      return {
        id: ladder.id,
        name: ladder.behaviour.name,
        rungs: ladder.plan.rungs.length,
        rung,
        spreads: blockSpreads(past, ladder, rung),
        running: running.has(ladder.id),
      };
    });
  const names = new Map(ladders.map(({ id, behaviour }) => [id, behaviour.name]));
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="try-both" />
      <TriesView
        horseId={horse.id}
        tries={states.map(({ of, result }) => ({ of, result, name: names.get(of.ladder) ?? "" }))}
        ladders={shown}
        zones={[...new Set([...zones.values()].flat().map(({ name }) => name))].sort()}
        kit={kit.map(({ name }) => name)}
      />
    </>
  );
}

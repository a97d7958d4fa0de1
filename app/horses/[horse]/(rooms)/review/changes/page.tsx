import type { Metadata } from "next";
import { adviceAndRaises, beforeARung, changeCosts, onlyWorked, raisesOf, type SavingKind, savingsOf, trialsFor } from "@/core/past";
import { type Ahead, CHANGES_SPAN, ChangesView } from "@/features/weeks/changes-view";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { type Asked, oneOf, pastView, plansIn, spanIn } from "../../../../../server/past-of";
import { RunningLine } from "../../../../../server/running-line";
import { stallsOf } from "../../../../../server/stalls-of";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Changes" };

const SAVINGS: readonly SavingKind[] = ["side", "person", "rest"];

export default async function ChangesPage({ params, searchParams }: { params: Promise<{ horse: string }>; searchParams: Promise<Asked> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const asked = await searchParams;
  const span = spanIn(store, asked, CHANGES_SPAN);
  const { past: all, ladders, names } = await pastView(store, horse.id, span);
  const chosen = ladders.find(({ id }) => id === oneOf(asked.ladder));
  const past = chosen === undefined ? all : onlyWorked({ ...all, trials: trialsFor(all, { ladder: chosen.id }) });
  const planOf = await plansIn(store, all);
  // What a kind of change costs is told from everything the horse was raised on, whatever is shown.
  const costs = changeCosts(raisesOf(all, planOf));
  const raises = raisesOf(past, planOf);
  const shown = chosen === undefined ? ladders : [chosen];
  const ahead = shown.flatMap(({ id, plan, behaviour, away, version }): Ahead[] => {
    const last = past.trials.findLast((trial) => trial.ladder === id && trial.kind === "work" && trial.version === version);
    const rung = (last?.rung ?? 0) + 1;
    if (away || last === undefined || rung > plan.rungs.length) return [];
    const sentence = beforeARung(plan, rung, costs);
    return sentence === null ? [] : [{ ladder: id, name: behaviour.name, rung, sentence }];
  });
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="changes" />
      <ChangesView
        horseId={horse.id}
        ladders={ladders.map(({ id, behaviour }) => ({ id, name: behaviour.name }))}
        ladder={chosen?.id ?? null}
        span={span}
        costs={costs}
        raises={raises}
        word={adviceAndRaises(raises)}
        savings={SAVINGS.map((kind) => savingsOf(kind, past, planOf))}
        ahead={ahead}
        stalls={await stallsOf(store, horse, past, shown)}
        names={names}
        sessions={past.sessions.map(({ id }) => id)}
      />
    </>
  );
}

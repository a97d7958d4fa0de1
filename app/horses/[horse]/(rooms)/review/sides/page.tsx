import type { Metadata } from "next";
import { onlyWorked, sidesOverTime, trialsFor } from "@/core/past";
import { ReviewNav } from "@/features/weeks/review-nav";
import { type ShownSides, SidesView } from "@/features/weeks/sides-view";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { type Asked, pastView, spanIn } from "../../../../../server/past-of";
import { RunningLine } from "../../../../../server/running-line";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Sides" };

export default async function SidesPage({ params, searchParams }: { params: Promise<{ horse: string }>; searchParams: Promise<Asked> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const span = spanIn(store, await searchParams);
  const { past, ladders } = await pastView(store, horse.id, span);
  const list: ShownSides[] = [{ ladder: "", name: "All behaviours", sides: sidesOverTime(past) }];
  for (const { id, behaviour } of ladders) {
    const own = onlyWorked({ ...past, trials: trialsFor(past, { ladder: id, holds: "sides" }) });
    if (own.trials.length > 0) list.push({ ladder: id, name: behaviour.name, sides: sidesOverTime(own) });
  }
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="sides" />
      <SidesView horseId={horse.id} span={span} list={list.length === 2 ? list.slice(1) : list} />
    </>
  );
}

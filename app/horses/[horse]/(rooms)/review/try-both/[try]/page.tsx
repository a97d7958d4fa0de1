import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { ReviewNav } from "@/features/weeks/review-nav";
import { TryView } from "@/features/weeks/try-view";
import { getHorse, listLadders } from "@/store";
import { findOr404 } from "../../../../../../server/find-or-404";
import { RunningLine } from "../../../../../../server/running-line";
import { getStore } from "../../../../../../server/store";
import { triesOf } from "../../../../../../server/tries";

export const metadata: Metadata = { title: "Try both" };

export default async function TryPage({ params }: { params: Promise<{ horse: string; try: string }> }) {
  const { horse: horseId, try: id } = await params;
  const store = await getStore();
  const horse = await findOr404(getHorse(store, horseId));
  const ladders = await listLadders(store, horse.id);
  const state = (await triesOf(store, horse.id, ladders)).find(({ of }) => of.id === id);
  if (state === undefined) notFound();
  const { of, result } = state;
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="try-both" />
      <TryView
        horseId={horse.id}
        shown={{ of, result, name: ladders.find(({ id: ladder }) => ladder === of.ladder)?.behaviour.name ?? "" }}
      />
    </>
  );
}

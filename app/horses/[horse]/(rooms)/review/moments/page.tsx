import type { Metadata } from "next";
import { beforeItGoes, goodMoment, onlyWorked, trialsFor } from "@/core/past";
import { MOMENTS_SPAN, MomentsView } from "@/features/weeks/moments-view";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { type Asked, oneOf, pastView, spanIn } from "../../../../../server/past-of";
import { RunningLine } from "../../../../../server/running-line";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Moments" };

export default async function MomentsPage({ params, searchParams }: { params: Promise<{ horse: string }>; searchParams: Promise<Asked> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const asked = await searchParams;
  const span = spanIn(store, asked, MOMENTS_SPAN);
  const { past: all, ladders } = await pastView(store, horse.id, span);
  const chosen = ladders.find(({ id }) => id === oneOf(asked.ladder));
  const past = chosen === undefined ? all : onlyWorked({ ...all, trials: trialsFor(all, { ladder: chosen.id }) });
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="moments" />
      <MomentsView
        horseId={horse.id}
        ladders={ladders.map(({ id, behaviour }) => ({ id, name: behaviour.name }))}
        ladder={chosen?.id ?? null}
        span={span}
        good={goodMoment(past)}
        before={beforeItGoes(past)}
      />
    </>
  );
}

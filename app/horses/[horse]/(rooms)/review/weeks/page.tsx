import type { Metadata } from "next";
import { onlyWorked, overWeeks, type PastFilter, trialsFor } from "@/core/past";
import { OverWeeksView } from "@/features/weeks/over-weeks-view";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse, lastWorkedMs, listLadders } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { type Asked, oneOf, pastView, spanIn } from "../../../../../server/past-of";
import { RunningLine } from "../../../../../server/running-line";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Over weeks" };

export default async function OverWeeksPage({
  params,
  searchParams,
}: {
  params: Promise<{ horse: string }>;
  searchParams: Promise<Asked>;
}) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const asked = await searchParams;
  const span = spanIn(store, asked);
  const all = await listLadders(store, horse.id);
  const last = await lastWorkedMs(store, 0);
  // What was worked last stands first, and is what is shown where nothing was chosen.
  const ladders = all.filter(({ id, away }) => !away || last.has(id)).sort((a, b) => (last.get(b.id) ?? 0) - (last.get(a.id) ?? 0));
  const chosen = ladders.find(({ id }) => id === oneOf(asked.ladder)) ?? ladders[0];
  if (chosen === undefined)
    return (
      <>
        <ReviewNav horseId={horse.id} here="weeks" />
        <h1 className="text-[2rem]">Over weeks</h1>
        <p className="mt-4 text-lg">No behaviour is planned yet; what is worked on a ladder is shown here.</p>
      </>
    );
  const { past, names } = await pastView(store, horse.id, span, chosen);
  const filter: PastFilter = { ladder: chosen.id };
  const over = overWeeks(onlyWorked({ ...past, trials: trialsFor(past, filter) }), filter, names);
  const handlers = [...new Set(over.points.flatMap((point) => point.handlers))];
  const named = { ...over, points: over.points.map((point) => ({ ...point, handlers: point.handlers.map((id) => names.get(id) ?? id) })) };
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="weeks" />
      <OverWeeksView
        horseId={horse.id}
        ladders={ladders.map(({ id, behaviour }) => ({ id, name: behaviour.name }))}
        ladder={{ id: chosen.id, name: chosen.behaviour.name }}
        span={span}
        over={named}
        by={oneOf(asked.by) === "asks" ? "asks" : "sessions"}
        handlers={handlers.map((id) => names.get(id) ?? id)}
      />
    </>
  );
}

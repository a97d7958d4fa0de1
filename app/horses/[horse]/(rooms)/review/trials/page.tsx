import type { Metadata } from "next";
import { readFilter, trialsFor } from "@/core/past";
import { ReviewNav } from "@/features/weeks/review-nav";
import { spanKeys } from "@/features/weeks/span-choice";
import { filterWords, TRIALS_PAGE, TrialsList } from "@/features/weeks/trials-list";
import { getHorse, listLadders } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { type Asked, oneOf, pastView, spanIn } from "../../../../../server/past-of";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Trials" };

export default async function TrialsPage({ params, searchParams }: { params: Promise<{ horse: string }>; searchParams: Promise<Asked> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const asked = await searchParams;
  const span = spanIn(store, asked);
  const of = oneOf(asked.of) ?? "";
  const filter = readFilter(of);
  const ladder = (await listLadders(store, horse.id)).find(({ id }) => id === filter.ladder);
  const { past, names } = await pastView(store, horse.id, span, ladder);
  const trials = trialsFor(past, filter);
  const pages = Math.max(1, Math.ceil(trials.length / TRIALS_PAGE));
  const page = Math.min(pages, Math.max(1, Math.floor(Number(oneOf(asked.page) ?? 1)) || 1));
  return (
    <>
      <ReviewNav horseId={horse.id} here="weeks" />
      <TrialsList
        horseId={horse.id}
        past={past}
        trials={trials}
        names={names}
        said={filterWords(filter, names)}
        span={span}
        page={page}
        kept={{ ...spanKeys(span), of }}
      />
    </>
  );
}

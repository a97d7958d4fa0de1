import type { Metadata } from "next";
import { circlingSentence, loadWeeks } from "@/core/circle";
import { circleState } from "@/core/today";
import { LoadView } from "@/features/circle/load";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse } from "@/store";
import { loadOf } from "../../../../../server/circle-of";
import { findOr404 } from "../../../../../server/find-or-404";
import { circlePack, yardFacts } from "../../../../../server/pack";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Load book" };

export default async function LoadPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [{ entries, worked, byHand, from }, pack, yard] = await Promise.all([
    loadOf(store, horse.id),
    circlePack(store, horse),
    yardFacts(store),
  ]);
  // What is used up is said by the same judge as before a session.
  const { use, caps, today: day } = circleState(pack, yard, store.now());
  return (
    <>
      <ReviewNav horseId={horse.id} here="load" />
      <LoadView
        horse={{ id: horse.id, name: horse.name }}
        today={day}
        weeks={loadWeeks(entries, from, day)}
        entries={entries}
        sessions={worked
          .flatMap(({ id, startedMs, circle }) => (circle === undefined || startedMs === null ? [] : [{ id, startedMs, digest: circle }]))
          .sort((a, b) => a.startedMs - b.startedMs)}
        byHand={byHand.map(({ id, day: on, kind, minutes, note }) => ({ id, day: on, kind, minutes, note })).reverse()}
        resting={horse.resting_breaths_per_min}
        capSentence={circlingSentence(use, caps)}
        capMinutes={caps.weekMinutes?.value ?? null}
      />
    </>
  );
}

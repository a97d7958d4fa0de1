import type { Metadata } from "next";
import { circleCaps, circlingSentence, loadWeeks } from "@/core/circle";
import { LoadView } from "@/features/circle/load-view";
import { ReviewNav } from "@/features/weeks/review-nav";
import { circleSetup, getHorse, getSettings } from "@/store";
import { loadOf } from "../../../../../server/circle-of";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Load book" };

export default async function LoadPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [{ entries, worked, byHand, from }, { day, allowance, age }, settings, setup] = await Promise.all([
    loadOf(store, horse.id),
    horseCare(store, horse),
    getSettings(store),
    circleSetup(store, horse.id),
  ]);
  const caps = circleCaps({ age, allowance, settings, own: setup.caps, ways: setup.ways, heat: null });
  const week = entries.filter((one) => one.circlingMinutes > 0 && one.day > from && Date.parse(day) - Date.parse(one.day) < 7 * 86_400_000);
  const use = { weekMinutes: week.reduce((sum, { circlingMinutes }) => sum + circlingMinutes, 0), weekVisits: week.length };
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

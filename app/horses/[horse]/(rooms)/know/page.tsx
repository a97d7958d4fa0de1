import type { Metadata } from "next";
import { dayWords } from "@/core/day";
import { shareOfTrials } from "@/core/evidence";
import { beginWith, readinessOf } from "@/core/know";
import { ageWords } from "@/core/welfare";
import { Know } from "@/features/know/know";
import { KnowNav } from "@/features/know/know-nav";
import { getHorse, namesApart, photoChangedMs } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { horseCare } from "../../../../server/horse-care";
import { horsePicture } from "../../../../server/horse-picture";
import { ladderStates } from "../../../../server/ladder-state";
import { shownPlace } from "../../../../server/relief-of";
import { RunningLine } from "../../../../server/running-line";
import { getStore } from "../../../../server/store";
import { chosenUnits } from "../../../../server/units";

export const metadata: Metadata = { title: "Know" };

export default async function KnowPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const care = await horseCare(store, horse);
  const [picture, states, apart, photoMs, units] = await Promise.all([
    horsePicture(store, horse),
    ladderStates(store, horse.id, care.allowance, "all"),
    namesApart(store),
    photoChangedMs(store, horse.id),
    chosenUnits(),
  ]);
  // A look broken off early does not hide the one before it.
  const look = picture.looks.find(({ look: { stepsDone, steps } }) => stepsDone * 2 >= steps) ?? picture.looks[0];
  const [place] = picture.places;
  const { breathing } = picture;
  const rest = breathing === null ? horse.resting_breaths_per_min : Math.round(breathing.perMinute * 10) / 10;
  return (
    <>
      <RunningLine horseId={horse.id} />
      <KnowNav horseId={horse.id} here="" />
      <Know
        horse={{ ...horse, apart: apart.get(horse.id) ?? "", photoMs }}
        units={units}
        age={
          care.age === null
            ? null
            : {
                words: ageWords(care.age),
                born: `born ${horse.born_day === null ? horse.birth_year : dayWords(horse.born_day)}`,
                caution: care.caution?.sentence ?? null,
              }
        }
        limits={care.sentences}
        sides={picture.sides}
        sidesDays={picture.sidesDays}
        touches={picture.touches}
        offLimits={care.allowance.touchOff.map(({ value }) => value)}
        place={place === undefined ? null : shownPlace(place)}
        look={
          look === undefined
            ? null
            : {
                startedMs: look.startedMs,
                partial: look.look.partial,
                begin: beginWith(look.look),
                ready: readinessOf(look.look, {
                  allowance: care.allowance,
                  danger: look.danger,
                  startedMs: look.startedMs,
                  nowWallMs: store.now(),
                })
                  .filter(({ state }) => state === "ready to try")
                  .map(({ name }) => name),
              }
        }
        connection={picture.connection?.result ?? null}
        breathing={
          rest === null
            ? null
            : `breathes ${rest} a minute${horse.resting_heart_per_min === null ? "" : `, heart ${horse.resting_heart_per_min}`}`
        }
        ladders={states.map(({ ladder, next, trials }) => ({
          id: ladder.id,
          name: ladder.behaviour.name,
          rung: next.rung,
          rungs: ladder.plan.rungs.length,
          headline: next.headline,
          barred: next.barred !== null,
          sides: (["L", "R"] as const).map((side) => {
            return { side, share: shareOfTrials(trials.filter((t) => t.side === side && t.kind === "work").slice(-40)) };
          }),
        }))}
      />
    </>
  );
}

import type { Metadata } from "next";
import { Ahead } from "@/features/ahead/ahead";
import { getHorse, getSettings } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { horseCare } from "../../../../server/horse-care";
import { ladderStates } from "../../../../server/ladder-state";
import { RunningLine } from "../../../../server/running-line";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Ahead" };

export default async function AheadPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const { allowance } = await horseCare(store, horse);
  const states = await ladderStates(store, horse.id, allowance);
  return (
    <>
      <RunningLine horseId={horse.id} />
      <Ahead
        horseId={horse.id}
        evidenceDays={(await getSettings(store)).evidenceMaxAgeDays}
        ladders={states.map(({ ladder, next, lastWallMs }) => ({
          id: ladder.id,
          name: ladder.behaviour.name,
          plan: ladder.plan,
          next,
          lastWallMs,
        }))}
      />
    </>
  );
}

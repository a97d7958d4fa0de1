import type { Metadata } from "next";
import { Begin } from "@/features/know/begin";
import { KnowNav } from "@/features/know/know-nav";
import { PinnedSigns } from "@/features/know/pinned-signs";
import { SignsView } from "@/features/know/signs-view";
import { getHorse, getSettings, listOwnSigns, pinnedSigns } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horsePicture } from "../../../../../server/horse-picture";
import { lastPeople } from "../../../../../server/last-people";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Signs" };

export default async function SignsPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [picture, who, own, settings] = await Promise.all([
    horsePicture(store, horse),
    lastPeople(store, horse.id),
    listOwnSigns(store),
    getSettings(store),
  ]);
  return (
    <>
      <KnowNav horseId={horse.id} here="signs" />
      <SignsView
        horseId={horse.id}
        rest={picture.restSigns}
        work={picture.workSigns}
        leastMinutes={settings.watchLeastMinutes}
        breathing={picture.breathing}
        heart={picture.heart}
        kept={{ breaths: horse.resting_breaths_per_min, heart: horse.resting_heart_per_min }}
      >
        <Begin horseId={horse.id} kind="signs" label="Watch it at rest" {...who} />
      </SignsView>
      <PinnedSigns horseId={horse.id} pinned={pinnedSigns(horse)} own={own} />
    </>
  );
}

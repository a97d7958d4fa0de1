import type { Metadata } from "next";
import { Begin } from "@/features/know/begin";
import { KnowNav } from "@/features/know/know-nav";
import { TouchView } from "@/features/know/touch-view";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { horsePicture } from "../../../../../server/horse-picture";
import { lastPeople } from "../../../../../server/last-people";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Body" };

export default async function TouchPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [picture, care, { people }] = await Promise.all([horsePicture(store, horse), horseCare(store, horse), lastPeople(store, horse.id)]);
  return (
    <>
      <KnowNav horseId={horse.id} here="touch" />
      <TouchView touches={picture.touches} offLimits={care.allowance.touchOff.map(({ value }) => value)}>
        <Begin
          horseId={horse.id}
          kind="touch"
          label="Touch it over"
          people={people}
          barred={horse.away === null ? (care.allowance.noWork?.why ?? null) : `${horse.name} is put away.`}
        />
      </TouchView>
    </>
  );
}

import type { Metadata } from "next";
import { Begin } from "@/features/know/begin";
import { FirstLookView } from "@/features/know/first-look";
import { KnowNav } from "@/features/know/know-nav";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { horsePicture } from "../../../../../server/horse-picture";
import { lastPeople } from "../../../../../server/last-people";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "First look" };

interface Props {
  params: Promise<{ horse: string }>;
  searchParams: Promise<{ look?: string | string[] }>;
}

export default async function FirstLookPage({ params, searchParams }: Props) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [picture, care, who] = await Promise.all([horsePicture(store, horse), horseCare(store, horse), lastPeople(store, horse.id)]);
  const wanted = (await searchParams).look;
  const chosen = Math.max(
    0,
    picture.looks.findIndex(({ sessionId }) => sessionId === wanted),
  );
  return (
    <>
      <KnowNav horseId={horse.id} here="first-look" />
      <FirstLookView horseId={horse.id} looks={picture.looks} chosen={chosen} allowance={care.allowance} nowWallMs={store.now()}>
        <Begin
          horseId={horse.id}
          kind="first-look"
          label={picture.looks.length === 0 ? "Take a first look" : "Look again"}
          barred={horse.away === null ? (care.allowance.noWork?.why ?? null) : `${horse.name} is put away.`}
          {...who}
        />
      </FirstLookView>
    </>
  );
}

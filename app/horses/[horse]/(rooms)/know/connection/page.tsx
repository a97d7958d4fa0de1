import type { Metadata } from "next";
import { Begin } from "@/features/know/begin";
import { ConnectionView } from "@/features/know/connection-view";
import { KnowNav } from "@/features/know/know-nav";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horsePicture } from "../../../../../server/horse-picture";
import { lastPeople } from "../../../../../server/last-people";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Goes to" };

export default async function ConnectionPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [{ connection }, who] = await Promise.all([horsePicture(store, horse), lastPeople(store, horse.id)]);
  return (
    <>
      <KnowNav horseId={horse.id} here="connection" />
      <ConnectionView watched={connection}>
        <Begin horseId={horse.id} kind="connection" label={connection === null ? "Watch it" : "Watch again"} {...who} />
      </ConnectionView>
    </>
  );
}

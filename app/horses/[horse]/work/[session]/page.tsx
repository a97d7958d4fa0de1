import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { Recorder } from "@/features/work/recorder";
import { getHorse, getLadder, listPeople, listPlaces, loadSession } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { ladderState } from "../../../../server/ladder-state";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function RecorderPage({ params }: { params: Promise<{ horse: string; session: string }> }) {
  const { horse: horseId, session: sessionId } = await params;
  const store = await getStore();
  const loaded = await findOr404(loadSession(store, sessionId));
  if (loaded.session.horse_id !== horseId) notFound();
  const [horse, ladder, people, places] = await Promise.all([
    findOr404(getHorse(store, horseId)),
    findOr404(getLadder(store, loaded.session.ladder_id, loaded.session.ladder_version)),
    listPeople(store),
    listPlaces(store),
  ]);
  const state = await ladderState(store, ladder);
  return (
    <Recorder
      start={{
        storeId: store.id,
        sessionId,
        horse: { id: horse.id, name: horse.name, restrictions: horse.restrictions },
        handler: people.find((person) => person.id === loaded.session.person_id)?.name ?? "",
        place: places.find((place) => place.id === loaded.session.place_id)?.name ?? "",
        ladderId: ladder.id,
        version: ladder.version,
        behaviour: ladder.behaviour.name,
        plan: ladder.plan,
        next: state.next,
        earlier: state.trials.filter((trial) => trial.session !== sessionId),
        events: loaded.events,
        clocks: Object.fromEntries(loaded.offsets),
        position: loaded.position,
      }}
    />
  );
}

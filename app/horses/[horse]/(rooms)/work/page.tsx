import type { Metadata } from "next";
import { StartSession } from "@/features/work/start-session";
import { getHorse, listPeople, listPlaces, listSessions } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { ladderStates } from "../../../../server/ladder-state";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function WorkPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [states, people, places, sessions] = await Promise.all([ladderStates(store, horse.id), listPeople(store), listPlaces(store), listSessions(store, horse.id, 5)]);
  const open = sessions.find(({ summary }) => !summary.finished);
  return (
    <StartSession
      horse={{ id: horse.id, name: horse.name, restrictions: horse.restrictions }}
      ladders={states.map(({ ladder, next }) => ({ id: ladder.id, name: ladder.behaviour.name, rungs: ladder.plan.rungs.length, next }))}
      people={people.map(({ id, name }) => ({ id, name }))}
      places={places.map(({ id, name }) => ({ id, name }))}
      openSession={open === undefined ? null : { id: open.session.id, startedMs: open.summary.started_ms ?? open.session.created_ms }}
    />
  );
}

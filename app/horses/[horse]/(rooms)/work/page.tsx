import type { Metadata } from "next";
import { criterionOf } from "@/core/ladder";
import { StartSession } from "@/features/work/start-session";
import { getHorse, listPeople, listPlaces, listSessions } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { ladderStates } from "../../../../server/ladder-state";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function WorkPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [states, people, places, sessions] = await Promise.all([
    ladderStates(store, horse.id),
    listPeople(store),
    listPlaces(store),
    listSessions(store, horse.id, 5),
  ]);
  const open = sessions.find(({ summary }) => !summary.finished);
  const last = sessions[0]?.session;
  // Whoever worked the horse last, and where, comes first.
  const first = <T extends { id: string }>(list: readonly T[], id: string | null | undefined) =>
    [...list].sort((a, b) => Number(b.id === id) - Number(a.id === id));
  return (
    <StartSession
      horse={{ id: horse.id, name: horse.name, restrictions: horse.restrictions }}
      ladders={states.map(({ ladder, next }) => ({
        id: ladder.id,
        name: ladder.behaviour.name,
        next,
        criterion: criterionOf(ladder.plan, next.rung).sentence,
      }))}
      people={first(people, last?.person_id).map(({ id, name }) => ({ id, name }))}
      places={first(places, last?.place_id).map(({ id, name }) => ({ id, name }))}
      openSession={open === undefined ? null : { id: open.session.id, startedMs: open.summary.started_ms ?? open.session.created_ms }}
    />
  );
}

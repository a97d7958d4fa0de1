import "server-only";
import { listPeople, listPlaces, listSessions, type Store } from "@/store";

interface Named {
  readonly id: string;
  readonly name: string;
}

/** People and places, whoever worked the horse last and where first. */
export async function lastPeople(store: Store, horseId: string): Promise<{ people: Named[]; places: Named[] }> {
  const [people, places, [last]] = await Promise.all([listPeople(store), listPlaces(store), listSessions(store, horseId, { limit: 1 })]);
  const first = (list: readonly Named[], id: string | null | undefined) =>
    [...list].sort((a, b) => Number(b.id === id) - Number(a.id === id)).map(({ id: own, name }) => ({ id: own, name }));
  return { people: first(people, last?.session.person_id), places: first(places, last?.session.place_id) };
}

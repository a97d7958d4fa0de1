import { seededChance } from "@/core/chance";
import { addHorse, addLadder, addPerson, addPlace, addSession, rebuildCaches, type Store } from "@/store";
import { drawUuid } from "./event-log";
import { playHorse } from "./yard";
import { DEMO_HORSES, DEMO_PEOPLE, DEMO_PLACES } from "./yard-plan";

/** The seed of the yard that ships. */
export const DEMO_SEED = 20_260_401;

/** Fills a store with the invented yard, all of it marked as sample data. */
export async function populateDemo(store: Store, endWallMs: number, seed = DEMO_SEED): Promise<{ sessions: number; events: number }> {
  const chance = seededChance(seed);
  const sample = true;
  const people: string[] = [];
  const places: string[] = [];
  for (const person of DEMO_PEOPLE) people.push(await addPerson(store, person, { id: drawUuid(chance), sample }));
  for (const place of DEMO_PLACES) places.push(await addPlace(store, place, { id: drawUuid(chance), sample }));
  let sessions = 0;
  let events = 0;
  for (const [index, demo] of DEMO_HORSES.entries()) {
    const horseId = await addHorse(store, demo.horse, { id: drawUuid(chance), sample });
    const ladderId = await addLadder(store, horseId, demo.behaviour, demo.plan, {
      id: drawUuid(chance),
      behaviourId: drawUuid(chance),
      sample,
    });
    for (const session of playHorse(demo, ladderId, endWallMs, seed + index + 1)) {
      await addSession(
        store,
        {
          id: session.id,
          horseId,
          ladderId,
          personId: people[demo.handler] ?? null,
          placeId: places[demo.place] ?? null,
          startRung: session.startRung,
        },
        { sample, createdMs: session.startWallMs },
      );
      const receipt = await store.events.append({ recorder: `demo-${demo.handler + 1}`, events: session.events, clocks: {} });
      sessions++;
      events += receipt.saved;
    }
  }
  await rebuildCaches(store);
  return { sessions, events };
}

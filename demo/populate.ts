import { seededChance } from "@/core/chance";
import { dayOf } from "@/core/day";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import {
  addChain,
  addHorse,
  addKit,
  addLadder,
  addPerson,
  addPlace,
  addPractice,
  addRestriction,
  addSessions,
  type EventBatch,
  type NewSession,
  rebuildCaches,
  type SessionOptions,
  type Store,
  updateLadder,
} from "@/store";
import { drawUuid } from "./event-log";
import { knowSessions } from "./know-sessions";
import { demoChain, secondLadder, secondLadderSessions, thinnerStay } from "./second-ladder";
import { playHorse } from "./yard";
import { DEMO_KIT, DEMO_PEOPLE, DEMO_PLACES } from "./yard-places";
import { DEMO_HORSES } from "./yard-plan";

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
  const planned: (NewSession & SessionOptions)[] = [];
  const batches: EventBatch[] = [];
  const kit: string[] = [];
  const ladders: string[] = [];
  const horses: string[] = [];
  for (const piece of DEMO_KIT) kit.push(await addKit(store, piece, { id: drawUuid(chance), sample }));
  const dayAfter = (days: number | null) => (days === null ? null : dayOf(endWallMs + days * MILLISECONDS_PER_DAY));
  for (const [index, demo] of DEMO_HORSES.entries()) {
    const horseId = await addHorse(store, demo.horse, { id: drawUuid(chance), sample });
    for (const { fromDays, untilDays, ...restriction } of demo.restrictions) {
      const dates = { from_day: dayAfter(fromDays), until_day: dayAfter(untilDays) };
      await addRestriction(store, horseId, { ...restriction, ...dates }, { id: drawUuid(chance) });
    }
    const ladderId = await addLadder(store, horseId, demo.behaviour, demo.plan, {
      id: drawUuid(chance),
      behaviourId: drawUuid(chance),
      sample,
    });
    ladders.push(ladderId);
    horses.push(horseId);
    for (const session of playHorse(demo, ladderId, endWallMs, seed + index + 1)) {
      planned.push({
        id: session.id,
        horseId,
        ladderId,
        personId: people[demo.handler] ?? null,
        placeId: places[demo.place] ?? null,
        startRung: session.startRung,
        kitIds: demo.kit.flatMap((at) => kit[at] ?? []),
        sample,
        createdMs: session.startWallMs,
      });
      batches.push({ recorder: `demo-${demo.handler + 1}`, events: session.events, clocks: {} });
    }
    const recorder = `demo-${demo.handler + 1}`;
    const who = {
      horse: demo.horse.name,
      handler: DEMO_PEOPLE[demo.handler]?.name ?? "",
      place: DEMO_PLACES[demo.place]?.name ?? "",
      recorder,
    };
    for (const session of knowSessions(who, demo.nature, endWallMs, seededChance(seed + index + 3000), demo.lookCutOff)) {
      planned.push({
        id: session.id,
        horseId,
        kind: session.kind,
        ladderId: null,
        personId: people[demo.handler] ?? null,
        placeId: places[demo.place] ?? null,
        startRung: null,
        sample,
        createdMs: session.startWallMs,
      });
      batches.push({ recorder, events: session.events, clocks: {} });
    }
  }
  const [first, second] = people;
  if (first !== undefined && second !== undefined) {
    for (const [person, daysAgo, what, minutes] of [
      [first, 30, "folding the long line", 10],
      [first, 12, "marking a bounced ball", 8],
      [second, 21, "folding the long line", 15],
    ] as const)
      await addPractice(store, person, { day: dayOf(endWallMs - daysAgo * MILLISECONDS_PER_DAY), what, minutes, note: "" });
  }
  const [firstHorse, firstLadder, demo] = [horses[0], ladders[0], DEMO_HORSES[0]];
  if (firstHorse === undefined || firstLadder === undefined || demo === undefined) throw new Error("the demo has no horse");
  const { behaviour, plan } = secondLadder();
  // Chance of its own, so that the rest of the yard stays as it is.
  const own = seededChance(seed + 9000);
  const standing = await addLadder(store, firstHorse, behaviour, plan, { id: drawUuid(own), behaviourId: drawUuid(own), sample });
  const who = {
    horse: demo.horse.name,
    handler: DEMO_PEOPLE[demo.handler]?.name ?? "",
    place: DEMO_PLACES[demo.place]?.name ?? "",
    recorder: `demo-${demo.handler + 1}`,
  };
  for (const session of secondLadderSessions(who, standing, plan, behaviour.name, endWallMs, own)) {
    planned.push({
      id: session.id,
      horseId: firstHorse,
      ladderId: standing,
      personId: people[demo.handler] ?? null,
      placeId: places[demo.place] ?? null,
      startRung: session.startRung,
      sample,
      createdMs: session.startWallMs,
    });
    batches.push({ recorder: who.recorder, events: session.events, clocks: {} });
  }
  await addSessions(store, planned);
  // All batches wait together, so that they share one transaction.
  const receipts = await Promise.all(batches.map((batch) => store.events.append(batch)));
  await updateLadder(store, firstLadder, demo.behaviour, thinnerStay(demo.plan, demo.temper.stallsAtRung ?? 1));
  await addChain(store, firstHorse, demoChain(standing, firstLadder, demo.plan.rungs.length), { id: drawUuid(own), sample });
  await rebuildCaches(store);
  return { sessions: batches.length, events: receipts.reduce((sum, { saved }) => sum + saved, 0) };
}

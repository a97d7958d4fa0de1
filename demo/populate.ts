import { seededChance } from "@/core/chance";
import { dayOf } from "@/core/day";
import { planToLog } from "@/core/events/circle-log";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import {
  addChain,
  addDate,
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
  saveCircleSetup,
  updateLadder,
} from "@/store";
import { circleLadder, circleStory, demoCircleSetup } from "./circle-story";
import { drawUuid } from "./event-log";
import type { DemoHorse } from "./horse";
import { DEMO_HORSES } from "./horses";
import { knowSessions } from "./know-sessions";
import { demoChain, secondLadder, secondLadderSessions } from "./second-ladder";
import { type DemoSession, playHorse } from "./yard";
import { DEMO_KIT, DEMO_PEOPLE, DEMO_PLACES } from "./yard-places";

type NewSessions = (NewSession & SessionOptions)[];

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
  const planned: NewSessions = [];
  const batches: EventBatch[] = [];
  const kit: string[] = [];
  const ladders: string[] = [];
  const horses: string[] = [];
  for (const piece of DEMO_KIT) kit.push(await addKit(store, piece, { id: drawUuid(chance), sample }));
  const dayAfter = (days: number | null) => (days === null ? null : dayOf(endWallMs + days * MILLISECONDS_PER_DAY));
  const later: { ladder: string; demo: DemoHorse; sessions: NewSessions; batches: EventBatch[] }[] = [];
  for (const [index, demo] of DEMO_HORSES.entries()) {
    const horseId = await addHorse(
      store,
      { ...demo.horse, ...(demo.bornDaysAgo === undefined ? {} : { born_day: dayAfter(-demo.bornDaysAgo) }) },
      { id: drawUuid(chance), sample, lookAt: demo.lookAt },
    );
    for (const { fromDays, untilDays, ...restriction } of demo.restrictions) {
      const dates = { from_day: dayAfter(fromDays), until_day: dayAfter(untilDays) };
      await addRestriction(store, horseId, { ...restriction, ...dates }, { id: drawUuid(chance) });
    }
    for (const { inDays, everyWeeks, kind, note } of demo.dates)
      await addDate(store, horseId, { kind, day: dayAfter(inDays) ?? "", every_weeks: everyWeeks, note }, { id: drawUuid(chance) });
    const ladderId = await addLadder(store, horseId, demo.behaviour, demo.plan, {
      id: drawUuid(chance),
      behaviourId: drawUuid(chance),
      sample,
    });
    ladders.push(ladderId);
    horses.push(horseId);
    const storedAs = (session: DemoSession) => ({
      id: session.id,
      horseId,
      ladderId,
      personId: people[session.handler] ?? null,
      placeId: places[demo.place] ?? null,
      startRung: session.startRung,
      kitIds: demo.kit.flatMap((at) => kit[at] ?? []),
      sample,
      createdMs: session.startWallMs,
    });
    const batchOf = (session: DemoSession) => ({ recorder: `demo-${session.handler + 1}`, events: session.events, clocks: {} });
    const played = playHorse(demo, ladderId, endWallMs, seed + index + 1 + (demo.draw ?? 0));
    const first = played.filter(({ version }) => version === 1);
    const second = played.filter(({ version }) => version === 2);
    planned.push(...first.map(storedAs));
    batches.push(...first.map(batchOf));
    if (second.length > 0) later.push({ ladder: ladderId, demo, sessions: second.map(storedAs), batches: second.map(batchOf) });
    const handler = demo.story.handlerOf(0);
    const recorder = `demo-${handler + 1}`;
    const who = {
      horse: demo.horse.name,
      handler: DEMO_PEOPLE[handler]?.name ?? "",
      place: DEMO_PLACES[demo.place]?.name ?? "",
      recorder,
    };
    for (const session of knowSessions(who, demo.nature, endWallMs, seededChance(seed + index + 3000), demo.lookCutOff)) {
      planned.push({
        id: session.id,
        horseId,
        kind: session.kind,
        ladderId: null,
        personId: people[handler] ?? null,
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
      [second, 60, "letting go as a bounced ball lands", 10],
      [second, 57, "letting go as a bounced ball lands", 15],
      [second, 52, "marking a bounced ball", 10],
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
    handler: DEMO_PEOPLE[0]?.name ?? "",
    place: DEMO_PLACES[demo.place]?.name ?? "",
    recorder: "demo-1",
  };
  const chain = await addChain(store, firstHorse, demoChain(standing, firstLadder, demo.plan.rungs.length), { id: drawUuid(own), sample });
  const ofTheSecond = secondLadderSessions(who, standing, plan, behaviour.name, endWallMs, own, chain);
  for (const session of ofTheSecond) {
    planned.push({
      id: session.id,
      horseId: firstHorse,
      ladderId: standing,
      personId: people[0] ?? null,
      placeId: places[demo.place] ?? null,
      startRung: session.startRung,
      sample,
      createdMs: session.startWallMs,
    });
    batches.push({ recorder: who.recorder, events: session.events, clocks: {} });
  }
  // The circle horse's month, with chance of its own too.
  const round = DEMO_HORSES.findIndex(({ horse }) => horse.name === "Corriemoor");
  const [circleHorse, circleDemo] = [horses[round], DEMO_HORSES[round]];
  if (circleHorse !== undefined && circleDemo !== undefined) {
    const { behaviour, plan } = circleLadder();
    const ofIts = seededChance(seed + 12_001);
    const ladder = await addLadder(store, circleHorse, behaviour, plan, { id: drawUuid(ofIts), behaviourId: drawUuid(ofIts), sample });
    const rider = {
      ladder,
      horse: circleDemo.horse.name,
      handler: DEMO_PEOPLE[0]?.name ?? "",
      place: DEMO_PLACES[circleDemo.place]?.name ?? "",
      recorder: "demo-1",
    };
    for (const session of circleStory(
      rider,
      endWallMs,
      seededChance(seed + 12_000),
      planned.filter(({ horseId }) => horseId === circleHorse).map(({ createdMs }) => createdMs ?? 0),
    )) {
      planned.push({
        id: session.id,
        horseId: circleHorse,
        kind: "circle",
        ladderId: ladder,
        personId: people[0] ?? null,
        placeId: places[circleDemo.place] ?? null,
        startRung: session.startRung,
        circle: { plan: planToLog(session.plan), overrides: [] },
        sample,
        createdMs: session.startWallMs,
      });
      batches.push({ recorder: rider.recorder, events: session.events, clocks: {} });
    }
    const setup = demoCircleSetup(dayOf(endWallMs));
    await saveCircleSetup(store, circleHorse, setup, dayOf(endWallMs));
  }
  await addSessions(store, planned);
  // All batches wait together, so that they share one transaction.
  const receipts = await Promise.all(batches.map((batch) => store.events.append(batch)));
  // A ladder that was worked is edited into its next version, and worked on as that.
  for (const {
    ladder,
    demo: { behaviour: same, story },
    sessions,
    batches: of,
  } of later) {
    if (story.split === undefined) continue;
    await updateLadder(store, ladder, same, story.split.plan);
    await addSessions(store, sessions);
    receipts.push(...(await Promise.all(of.map((batch) => store.events.append(batch)))));
  }
  await rebuildCaches(store);
  return { sessions: receipts.length, events: receipts.reduce((sum, { saved }) => sum + saved, 0) };
}

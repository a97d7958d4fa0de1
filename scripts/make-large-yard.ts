import { randomBytes } from "node:crypto";
import { type Chance, pick, seededChance } from "@/core/chance";
import { SimulatedHorse } from "@/core/learner";
import type { SessionEvent } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { EventLog } from "@/demo/event-log";
import type { DemoHorse } from "@/demo/horse";
import { DEMO_HORSES } from "@/demo/horses";
import { BlockPlayer } from "@/demo/session-script";
import { DEMO_PEOPLE, DEMO_PLACES } from "@/demo/yard-places";
import { addHorse, addLadder, addPerson, addPlace, type SessionRow, type Store } from "@/store";

type PlannedSession = Omit<SessionRow, "no">;

/** How large a yard is wanted. */
export interface LargeYard {
  readonly horses: number;
  readonly sessions: number;
  readonly trials: number;
  readonly years: number;
  readonly endWallMs: number;
  readonly seed: number;
}

const LADDERS = 3;
/** Sessions written in one transaction. */
const AT_ONCE = 200;
const NOTES = ["Softer from the first ask.", "Begin on the weaker side.", "One block shorter.", "Less guessing."];

interface YardHorse {
  readonly id: string;
  readonly name: string;
  readonly ladders: readonly { readonly id: string; readonly demo: DemoHorse; readonly horse: SimulatedHorse; rung: number }[];
}

/** A session of a simulated horse: blocks on one of its ladders, a rung up or down now and then. */
function play(session: string, of: YardHorse, trials: number, startWallMs: number, chance: Chance): SessionEvent[] {
  const ladder = pick(chance, of.ladders);
  const { demo, horse } = ladder;
  const log = new EventLog(session, `phone-${demo.story.handlerOf(0) + 1}`, startWallMs, chance);
  const place = DEMO_PLACES[demo.place]?.name ?? "";
  log.add("session.start", { horse: of.name, handler: DEMO_PEOPLE[demo.story.handlerOf(0)]?.name ?? "", place, method: demo.plan.method });
  log.add("preflight", { air_c: 14, humidity: 60, skipped: false, open: [] });
  horse.rest(3);
  let left = trials;
  for (let number = 1; left > 0; number++) {
    ladder.rung = Math.min(demo.plan.rungs.length, Math.max(1, ladder.rung + Math.round(chance() * 2.2 - 1)));
    horse.goToRung(ladder.rung);
    const player = new BlockPlayer(horse, log, chance, {
      plan: demo.plan,
      ladderId: ladder.id,
      version: 1,
      behaviour: demo.behaviour.name,
      number,
      rung: ladder.rung,
      side: number % 2 === 0 ? "L" : "R",
      kind: "work",
      way: demo.way,
      handlerLagSeconds: 0.4,
      zoneWaits: demo.zoneWaits,
      leaves: demo.story.leaves === null ? null : { chance: 0.07, to: demo.story.leaves.to },
      whereChance: chance,
    });
    player.start();
    const block = Math.min(left, 5 + Math.floor(chance() * 5));
    for (let n = 0; n < block; n++) player.trial();
    left -= block;
    log.add("word", {
      word: "Stay",
      reason: `${block} asks on rung ${ladder.rung}; too few to tell yet.`,
      numbers: { met: Math.floor(chance() * block), of: block },
      taken: false,
    });
    player.end();
    if (number % 3 === 0 && left > 0) {
      log.add("break.start", { reason: "rest" });
      log.wait(80);
      log.add("break.end");
    }
  }
  log.add("session.end");
  if (chance() < 0.5) log.add("note", { text: pick(chance, NOTES), about: chance() < 0.5 ? "better" : "next" });
  return log.events;
}

type Row = readonly [session: number, source: number, seq: number, mono: number, wall: number, type: string, payload: string];

/** Writes events in bulk, in the store's own tables: by one text a transaction, which SQLite takes apart. */
async function writeEvents(store: Store, rows: readonly Row[]): Promise<void> {
  const list = rows.map((row) => [randomBytes(16).toString("hex"), ...row]);
  await store.writer.write((transaction) =>
    store.sequelize.query(
      `INSERT INTO event (id, session_no, source_no, seq, mono_ms, wall_ms, type, payload, received_ms)
       SELECT unhex(value->>0), value->>1, value->>2, value->>3, value->>4, value->>5, value->>6, value->>7, value->>5 FROM jsonb_each(jsonb($rows))`,
      { bind: { rows: JSON.stringify(list) }, transaction },
    ),
  );
}

/**
 * Fills an empty store with a yard of many years: every session played by the
 * simulated learner, every event in its own row. Caches are left to be made.
 * Memory stays bounded; cost grows with the trials.
 * @returns how many trials and events were written.
 */
export async function makeLargeYard(store: Store, yard: LargeYard, say: (text: string) => void = () => undefined) {
  const chance = seededChance(yard.seed);
  // A yard made for measuring may be made again: the disk need not be waited for.
  await store.sequelize.query("PRAGMA synchronous = OFF");
  await store.sequelize.query("PRAGMA cache_size = -400000");
  const people: string[] = [];
  const places: string[] = [];
  for (const person of DEMO_PEOPLE) people.push(await addPerson(store, person));
  for (const place of DEMO_PLACES) places.push(await addPlace(store, place));
  const horses: YardHorse[] = [];
  for (let i = 0; i < yard.horses; i++) {
    const base = DEMO_HORSES[i % DEMO_HORSES.length] as DemoHorse;
    const name = `${base.horse.name} ${i + 1}`;
    const id = await addHorse(store, { ...base.horse, name });
    const ladders: { id: string; demo: DemoHorse; horse: SimulatedHorse; rung: number }[] = [];
    for (let n = 0; n < LADDERS; n++) {
      const demo = DEMO_HORSES[(i + n) % DEMO_HORSES.length] as DemoHorse;
      const ladderId = await addLadder(store, id, demo.behaviour, demo.plan);
      ladders.push({ id: ladderId, demo, horse: new SimulatedHorse(demo.story.temperOf(0), chance), rung: 1 });
    }
    horses.push({ id, name, ladders });
  }
  const spanMs = yard.years * 365 * MILLISECONDS_PER_DAY;
  const perSession = yard.trials / yard.sessions;
  let source = 0;
  let trials = 0;
  let events = 0;
  let no = 0;
  for (let at = 0; at < yard.sessions; at += AT_ONCE) {
    const planned: PlannedSession[] = [];
    const rows: Row[] = [];
    const loads: { recorder: string; load: string }[] = [];
    for (let i = at; i < Math.min(yard.sessions, at + AT_ONCE); i++) {
      const horse = horses[i % horses.length] as YardHorse;
      const startWallMs = Math.round(yard.endWallMs - spanMs + (spanMs * (i + chance() * 0.9)) / yard.sessions);
      const id = randomUuid();
      // Whole numbers that come out at what is wanted over all sessions.
      const own = Math.round(perSession * (i + 1)) - Math.round(perSession * i);
      const played = play(id, horse, own, startWallMs, chance);
      const load = played[0];
      if (load === undefined) continue;
      source++;
      no++;
      loads.push({ recorder: load.recorder, load: load.load });
      for (const { seq, mono_ms, wall_ms, type, payload } of played)
        rows.push([no, source, seq, mono_ms, wall_ms, type, JSON.stringify(payload)]);
      trials += own;
      planned.push({
        id,
        horse_id: horse.id,
        person_id: people[i % people.length] ?? null,
        place_id: places[i % places.length] ?? null,
        kind: "work",
        ladder_id: null,
        ladder_version: null,
        start_rung: null,
        circle: null,
        kit: "[]",
        sample: false,
        created_ms: startWallMs - 60_000,
      });
    }
    await addMany(store, planned, no - planned.length);
    await store.writer.write((transaction) => store.models.source.bulkCreate(loads, { transaction }));
    await writeEvents(store, rows);
    events += rows.length;
    if ((at / AT_ONCE) % 20 === 0) say(`${at + planned.length} of ${yard.sessions} sessions`);
  }
  await store.sequelize.query("PRAGMA synchronous = FULL");
  return { trials, events };
}

/** Sessions of horses that are known to be there: asking for each would take longer than all the rest. */
const addMany = (store: Store, planned: readonly PlannedSession[], before: number) =>
  store.writer.write((transaction) =>
    store.models.session.bulkCreate(
      planned.map((row, i) => ({ ...row, no: before + i + 1 })),
      { transaction },
    ),
  );

function randomUuid(): string {
  const hex = randomBytes(16).toString("hex");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
}

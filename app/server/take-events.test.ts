import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import {
  addHorse,
  addPerson,
  addSession,
  asideCount,
  asideTaps,
  clockOffsets,
  closeStore,
  eventsOfSession,
  type Store,
  settleAside,
} from "@/store";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { type Sends, takeEvents } from "./take-events";

const NOW = Date.UTC(2026, 4, 4, 10);
const SESSION = testId(900_000);
const OWN_SESSION = testId(900_001);
const KEEPER = "laptop:Olga";
const HELPER = "phone:Hilda";
let folder: string;
let store: Store;
let hilda: string;
let sends: Sends;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "take-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
  const horseId = await addHorse(store, PLAIN_HORSE);
  const olga = await addPerson(store, { name: "Olga", role: "handler" });
  hilda = await addPerson(store, { name: "Hilda", role: "helper" });
  const session = { horseId, ladderId: null, placeId: null, startRung: null };
  await addSession(store, { ...session, id: SESSION, personId: olga });
  await addSession(store, { ...session, id: OWN_SESSION, personId: hilda });
  const own = (name: string) => name === HELPER || name === `${HELPER}:review`;
  sends = { mayLogAs: own, helper: { personId: hilda, own } };
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

let load = 7000;
type Writing = (w: { add: (type: Parameters<SessionWriter["add"]>[1], payload?: Record<string, unknown>) => string }) => void;
/** Posts what a recorder writes into a session, as the device sends it. */
async function post(
  recorder: string,
  write: Writing,
  { session = SESSION, as = sends as Sends | null, under = testId(load++), clocks = {} as Record<string, number>, name = recorder } = {},
) {
  const w = new SessionWriter(session, NOW - 60_000);
  let at = 0;
  const ids: string[] = [];
  write({
    add: (type, payload = {}) => {
      const id = w.add(at++, type, payload, recorder, under);
      ids.push(id);
      return id;
    },
  });
  const answer = await takeEvents(
    store,
    JSON.stringify({ store: store.id, recorder: name, clocks: { [under]: 0, ...clocks }, events: w.events }),
    as ?? undefined,
  );
  return { ids, load: under, status: answer.status, code: "code" in answer ? answer.code : null };
}
const keeper = (write: Writing, session = SESSION) => post(KEEPER, write, { session, as: null });
const correct = (event: string, payload: Record<string, unknown> = { note: "x" }) => ({ event, payload, reason: "r" });

describe("a helper's batch", () => {
  it("logs, takes back and corrects what is the helper's own", async () => {
    const { ids } = await post(HELPER, (w) => w.add("trial", { outcome: "met" }));
    expect(await post(HELPER, (w) => w.add("correct", correct(ids[0] ?? "")))).toMatchObject({ status: 200 });
    expect(await post(`${HELPER}:review`, (w) => w.add("correct", { event: ids[0], strike: true, reason: "r" }))).toMatchObject({
      status: 200,
    });
    expect(await post(HELPER, (w) => w.add("undo", { event: w.add("mark") }))).toMatchObject({ status: 200 });
  });

  it.each([
    ["strikes", (id: string) => ["correct", { event: id, strike: true, reason: "r" }] as const],
    ["corrects", (id: string) => ["correct", correct(id)] as const],
    ["takes back", (id: string) => ["undo", { event: id }] as const],
  ])("%s no tap of the keeper's, and nothing of that batch is saved", async (_, make) => {
    const { ids } = await keeper((w) => w.add("trial", { outcome: "met" }));
    const before = (await eventsOfSession(store, SESSION)).events.length;
    const answer = await post(HELPER, (w) => {
      w.add("mark");
      const [type, payload] = make(ids[0] ?? "");
      w.add(type, payload);
    });
    expect(answer).toMatchObject({ status: 422, code: "another-tap" });
    expect((await eventsOfSession(store, SESSION)).events).toHaveLength(before);
  });

  it("what it may not change is kept and named for the keeper, who takes it in or leaves it out", async () => {
    const { ids } = await keeper((w) => {
      w.add("trial", { outcome: "met" });
      w.add("trial", { outcome: "miss" });
    });
    const before = (await eventsOfSession(store, SESSION)).events.length;
    const strike = (w: Parameters<Writing>[0]) => w.add("correct", { event: ids[0], strike: true, reason: "it was the gate" });
    const sent = await post(HELPER, strike);
    await post(HELPER, (w) => w.add("undo", { event: ids[1] }));
    await post(HELPER, (w) => w.add("correct", correct(testId(31), { shift_s: -86_400 })));
    const waiting = await asideTaps(store);
    expect(waiting.map(({ person, what, reason }) => [person, what, reason])).toEqual(
      expect.arrayContaining([
        ["Hilda", "strikes", "it was the gate"],
        ["Hilda", "takes back", ""],
        ["Hilda", "moves the session", "r"],
      ]),
    );
    expect(await asideCount(store)).toBe(waiting.length);
    const struck = waiting.find(({ id }) => id === sent.ids[0]);
    await settleAside(store, struck?.id ?? "", true);
    await settleAside(store, struck?.id ?? "", true);
    await settleAside(store, waiting.find(({ what }) => what === "takes back")?.id ?? "", false);
    const after = (await eventsOfSession(store, SESSION)).events;
    expect(after).toHaveLength(before + 1);
    expect(after.at(-1)).toMatchObject({ id: sent.ids[0], type: "correct", recorder: HELPER });
    expect((await asideTaps(store)).map(({ what }) => what)).toEqual(["moves the session"]);
  });

  it("taken in by the keeper is taken from the device too when it sends it again", async () => {
    const { ids } = await keeper((w) => w.add("trial", { outcome: "met" }));
    const w = new SessionWriter(SESSION, NOW - 60_000);
    w.add(0, "correct", { event: ids[0], strike: true, reason: "r" }, HELPER, testId(load++));
    const send = () => takeEvents(store, JSON.stringify({ store: store.id, recorder: HELPER, clocks: {}, events: w.events }), sends);
    expect((await send()).status).toBe(422);
    // Sent again by a device that was switched off in between it stands there once.
    expect((await send()).status).toBe(422);
    expect(await asideCount(store)).toBe(1);
    await settleAside(store, w.events[0]?.id ?? "", true);
    expect((await send()).status).toBe(200);
  });

  it("cannot be taken in where this version cannot read it, and stays", async () => {
    const { ids } = await keeper((w) => w.add("trial", { outcome: "met" }));
    await post(HELPER, (w) => w.add("correct", { event: ids[0], strike: true, reason: "r" }));
    await store.sequelize.query("UPDATE tap_aside SET event = json_set(event, '$.type', 'of a later version')");
    const [row] = await store.sequelize.query<{ id: string }>("SELECT id FROM tap_aside", { type: QueryTypes.SELECT });
    await expect(settleAside(store, row?.id ?? "", true)).rejects.toMatchObject({ code: "unread" });
    expect(await asideCount(store)).toBe(1);
    await settleAside(store, row?.id ?? "", false);
    expect(await asideCount(store)).toBe(0);
  });

  it("fills the file with no more than a few hundred of them", async () => {
    const { ids } = await keeper((w) => w.add("trial", { outcome: "met" }));
    for (let round = 0; round < 5; round++)
      await post(HELPER, (w) => {
        for (let i = 0; i < 90; i++) w.add("undo", { event: ids[0] });
      });
    expect(await asideCount(store)).toBe(200);
  });

  it("corrects whatever is in the session the helper runs", async () => {
    const { ids } = await keeper((w) => w.add("trial", { outcome: "met" }), OWN_SESSION);
    expect(await post(HELPER, (w) => w.add("correct", correct(ids[0] ?? "")), { session: OWN_SESSION })).toMatchObject({ status: 200 });
  });

  it.each([{ horse: "Another" }, { shift_s: -34_560_000 }])("moves no session, not even one's own: %j", async (payload) => {
    const { ids } = await post(HELPER, (w) => w.add("session.start", { horse: "Bo", method: "combined" }), { session: OWN_SESSION });
    expect(await post(HELPER, (w) => w.add("correct", correct(ids[0] ?? "", payload)), { session: OWN_SESSION })).toMatchObject({
      status: 422,
      code: "another-tap",
    });
  });

  it("goes under the helper's name, the batch itself too", async () => {
    expect(await post(KEEPER, (w) => w.add("mark"))).toMatchObject({ status: 422, code: "another-recorder" });
    expect(await post(HELPER, (w) => w.add("mark"), { name: KEEPER })).toMatchObject({ status: 422, code: "another-recorder" });
  });

  it("moves no clock of another device, by a tap of one's own under its load or by none", async () => {
    const theirs = await keeper((w) => w.add("mark"));
    const bent = { [theirs.load]: 900_000_000_000 };
    expect(await post(HELPER, (w) => w.add("mark"), { clocks: bent })).toMatchObject({ status: 422 });
    expect(await post(HELPER, (w) => w.add("mark"), { under: theirs.load, clocks: { [theirs.load]: 5000 } })).toMatchObject({
      status: 422,
    });
    const offsets = await clockOffsets(store, (await eventsOfSession(store, SESSION)).events);
    expect(offsets.get(theirs.load)).toBe(0);
  });
});

describe("full rights", () => {
  it("correct from any device", async () => {
    const { ids } = await post(HELPER, (w) => w.add("trial", { outcome: "met" }));
    const all: Sends = { mayLogAs: (name) => name === KEEPER, helper: null };
    expect(await post(KEEPER, (w) => w.add("correct", correct(ids[0] ?? "")), { as: all })).toMatchObject({ status: 200 });
  });
});

describe("any batch", () => {
  it("tells the clocks of its own taps alone, of so many page loads", async () => {
    const body = (clocks: Record<string, number>, events: unknown[]) =>
      takeEvents(store, JSON.stringify({ store: store.id, recorder: KEEPER, clocks, events }));
    const invented = Object.fromEntries(Array.from({ length: 1000 }, (_, i) => [testId(20_000 + i), 1]));
    expect((await body(invented, [])).status).toBe(422);
    const w = new SessionWriter(SESSION, NOW - 60_000);
    for (let i = 0; i < 201; i++) w.add(i / 10, "mark", {}, KEEPER, testId(30_000 + i));
    expect((await body({}, w.events)).status).toBe(422);
    expect((await body({}, w.events.slice(1))).status).toBe(200);
  });
});

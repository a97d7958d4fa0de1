import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { reduceSession, workSeconds } from "@/core/record";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { populateDemo, populatedStore } from "@/tests/support/demo";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE as HORSE } from "@/tests/support/plain-horse";
import { emptyDraft } from "@/tests/support/plan";
import { randomSession } from "@/tests/support/random-session";
import { connect } from "./connect";
import {
  addHorse,
  addLadder,
  addPerson,
  addPlace,
  addSession,
  asBehaviour,
  catchUp,
  closeStore,
  evidenceOfLadder,
  getHorse,
  getLadder,
  hasSampleData,
  listHorses,
  listLadders,
  listPeople,
  listSessions,
  loadSession,
  MIGRATIONS,
  migrate,
  NotFoundError,
  notSummedIn,
  openStore,
  readMeta,
  rebuildCaches,
  removeSampleData,
  rungEvidence,
  type Store,
  UnknownSessionError,
  updateHorse,
  updateLadder,
  writeMeta,
} from "./index";

let folder: string;
let store: Store;
const NOW = Date.UTC(2026, 5, 20);

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-store-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

async function sessionWith(seed: number) {
  const horseId = await addHorse(store, HORSE);
  const ladderId = await addLadder(store, horseId, { ...emptyDraft().behaviour, name: "plate" }, emptyDraft().plan);
  const random = randomSession(seed);
  await addSession(store, { id: random.id, horseId, ladderId, personId: null, placeId: null, startRung: 1 });
  return { horseId, ladderId, ...random };
}

const batch = (events: ReturnType<typeof randomSession>["events"]) => ({ recorder: "phone:ana", events, clocks: {} });

describe("a store", () => {
  it("is in WAL with foreign keys on, full sync, and keeps its id", async () => {
    const pragma = async (name: string) =>
      Object.values((await store.sequelize.query<object>(`PRAGMA ${name}`, { type: QueryTypes.SELECT }))[0] ?? {})[0];
    expect([await pragma("journal_mode"), await pragma("foreign_keys"), await pragma("synchronous")]).toEqual(["wal", 1, 2]);
    const { id, file } = store;
    await closeStore(store);
    store = await openStore(file);
    expect(store.id).toBe(id);
  });

  it("sets the pragmas on the connections of transactions too", async () => {
    const rows = await store.writer.write((transaction) =>
      store.sequelize.query<object>("PRAGMA synchronous", { transaction, type: QueryTypes.SELECT }),
    );
    expect(rows).toEqual([{ synchronous: 2 }]);
  });

  it("refuses a row whose parent is not there", async () => {
    await expect(
      store.models.ladder.create({ id: "l", horse_id: "nobody", behaviour_id: "nothing", version: 1, sample: false, created_ms: 0 }),
    ).rejects.toThrow(/FOREIGN KEY/);
  });

  it("remembers facts such as its port", async () => {
    expect(await readMeta(store, "port")).toBeNull();
    await writeMeta(store, "port", "4370");
    await writeMeta(store, "port", "4380");
    expect(await readMeta(store, "port")).toBe("4380");
  });

  it("migrates from nothing, once, and again without harm", async () => {
    const file = join(folder, "fresh.sqlite");
    const fresh = connect(file).sequelize;
    await migrate(fresh);
    await migrate(fresh);
    const [tables] = (await fresh.query(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
    )) as [{ name: string }[], unknown];
    expect(tables.map((t) => t.name)).toEqual([
      "behaviour",
      "block",
      "cache_key",
      "chain",
      "chain_link",
      "circle_setup",
      "event",
      "hand_load",
      "horse",
      "horse_date",
      "horse_photo",
      "import_row",
      "kit",
      "kit_fit",
      "ladder",
      "ladder_plan",
      "migration",
      "own_sign",
      "person",
      "place",
      "place_item",
      "practice",
      "recorder_clock",
      "restriction",
      "rung_side_summary",
      "session",
      "session_summary",
      "sign_in",
      "source",
      "stale",
      "store_meta",
      "tap_aside",
      "trial",
      "try_both",
    ]);
    const [done] = (await fresh.query("SELECT name FROM migration")) as [{ name: string }[], unknown];
    expect(done.map((m) => m.name)).toEqual(MIGRATIONS.map((m) => m.name));
    await fresh.close();
  });

  it("keeps what a store held through a later migration", async () => {
    const id = await addHorse(store, HORSE);
    await migrate(store.sequelize, [
      ...MIGRATIONS,
      { name: "9999-later", up: (query) => query.addColumn("horse", "later", { type: "TEXT" }) },
    ]);
    expect((await getHorse(store, id)).name).toBe("Tarn");
  });
});

describe("horses and ladders", () => {
  it("are added, changed and found; unknown ids are said", async () => {
    const id = await addHorse(store, { ...HORSE, name: "O'Bo <b>馬</b>" });
    await updateHorse(store, id, { ...HORSE, name: "Ní Žižka", mass_kg: null });
    expect(await getHorse(store, id)).toMatchObject({ name: "Ní Žižka", mass_kg: null, sample: false });
    await expect(getHorse(store, "nobody")).rejects.toThrow(NotFoundError);
    await expect(updateHorse(store, "nobody", HORSE)).rejects.toThrow(NotFoundError);
    await expect(addLadder(store, "nobody", { ...emptyDraft().behaviour, name: "x" }, emptyDraft().plan)).rejects.toThrow(NotFoundError);
  });

  it("two of one name are two", async () => {
    await addHorse(store, HORSE);
    await addHorse(store, HORSE);
    expect(await listHorses(store)).toHaveLength(2);
  });

  it("a ladder comes back as it went in", async () => {
    const horseId = await addHorse(store, HORSE);
    const plan = {
      ...emptyDraft().plan,
      mastery: { kind: "posterior" as const, target: 0.7, confidence: 0.9, least: 6 },
      schedule: { kind: "fixed" as const, ratio: 3 },
      holdOnWrong: false,
      workingStrandId: "latency",
      firstTouchCentimetres: 40,
      transfer: { gapSeconds: 1.5 },
      feeding: { reinforcer: "scratch" as const, pieceGrams: 2.5, dayLimitGrams: 300, where: "at the hip", politeSeconds: 2 },
      ways: { directions: "one-a-day" },
    };
    plan.rungs = [
      { ...plan.rungs[0], values: plan.rungs[0]?.values ?? {}, schedule: { kind: "variable", ratio: 4 }, method: "marker-food" },
      { values: plan.rungs[1]?.values ?? {}, percentile: { lookBack: 8, wantedShare: 0.5 }, kept: "it knows the step already" },
    ];
    const GATE = {
      ...EMPTY_BEHAVIOUR,
      name: "gate",
      finished: "f",
      cue: "c",
      why: "w",
      movement: "left or right" as const,
      involves: ["circling" as const],
      prerequisites: [{ behaviour: "yields", values: { side: "both" }, maxPhase: 2 }],
    };
    const id = await addLadder(store, horseId, GATE, plan);
    const stored = await getLadder(store, id);
    expect(stored).toMatchObject({ version: 1, plan });
    expect(asBehaviour(stored.behaviour)).toEqual(GATE);
    expect(await listLadders(store, horseId)).toHaveLength(1);
    await expect(getLadder(store, id, 7)).rejects.toThrow(NotFoundError);
  });

  it("changing a ladder that was worked makes a version; the old one stays as it was", async () => {
    const { ladderId } = await sessionWith(3);
    const before = await getLadder(store, ladderId);
    const changed = {
      ...before.plan,
      plannedRepetitions: 5,
      rungs: before.plan.rungs.map((rung) => ({ values: { ...rung.values, latency: 8 } })),
    };
    expect(await updateLadder(store, ladderId, { ...EMPTY_BEHAVIOUR, name: "plate", involves: [] }, changed)).toBe(2);
    expect((await getLadder(store, ladderId)).plan).toEqual(changed);
    expect((await getLadder(store, ladderId, 1)).plan).toEqual(before.plan);
  });

  it("changing one that was not, or nothing but words, keeps the version", async () => {
    const horseId = await addHorse(store, HORSE);
    const id = await addLadder(store, horseId, { ...emptyDraft().behaviour, name: "gate" }, emptyDraft().plan);
    expect(
      await updateLadder(store, id, { ...emptyDraft().behaviour, name: "gate" }, { ...emptyDraft().plan, plannedRepetitions: 3 }),
    ).toBe(1);
    const { ladderId } = await sessionWith(4);
    const { plan } = await getLadder(store, ladderId);
    expect(await updateLadder(store, ladderId, { ...emptyDraft().behaviour, name: "renamed" }, plan)).toBe(1);
    expect((await getLadder(store, ladderId)).behaviour.name).toBe("renamed");
  });
});

describe("events", () => {
  it("are saved once, however often they are sent and in whatever pieces", async () => {
    const { id, events } = await sessionWith(11);
    expect(await store.events.append(batch(events.slice(0, 30)))).toMatchObject({ saved: 30, known: 0, position: 30 });
    expect(await store.events.append(batch(events))).toMatchObject({
      saved: events.length - 30,
      known: 30,
      position: events.length,
    });
    expect(await store.events.append(batch([...events, ...events]))).toMatchObject({ saved: 0, known: events.length * 2 });
    expect((await loadSession(store, id)).events).toHaveLength(events.length);
  });

  it("sent all at once by fifty recorders are all there, in few transactions", async () => {
    const { id, events } = await sessionWith(12);
    let transactions = 0;
    const original = store.sequelize.transaction.bind(store.sequelize);
    store.sequelize.transaction = ((...args: Parameters<typeof original>) => {
      transactions++;
      return original(...args);
    }) as typeof original;
    const receipts = await Promise.all(
      Array.from({ length: 50 }, (_, i) => store.events.append(batch(events.filter((_, at) => at % 50 === i || at % 7 === i % 7)))),
    );
    expect(receipts.reduce((sum, r) => sum + r.saved, 0)).toBe(events.length);
    expect((await loadSession(store, id)).events).toHaveLength(events.length);
    expect(transactions).toBeLessThan(10);
  });

  it("of a session nobody knows are refused, and the batches beside them are not", async () => {
    const { events } = await sessionWith(13);
    const stranger = randomSession(14).events;
    const [good, bad] = await Promise.allSettled([store.events.append(batch(events)), store.events.append(batch(stranger))]);
    expect(good.status).toBe("fulfilled");
    expect(bad.status === "rejected" && bad.reason).toBeInstanceOf(UnknownSessionError);
  });

  it("keep the newest clock offset of a page load: a clock that was wrong for a while bends no time for good", async () => {
    const { horseId, id, events } = await sessionWith(15);
    const load = events[0]?.load ?? "";
    await store.events.append({ ...batch(events), clocks: { [load]: 1000 } });
    const before = (await loadSession(store, id)).record;
    await rebuildCaches(store);
    await store.events.append({ ...batch(events), clocks: { [load]: 9000 } });
    const after = await loadSession(store, id);
    expect(after.offsets.get(load)).toBe(9000);
    expect(after.record).not.toEqual(before);
    // The sums were made with the old offset; no new event has come, and they follow all the same.
    const [newest] = await listSessions(store, horseId, { limit: 200 });
    expect([newest?.summary.started_ms, newest?.summary.work_s]).toEqual([after.record.startWallMs, workSeconds(after.record)]);
    await rebuildCaches(store);
    expect((await listSessions(store, horseId, { limit: 1 }))[0]).toEqual(newest);
  });

  it("sums up every session of a load whose clock moved, also one that is in no batch of now", async () => {
    const [first, second] = [await sessionWith(16), await sessionWith(17)];
    const load = first.events[0]?.load ?? "";
    const others = second.events.map((event) => ({ ...event, load }));
    await store.events.append({ ...batch(first.events), clocks: { [load]: 1000 } });
    await store.events.append({ ...batch(others), clocks: { [load]: 1000 } });
    await rebuildCaches(store);
    const startOf = async (horseId: string) => (await listSessions(store, horseId, { limit: 1 }))[0]?.summary.started_ms;
    const before = [await startOf(first.horseId), await startOf(second.horseId)];
    // The phone's clock is measured anew with a tap of the second session alone.
    await store.events.append({ ...batch(others.slice(-1)), clocks: { [load]: 9000 } });
    expect([await startOf(first.horseId), await startOf(second.horseId)]).toEqual(before.map((ms) => (ms ?? 0) + 8000));
    await rebuildCaches(store);
    expect([await startOf(first.horseId), await startOf(second.horseId)]).toEqual(before.map((ms) => (ms ?? 0) + 8000));
  });

  it("a failed write leaves nothing half written and the writer goes on", async () => {
    await expect(
      store.writer.write(async (transaction) => {
        await store.models.person.create({ id: "p", name: "x", role: "handler", sample: false, created_ms: 0 }, { transaction });
        throw new Error("halfway");
      }),
    ).rejects.toThrow("halfway");
    expect(await store.models.person.count()).toBe(0);
    // At COMMIT: the row's session is looked for only then, and is not there.
    await expect(
      store.writer.write(async (transaction) => {
        await store.sequelize.query("PRAGMA defer_foreign_keys = ON", { transaction });
        await store.models.person.create({ id: "p", name: "x", role: "handler", sample: false, created_ms: 0 }, { transaction });
        await store.models.session.create(
          {
            id: "s",
            horse_id: "nobody",
            person_id: null,
            place_id: null,
            kind: "work",
            ladder_id: null,
            ladder_version: null,
            start_rung: null,
            kit: "[]",
            sample: false,
            created_ms: 0,
          },
          { transaction },
        );
      }),
    ).rejects.toThrow(/FOREIGN KEY/);
    expect([await store.models.person.count(), await store.models.session.count()]).toEqual([0, 0]);
    expect(await addPerson(store, { name: "y", role: "helper" })).toMatch(/^[0-9a-f-]{36}$/);
    expect((await listPeople(store)).map(({ name }) => name)).toEqual(["y"]);
  });
});

describe("caches", () => {
  it("follow the events, and rebuilding them changes nothing", async () => {
    const { horseId, id, events } = await sessionWith(21);
    await store.events.append(batch(events.slice(0, 40)));
    const early = await listSessions(store, horseId, { limit: 200 });
    await store.events.append(batch(events));
    const late = await listSessions(store, horseId, { limit: 200 });
    expect(late[0]?.summary.n).toBe(reduceSession(events).trials.length);
    expect(early[0]?.summary.last_ms).toBeLessThan(late[0]?.summary.last_ms ?? 0);
    expect(await rebuildCaches(store)).toBe(1);
    expect((await listSessions(store, horseId, { limit: 200 }))[0]).toEqual(late[0]);
    const { record } = await loadSession(store, id);
    expect(late[0]?.summary).toMatchObject({
      met: record.trials.filter(({ outcome }) => outcome === "met").length,
      last_ms: record.lastMs,
    });
    expect(late[0]?.blocks.map(({ rung }) => rung)).toEqual(record.blocks.map(({ rung }) => rung));
  });

  it("sum up rungs and give evidence oldest first", async () => {
    const demo = await populatedStore(join(folder, "demo.sqlite"), NOW, 6);
    expect(await demo.models.session.count()).toBeGreaterThan(80);
    const horses = await listHorses(demo);
    for (const horse of horses) {
      const [ladder] = await listLadders(demo, horse.id);
      const whole = await getLadder(demo, ladder?.id ?? "");
      const evidence = await evidenceOfLadder(demo, whole);
      const sums = await rungEvidence(demo, whole, whole.version);
      expect(sums.reduce((sum, s) => sum + s.n, 0)).toBe(evidence.filter((t) => t.kind === "work" && t.version === whole.version).length);
      expect(evidence.every((t, i) => i === 0 || t.wallMs >= (evidence[i - 1]?.wallMs ?? 0))).toBe(true);
    }
    await closeStore(demo);
  });
});

describe("a session that cannot be summed up", () => {
  const broken = (id: string) =>
    store.sequelize.query(
      `UPDATE event SET payload = 'null' WHERE position = (SELECT MAX(e.position) FROM event e JOIN session s ON s.no = e.session_no
       WHERE s.id = :id AND e.type = 'trial')`,
      { replacements: { id } },
    );
  const nOf = async (horseId: string) => (await listSessions(store, horseId, { limit: 1 }))[0]?.summary.n;

  it("is named and stands in no other's way; what was kept of it stays, and it is tried again when it is tapped in", async () => {
    const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const [bad, good] = [await sessionWith(21), await sessionWith(22)];
    for (const one of [bad, good]) await store.events.append(batch(one.events));
    await rebuildCaches(store);
    const before = [await nOf(bad.horseId), await nOf(good.horseId)];
    expect(before.every((n) => (n ?? 0) > 0)).toBe(true);
    await broken(bad.id);
    expect(await rebuildCaches(store)).toBe(1);
    expect(notSummedIn(store)).toMatchObject([{ id: bad.id }]);
    expect([await nOf(bad.horseId), await nOf(good.horseId)]).toEqual(before);
    // What comes in for the other is summed up; the page asks and is answered.
    const more = randomSession(23)
      .events.slice(0, 1)
      .map((event) => ({ ...event, session: good.id }));
    await store.events.append(batch(more));
    await catchUp(store);
    expect(await nOf(good.horseId)).toBe(before[1]);
    expect(said).toHaveBeenCalledTimes(1);
    // Its event put right by hand, a tap brings it back into the sums.
    await store.sequelize.query("UPDATE event SET payload = '{\"outcome\":\"met\"}' WHERE payload = 'null'");
    await store.events.append(
      batch(
        randomSession(24)
          .events.slice(0, 1)
          .map((event) => ({ ...event, session: bad.id })),
      ),
    );
    expect(await catchUp(store)).toBeGreaterThan(0);
    expect(notSummedIn(store)).toEqual([]);
    said.mockRestore();
  });

  it("leaves no cache empty where summing up is cut off: each is replaced, none dropped first", async () => {
    const one = await sessionWith(25);
    await store.events.append(batch(one.events));
    await rebuildCaches(store);
    const before = await nOf(one.horseId);
    const count = async () =>
      (await store.sequelize.query<{ n: number }>("SELECT COUNT(*) AS n FROM session_summary", { type: QueryTypes.SELECT }))[0]?.n;
    const kept = await count();
    await expect(
      rebuildCaches(store, () => {
        throw new Error("cut off");
      }),
    ).rejects.toThrow("cut off");
    expect(await count()).toBe(kept);
    expect(await nOf(one.horseId)).toBe(before);
  });
});

describe("sample data", () => {
  it("goes in one step and leaves one's own alone", async () => {
    await closeStore(store);
    store = await populatedStore(join(folder, "demo.sqlite"), NOW, 6);
    const own = await addHorse(store, HORSE);
    await addPlace(store, { name: "mine", shape: "round", length_m: 18, width_m: 18, footing: "", fence: "", items: [] });
    expect(await hasSampleData(store)).toBe(true);
    await removeSampleData(store);
    expect(await hasSampleData(store)).toBe(false);
    expect((await listHorses(store)).map((horse) => horse.id)).toEqual([own]);
    for (const model of [
      store.models.session,
      store.models.event,
      store.models.ladder,
      store.models.ladderPlan,
      store.models.behaviour,
      store.models.person,
      store.models.kit,
      store.models.practice,
      store.models.restriction,
    ])
      expect(await (model as typeof store.models.event).count()).toBe(0);
    expect(await store.models.place.count()).toBe(1);
  });

  it("is the same for the same seed and end", async () => {
    await populateDemo(store, NOW, 6);
    const first = await store.models.eventLog.findAll({ raw: true, order: [["position", "ASC"]] });
    const other = await populatedStore(join(folder, "other.sqlite"), NOW, 6);
    expect(await other.models.eventLog.findAll({ raw: true, order: [["position", "ASC"]] })).toEqual(first);
    await closeStore(other);
  });
});

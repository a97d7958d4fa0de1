import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { FIRST_LOOK_STEPS } from "@/core/know";
import type { HorseInput, PlaceInput, RestrictionInput } from "@/core/schemas";
import { populateDemo } from "@/tests/support/demo";
import { newStore } from "@/tests/support/new-store";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { connect } from "./connect";
import {
  addHorse,
  addKit,
  addPerson,
  addPlace,
  addPractice,
  addRestriction,
  addSession,
  asKit,
  asRestriction,
  closeStore,
  digestsOfHorse,
  endRestriction,
  getHorse,
  getPhoto,
  getPlace,
  listHorses,
  listKit,
  listPlaces,
  listPractice,
  listRestrictions,
  listSessions,
  MIGRATIONS,
  migrate,
  NotFoundError,
  namesApart,
  openStore,
  photoChangedMs,
  putInBin,
  rebuildCaches,
  type Store,
  setAway,
  setPhoto,
  setResting,
  updateKit,
  updatePerson,
  updatePlace,
  updateRestriction,
} from "./index";

let folder: string;
let store: Store;
const NOW = Date.UTC(2026, 5, 20);
const HORSE: HorseInput = {
  name: "Tarn",
  born_day: "2021-05-04",
  birth_year: null,
  sex: null,
  kind: "",
  height_cm: null,
  mass_kg: null,
  history: "",
  triggers: "",
  preferred_reinforcers: "",
  resting_breaths_per_min: null,
  resting_heart_per_min: null,
};
const CIRCLING: RestrictionInput = {
  kind: "no-circling",
  amount: null,
  detail: "",
  reason: "hock",
  given_by: "vet",
  from_day: null,
  until_day: "2026-07-01",
};
const PEN: PlaceInput = {
  name: "pen",
  shape: "rectangle",
  length_m: 20,
  width_m: 10,
  footing: "sand",
  fence: "",
  items: [
    { name: "gate", kind: "gate", x_m: 5, y_m: 9, across_m: 2, down_m: 1 },
    { name: "plate", kind: "plate", x_m: 9, y_m: 4, across_m: 2, down_m: 2 },
  ],
};

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-know-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

describe("the second migration", () => {
  it("keeps every event and session of a store of the first, and turns its restrictions into rows", async () => {
    const file = join(folder, "old.sqlite");
    const old = connect(file).sequelize;
    await migrate(old, MIGRATIONS.slice(0, 1));
    const run = (sql: string) => old.query(sql);
    await run(`INSERT INTO horse (id, name, kind, history, restrictions, sample, created_ms) VALUES
      ('h1', 'O''Bo', '', '', 'No circling until seen.', 0, 5), ('h2', 'Kit', '', '', '  ', 0, 6)`);
    await run("INSERT INTO behaviour (id, name, finished, cue, why, sample) VALUES ('b', 'plate', '', '', '', 0)");
    await run("INSERT INTO ladder (id, horse_id, behaviour_id, version, sample, created_ms) VALUES ('l', 'h1', 'b', 1, 0, 7)");
    await run(
      "INSERT INTO session (id, horse_id, ladder_id, ladder_version, start_rung, sample, created_ms) VALUES ('s', 'h1', 'l', 1, 2, 0, 8)",
    );
    const writer = new SessionWriter("s");
    writer.block(0);
    writer.add(3, "trial", { outcome: "met" });
    for (const event of writer.events)
      await old.query(
        `INSERT INTO event (id, session_id, recorder, load, seq, mono_ms, wall_ms, type, payload, received_ms)
         VALUES (:id, 's', 'r', :load, :seq, :mono_ms, :wall_ms, :type, :payload, 1)`,
        { replacements: { ...event, payload: JSON.stringify(event.payload) } },
      );
    await run(`INSERT INTO session_summary (session_id, last_position, started_ms, finished, work_s, n, met, record, evidence)
      VALUES ('s', 2, 1, 0, 0, 0, 0, '{}', '[]')`);
    await old.close();

    const grown = await openStore(file, () => NOW);
    expect((await listHorses(grown)).map(({ name, away }) => [name, away])).toEqual([
      ["Kit", null],
      ["O'Bo", null],
    ]);
    expect(await listRestrictions(grown, "h1")).toMatchObject([{ kind: "other", reason: "No circling until seen.", until_day: null }]);
    expect(await listRestrictions(grown, "h2")).toEqual([]);
    const [session] = await listSessions(grown, "h1", { limit: 200 });
    expect(session?.session).toMatchObject({ kind: "work", ladder_id: "l", start_rung: 2, kit: "[]" });
    // The old cache counted as stale: it was made anew from the events, which are all there.
    expect(session?.summary).toMatchObject({ n: 1, met: 1 });
    expect(await grown.models.event.count()).toBe(2);
    await expect(
      grown.models.session.create({ id: "x", horse_id: "nobody", kind: "work", kit: "[]", sample: false, created_ms: 1 }),
    ).rejects.toThrow(/FOREIGN KEY/);
    await grown.models.horse.destroy({ where: { id: "h1" } });
    expect(await grown.models.event.count()).toBe(0);
    await closeStore(grown);
  });

  it("changes nothing where it cannot be finished", async () => {
    const file = join(folder, "broken.sqlite");
    const old = connect(file).sequelize;
    await migrate(old, MIGRATIONS.slice(0, 1));
    await old.query("INSERT INTO horse (id, name, kind, history, restrictions, sample, created_ms) VALUES ('h', 'Bo', '', '', 'x', 0, 5)");
    // A table in the way, as a half-done copy would leave it.
    await old.query("CREATE TABLE session_new (id TEXT)");
    await expect(migrate(old)).rejects.toThrow();
    const [columns] = (await old.query("PRAGMA table_info(horse)")) as [{ name: string }[], unknown];
    expect(columns.map(({ name }) => name)).toContain("restrictions");
    expect(await old.query("PRAGMA foreign_keys", { type: QueryTypes.SELECT })).toEqual([{ foreign_keys: 1 }]);
    await old.query("DROP TABLE session_new");
    // A row whose parent is gone, which only a store tampered with can hold: the copy is thrown away, not kept half right.
    await old.query("PRAGMA foreign_keys = OFF");
    await old.query(
      "INSERT INTO session (id, horse_id, ladder_id, ladder_version, start_rung, sample, created_ms) VALUES ('s', 'gone', 'gone', 1, 1, 0, 1)",
    );
    await expect(migrate(old)).rejects.toThrow(/do not fit together/);
    expect(await old.query("SELECT id FROM session", { type: QueryTypes.SELECT })).toEqual([{ id: "s" }]);
    await old.close();
  });
});

describe("horses", () => {
  it("take their birth year from the day of birth", async () => {
    expect(await getHorse(store, await addHorse(store, HORSE))).toMatchObject({ born_day: "2021-05-04", birth_year: 2021 });
  });

  it("are put away and brought back with everything they had", async () => {
    const id = await addHorse(store, HORSE);
    await addRestriction(store, id, CIRCLING);
    await setAway(store, id, { kind: "turned out to grow", since: "2026-06-01", note: "hill field" });
    expect(await getHorse(store, id)).toMatchObject({ away: "turned out to grow", away_since: "2026-06-01", away_note: "hill field" });
    await setAway(store, id, null);
    expect(await getHorse(store, id)).toMatchObject({ away: null, away_since: null, name: "Tarn" });
    expect(await listRestrictions(store, id)).toHaveLength(1);
    await expect(setAway(store, "nobody", null)).rejects.toThrow(NotFoundError);
  });

  it("of one name are told apart", async () => {
    const one = await addHorse(store, { ...HORSE, sex: "mare" });
    const two = await addHorse(store, { ...HORSE, sex: "gelding" });
    const names = await namesApart(store);
    expect([names.get(one), names.get(two)]).toEqual(["mare", "gelding"]);
  });

  it("keep a picture and their resting rates", async () => {
    const id = await addHorse(store, HORSE);
    expect(await photoChangedMs(store, id)).toBeNull();
    await setPhoto(store, id, { type: "image/png", bytes: Buffer.from([1, 2, 3]) });
    expect((await getPhoto(store, id))?.bytes).toEqual(Buffer.from([1, 2, 3]));
    await setPhoto(store, id, null);
    expect(await getPhoto(store, id)).toBeNull();
    await setResting(store, id, { resting_breaths_per_min: 11.5, resting_heart_per_min: 36 });
    expect(await getHorse(store, id)).toMatchObject({ resting_breaths_per_min: 11.5, resting_heart_per_min: 36 });
    await expect(setPhoto(store, "nobody", null)).rejects.toThrow(NotFoundError);
  });
});

describe("restrictions", () => {
  it("are added, changed, ended with a reason and let hold again, each of its own horse only", async () => {
    const id = await addHorse(store, HORSE);
    const other = await addHorse(store, HORSE);
    const restriction = await addRestriction(store, id, CIRCLING);
    await updateRestriction(store, id, restriction, { ...CIRCLING, reason: "better" });
    const [row] = await listRestrictions(store, id);
    expect(row === undefined ? null : asRestriction(row)).toEqual({
      kind: "no-circling",
      amount: null,
      detail: null,
      limb: null,
      carriesOthers: null,
      reason: "better",
      givenBy: "vet",
      from: null,
      until: "2026-07-01",
    });
    await expect(updateRestriction(store, other, restriction, CIRCLING)).rejects.toThrow(NotFoundError);
    await expect(endRestriction(store, other, restriction, "healed")).rejects.toThrow(NotFoundError);
    await endRestriction(store, id, restriction, "healed");
    expect(await listRestrictions(store, id)).toMatchObject([{ id: restriction, ended_ms: expect.any(Number), ended_why: "healed" }]);
    await endRestriction(store, id, restriction, null);
    expect(await listRestrictions(store, id)).toMatchObject([{ ended_ms: null, ended_why: "" }]);
    await expect(addRestriction(store, "nobody", CIRCLING)).rejects.toThrow(NotFoundError);
  });
});

describe("places, kit, people", () => {
  it("a place comes back with its zones in order; removing it leaves its sessions", async () => {
    const id = await addPlace(store, PEN);
    expect(await getPlace(store, id)).toMatchObject(PEN);
    await updatePlace(store, id, { ...PEN, shape: "round", width_m: null, items: PEN.items?.slice(1) ?? [] });
    expect(await getPlace(store, id)).toMatchObject({ shape: "round", length_m: 20, width_m: 20, items: [{ name: "plate" }] });
    const horseId = await addHorse(store, HORSE);
    await addSession(store, { id: testId(5), horseId, kind: "touch", ladderId: null, personId: null, placeId: id, startRung: null });
    await putInBin(store, "place", id);
    expect(await listPlaces(store)).toEqual([]);
    expect(await store.models.session.count()).toBe(1);
    await expect(getPlace(store, id)).rejects.toThrow(NotFoundError);
    await expect(updatePlace(store, id, PEN)).rejects.toThrow(NotFoundError);
  });

  it("kit keeps not looked at apart from no", async () => {
    const kit = { name: "roller", kind: "roller or harness" as const, length_m: null, mass_g: 3800, buckles_equal: null, note: "" };
    const id = await addKit(store, kit);
    expect((await listKit(store)).map(asKit)).toMatchObject([{ bucklesEqual: null, massGrams: 3800 }]);
    await updateKit(store, id, { ...kit, buckles_equal: false });
    expect((await listKit(store)).map(asKit)).toMatchObject([{ bucklesEqual: false }]);
    await putInBin(store, "kit", id);
    expect(await listKit(store)).toEqual([]);
    await expect(putInBin(store, "kit", id)).rejects.toThrow(NotFoundError);
    await expect(updateKit(store, id, kit)).rejects.toThrow(NotFoundError);
  });

  it("people keep their practice", async () => {
    const id = await addPerson(store, { name: "Wenna", role: "handler" });
    await addPractice(store, id, { day: "2026-06-01", what: "line", minutes: 5, note: "" });
    await addPractice(store, id, { day: "2026-06-03", what: "marking", minutes: 8, note: "" });
    expect((await listPractice(store)).map(({ what }) => what)).toEqual(["marking", "line"]);
    await updatePerson(store, id, { name: "Wenna", role: "coach" });
    await expect(updatePerson(store, "nobody", { name: "x", role: "coach" })).rejects.toThrow(NotFoundError);
    await expect(addPractice(store, "nobody", { day: "2026-06-01", what: "x", minutes: 1, note: "" })).rejects.toThrow(NotFoundError);
  });
});

describe("digests", () => {
  it("are made from the events, renewed by new ones, and the same when rebuilt", async () => {
    const horseId = await addHorse(store, HORSE);
    await addSession(store, {
      id: testId(900_000),
      horseId,
      kind: "touch",
      ladderId: null,
      personId: null,
      placeId: null,
      startRung: null,
    });
    const w = new SessionWriter();
    w.block(0);
    w.add(2, "touch", { zone: "neck", side: "L", tool: "hand", grade: 2 });
    await store.events.append({ recorder: "r", events: w.events, clocks: {} });
    expect((await digestsOfHorse(store, horseId))[0]?.digest.touches).toMatchObject([{ grade: 2 }]);
    const before = w.events.length;
    w.add(5, "touch", { zone: "neck", side: "L", tool: "hand", grade: 3 });
    await store.events.append({ recorder: "r", events: w.events.slice(before), clocks: {} });
    const [fresh] = await digestsOfHorse(store, horseId);
    expect(fresh?.digest.touches.map(({ grade }) => grade)).toEqual([2, 3]);
    await rebuildCaches(store);
    expect(await digestsOfHorse(store, horseId)).toEqual([fresh]);
    expect(await digestsOfHorse(store, horseId, NOW + 1)).toEqual([]);
  });

  it("of the demo yard show something true of every horse", async () => {
    await populateDemo(store, NOW, 5);
    let partial = 0;
    for (const horse of await listHorses(store)) {
      const digests = await digestsOfHorse(store, horse.id);
      const looks = digests.flatMap(({ digest }) => digest.firstLook ?? []);
      expect(looks).toHaveLength(2);
      expect(looks[0]?.stepsDone).toBe(FIRST_LOOK_STEPS.length);
      partial += looks.filter((look) => look.partial).length;
      expect(digests.flatMap(({ digest }) => digest.touches).length).toBeGreaterThan(30);
      expect(digests.some(({ digest }) => digest.samples.some(({ observer }) => observer === "second"))).toBe(true);
      expect(digests.filter(({ digest }) => digest.atRest && digest.breaths.length > 0)).toHaveLength(3);
      expect(digests.filter(({ digest }) => digest.relief.zones.length > 0).length).toBeGreaterThan(10);
    }
    expect(partial).toBe(1);
  });
});

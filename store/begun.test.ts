import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { emptyDraft } from "@/tests/support/plan";
import { testId } from "@/tests/support/session-writer";
import { putInBin } from "./bin";
import { addHorse } from "./horses";
import { addLadder } from "./ladders";
import { addKit, addPerson, listPeople } from "./people";
import { addPlace, listPlaces } from "./places";
import { addSession, getSession, type NewSession } from "./sessions";
import { closeStore, type Store } from "./store";

let folder: string;
let store: Store;
let horse: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "begun-"));
  store = await newStore(join(folder, "own.sqlite"));
  horse = await addHorse(store, PLAIN_HORSE);
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

const session = (change: Partial<NewSession> = {}): NewSession => ({
  id: testId(900_000),
  horseId: horse,
  ladderId: null,
  personId: null,
  placeId: null,
  startRung: null,
  ...change,
});
const NAMED = { person: "Nell", place: "Far pen", make: true };

describe("a session with names in place of ids", () => {
  it("makes who and where with it, once, however often it is asked for", async () => {
    for (let i = 0; i < 3; i++) await addSession(store, session(), { named: NAMED });
    await addSession(store, session({ id: testId(900_001) }), { named: { ...NAMED, person: " nell".trim() } });
    const [people, places] = [await listPeople(store), await listPlaces(store)];
    expect([people.map(({ name }) => name), places.map(({ name }) => name)]).toEqual([["Nell"], ["Far pen"]]);
    expect(await getSession(store, testId(900_001))).toMatchObject({ person_id: people[0]?.id, place_id: places[0]?.id });
  });

  it("that is refused makes nobody", async () => {
    await addSession(store, session());
    await expect(addSession(store, session({ horseId: "none" }), { named: NAMED })).rejects.toThrow();
    await expect(addSession(store, session({ placeId: "gone" }), { named: { ...NAMED, person: "Other" } })).rejects.toThrow();
    expect(await listPeople(store)).toEqual([]);
    expect(await listPlaces(store)).toEqual([]);
  });

  it("makes nobody where that is not allowed, and finds who is there", async () => {
    const id = await addPerson(store, { name: "Nell", role: "handler" });
    await addSession(store, session(), { named: { ...NAMED, make: false } });
    expect(await getSession(store, testId(900_000))).toMatchObject({ person_id: id, place_id: null });
    expect(await listPlaces(store)).toEqual([]);
  });
});

describe("a session that was worked on a device with no server", () => {
  it("is taken without what it names that is gone meanwhile", async () => {
    const draft = emptyDraft();
    const ladder = await addLadder(store, horse, { ...draft.behaviour, name: "plate" }, draft.plan);
    const person = await addPerson(store, { name: "Ana", role: "handler" });
    const place = await addPlace(store, { name: "pen", shape: "round", length_m: 18, width_m: null, footing: "", fence: "", items: [] });
    const kit = await addKit(store, { name: "line", kind: "line", length_m: null, mass_g: null, buckles_equal: null, note: "" });
    const begun = session({ ladderId: ladder, personId: person, placeId: place, startRung: 1, kitIds: [kit, "never there"] });
    for (const [kind, id] of [
      ["person", person],
      ["place", place],
      ["ladder", ladder],
    ] as const)
      await putInBin(store, kind, id);
    await expect(addSession(store, begun)).rejects.toThrow();
    await addSession(store, begun, { worked: true });
    expect(await getSession(store, begun.id)).toMatchObject({
      person_id: null,
      place_id: null,
      ladder_id: null,
      start_rung: null,
      kit: JSON.stringify([kit]),
    });
  });

  it("is there once, whatever was put right in it or done with it since", async () => {
    await addSession(store, session(), { worked: true });
    const person = await addPerson(store, { name: "Ana", role: "handler" });
    await store.models.session.update({ person_id: person }, { where: { id: testId(900_000) } });
    await addSession(store, session(), { worked: true });
    expect((await getSession(store, testId(900_000))).person_id).toBe(person);
    await putInBin(store, "session", testId(900_000));
    await addSession(store, session(), { worked: true });
    expect(await store.models.session.unscoped().count()).toBe(1);
  });

  it("of a horse that is gone is refused, and said", async () => {
    await expect(addSession(store, session({ horseId: "none" }), { worked: true })).rejects.toThrow(/no such horse/i);
  });
});

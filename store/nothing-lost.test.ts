import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { HorseInput } from "@/core/schemas";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE as HORSE } from "@/tests/support/plain-horse";
import { emptyDraft } from "@/tests/support/plan";
import { randomSession } from "@/tests/support/random-session";
import { CacheKeeper } from "./caches";
import { withRaw } from "./file";
import {
  addHorse,
  addKit,
  addLadder,
  addPlace,
  addRestriction,
  addSession,
  closeStore,
  digestsOfHorse,
  evidenceOfLadder,
  getHorse,
  getLadder,
  hasSampleData,
  listSessions,
  putInBin,
  rungEvidence,
  type Store,
  setResting,
  updateHorse,
  updateLadder,
} from "./index";

let folder: string;
let store: Store;
const NOW = Date.UTC(2026, 5, 20);
const DRAFT = { ...emptyDraft(), behaviour: { ...emptyDraft().behaviour, name: "plate" } };

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-lost-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

async function worked(seed: number) {
  const horseId = await addHorse(store, HORSE);
  const ladderId = await addLadder(store, horseId, DRAFT.behaviour, DRAFT.plan);
  const random = randomSession(seed);
  await addSession(store, { id: random.id, horseId, ladderId, personId: null, placeId: null, startRung: 1 });
  const events = random.events.map((event) =>
    event.type === "block.start" ? { ...event, payload: { ...event.payload, ladder: ladderId } } : event,
  );
  return { horseId, ladderId, id: random.id, events };
}
const summaries = () => withRaw(store.file, "read", (database) => database.all("SELECT * FROM session_summary"));

describe("what a page asks for", () => {
  it("is the same whether the sums are kept or lag behind, and asking writes nothing", async () => {
    const { horseId, ladderId, events } = await worked(31);
    await store.events.append({ recorder: "r", events, clocks: {} });
    const asked = async () => ({
      sessions: await listSessions(store, horseId, { limit: 200 }),
      evidence: await evidenceOfLadder(store, await getLadder(store, ladderId)),
      rungs: await rungEvidence(store, await getLadder(store, ladderId), 1),
      digests: await digestsOfHorse(store, horseId),
    });
    const lagging = await asked();
    expect(await summaries()).toEqual([]);
    expect(lagging.evidence.length).toBeGreaterThan(5);
    expect(lagging.rungs.length).toBeGreaterThan(0);
    const keeper = new CacheKeeper(store, 0);
    await keeper.catchUp();
    await vi.waitFor(async () => expect(await summaries()).toHaveLength(1));
    await keeper.stop();
    expect(await asked()).toEqual(lagging);
  });

  it("is answered on a store that cannot be written", async () => {
    const { horseId, events } = await worked(32);
    await store.events.append({ recorder: "r", events, clocks: {} });
    await withRaw(store.file, "write", async (other) => {
      await other.exec("BEGIN IMMEDIATE");
      expect((await listSessions(store, horseId, { limit: 200 }))[0]?.summary.n).toBeGreaterThan(0);
      await other.exec("ROLLBACK");
    });
  });
});

describe("the sums", () => {
  it("are kept after the taps, in the one writer, and a failure costs nothing but the sum", async () => {
    const { horseId, events } = await worked(33);
    const keeper = new CacheKeeper(store, 0);
    store.events.onSaved(() => keeper.lag());
    const said = vi.spyOn(console, "error").mockReturnValue(undefined);
    await withRaw(store.file, "write", (database) =>
      database.exec("CREATE TRIGGER no_sum BEFORE INSERT ON session_summary BEGIN SELECT RAISE(ABORT, 'no sums today'); END"),
    );
    await store.events.append({ recorder: "r", events: events.slice(0, 20), clocks: {} });
    await vi.waitFor(() => expect(said).toHaveBeenCalled());
    expect(await store.events.append({ recorder: "r", events, clocks: {} })).toMatchObject({ saved: events.length - 20 });
    expect((await listSessions(store, horseId, { limit: 200 }))[0]?.summary.n).toBeGreaterThan(0);
    await keeper.stop();
    said.mockRestore();
  });
});

describe("what a form adds beside its fields", () => {
  const more = { id: "another", sample: true, created_ms: 1, horse_id: "another" };
  it("reaches no column, wherever it comes from", async () => {
    const id = await addHorse(store, { ...HORSE, ...more } as HorseInput);
    await setResting(store, id, { resting_breaths_per_min: 12, resting_heart_per_min: 40, ...more, name: "" } as never);
    await updateHorse(store, id, { ...HORSE, name: "Bo", ...more } as HorseInput);
    expect(await getHorse(store, id)).toMatchObject({ name: "Bo", sample: false, created_ms: NOW });
    await addKit(store, { name: "line", kind: "line", length_m: 3, mass_g: null, buckles_equal: null, note: "", ...more } as never);
    const restriction = { kind: "other", amount: null, detail: "", reason: "x", given_by: "", from_day: null, until_day: null, ...more };
    await addRestriction(store, id, restriction as never);
    expect(await store.models.restriction.count({ where: { horse_id: id } })).toBe(1);
    expect(await hasSampleData(store)).toBe(false);
    expect(await store.models.kit.count({ where: { sample: true } })).toBe(0);
  });
});

describe("a session", () => {
  const session = (horseId: string, ladderId: string, more: object = {}) =>
    addSession(store, {
      id: "11111111-1111-4111-8111-111111111111",
      horseId,
      ladderId,
      personId: null,
      placeId: null,
      startRung: 1,
      ...more,
    });

  it("asked for twice is one; under the same id with anything else it is a conflict", async () => {
    const { horseId, ladderId } = await worked(34);
    await session(horseId, ladderId);
    await session(horseId, ladderId);
    expect(await store.models.session.count()).toBe(2);
    await expect(session(horseId, ladderId, { startRung: 2 })).rejects.toMatchObject({ code: "conflict" });
    await expect(session(horseId, ladderId, { kind: "touch", ladderId: null })).rejects.toMatchObject({ code: "conflict" });
  });

  it("on a rung past the ladder, in a place or with kit that has been removed, is refused and not half made", async () => {
    const { horseId, ladderId } = await worked(35);
    const place = await addPlace(store, { name: "pen", shape: "round", length_m: 18, width_m: 18, footing: "", fence: "", items: [] });
    await putInBin(store, "place", place);
    await expect(session(horseId, ladderId, { startRung: 3 })).rejects.toThrow("This ladder has no rung 3; its last is 2.");
    await expect(session(horseId, ladderId, { placeId: place })).rejects.toThrow("This place has been removed.");
    await expect(session(horseId, ladderId, { kitIds: ["gone"] })).rejects.toThrow("Some of this kit has been removed.");
    await expect(session(horseId, ladderId, { personId: "gone" })).rejects.toMatchObject({ code: "gone" });
    expect(await store.models.session.count()).toBe(1);
  });
});

describe("a ladder", () => {
  it("changed since an edit began is a conflict that brings what is there; nothing of the edit is saved", async () => {
    const { ladderId } = await worked(36);
    expect((await getLadder(store, ladderId)).revision).toBe(1);
    await updateLadder(store, ladderId, { ...DRAFT.behaviour, name: "first" }, DRAFT.plan, { revision: 1 });
    const lost = updateLadder(store, ladderId, { ...DRAFT.behaviour, name: "second" }, DRAFT.plan, { revision: 1 });
    await expect(lost).rejects.toMatchObject({ code: "ladder-conflict", present: { revision: 2, behaviour: { name: "first" } } });
    expect((await getLadder(store, ladderId)).behaviour.name).toBe("first");
    await updateLadder(store, ladderId, { ...DRAFT.behaviour, name: "second" }, DRAFT.plan, { revision: 2 });
    expect(await getLadder(store, ladderId)).toMatchObject({ revision: 3, behaviour: { name: "second" } });
  });

  it("is read, checked and written in one go: what a check refuses leaves nothing, and no other save comes between", async () => {
    const { ladderId } = await worked(37);
    const seen: string[] = [];
    const save = (name: string) =>
      updateLadder(store, ladderId, { ...DRAFT.behaviour, name }, DRAFT.plan, {
        check: async () => {
          seen.push((await getLadder(store, ladderId)).behaviour.name);
          if (name === "refused") throw new Error("no");
        },
      });
    const outcomes = await Promise.allSettled([save("a"), save("refused"), save("b")]);
    expect(outcomes.map(({ status }) => status)).toEqual(["fulfilled", "rejected", "fulfilled"]);
    expect(seen).toEqual(["plate", "a", "a"]);
  });
});

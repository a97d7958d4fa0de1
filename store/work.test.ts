import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { EMPTY_BEHAVIOUR, type HorseInput } from "@/core/schemas";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { newStore } from "@/tests/support/new-store";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import {
  addHorse,
  addLadder,
  addSession,
  closeStore,
  evidenceOfLadder,
  getLadder,
  getSettings,
  rungEvidence,
  type Store,
  setSettings,
  updateLadder,
  writeMeta,
} from "./index";

let folder: string;
let store: Store;
const NOW = Date.UTC(2026, 4, 10);
const HORSE: HorseInput = {
  name: "Tarn",
  born_day: null,
  birth_year: 2015,
  sex: null,
  kind: "",
  height_cm: 150,
  mass_kg: 430,
  history: "",
  triggers: "",
  preferred_reinforcers: "",
  resting_breaths_per_min: null,
  resting_heart_per_min: null,
};

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-work-"));
  store = await newStore(join(folder, "test.sqlite"), () => NOW);
});

afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

/** A session that begins on one ladder and goes over to another one in the middle. */
async function jumped() {
  const horse = await addHorse(store, HORSE);
  const behaviour = (name: string) => ({ ...EMPTY_BEHAVIOUR, name });
  const one = await addLadder(store, horse, behaviour("one"), emptyDraft().plan);
  const two = await addLadder(store, horse, behaviour("two"), emptyDraft().plan);
  const id = testId(77);
  await addSession(store, { id, horseId: horse, ladderId: one, personId: null, placeId: null, startRung: 1 });
  const w = new SessionWriter(id);
  w.block(0, { ladder: one });
  w.add(5, "trial", { outcome: "met" });
  w.block(10, { block: 2, ladder: two });
  for (const at of [12, 14, 16]) w.add(at, "trial", { outcome: "met" });
  w.add(20, "session.end");
  await store.events.append({ recorder: "phone:a", events: w.events, clocks: {} });
  return { one, two, behaviour };
}

describe("going over to another ladder in a session", () => {
  it("gives each ladder its own evidence", async () => {
    const { one, two } = await jumped();
    expect(
      [await evidenceOfLadder(store, await getLadder(store, one)), await evidenceOfLadder(store, await getLadder(store, two))].map(
        (list) => list.length,
      ),
    ).toEqual([1, 3]);
    expect([
      await rungEvidence(store, await getLadder(store, one), 1),
      await rungEvidence(store, await getLadder(store, two), 1),
    ]).toMatchObject([[{ rung: 1, n: 1 }], [{ rung: 1, n: 3 }]]);
  });

  it("makes a new version of whichever was worked, and keeps what was worked where it was", async () => {
    const { two, behaviour } = await jumped();
    const { plan } = await getLadder(store, two);
    const longer = { ...plan, rungs: [...plan.rungs, { values: plan.rungs[1]?.values ?? {} }] };
    expect(await updateLadder(store, two, behaviour("two"), longer)).toBe(2);
    expect((await getLadder(store, two, 1)).plan.rungs).toHaveLength(plan.rungs.length);
    expect((await evidenceOfLadder(store, await getLadder(store, two))).every(({ version }) => version === 2)).toBe(true);
  });

  it("makes a new version where taps may still be on their way, and only where something changed", async () => {
    const horse = await addHorse(store, HORSE);
    const ladder = await addLadder(store, horse, { ...EMPTY_BEHAVIOUR, name: "fresh" }, emptyDraft().plan);
    const { plan } = await getLadder(store, ladder);
    const changed = { ...plan, plannedRepetitions: plan.plannedRepetitions + 1 };
    expect(await updateLadder(store, ladder, { ...EMPTY_BEHAVIOUR, name: "fresh" }, plan, { newVersion: true })).toBe(1);
    expect(await updateLadder(store, ladder, { ...EMPTY_BEHAVIOUR, name: "fresh" }, changed)).toBe(1);
    expect(await updateLadder(store, ladder, { ...EMPTY_BEHAVIOUR, name: "fresh" }, plan, { newVersion: true })).toBe(2);
  });
});

describe("the thresholds of the word", () => {
  it("are the defaults until they are set, and kept for the yard", async () => {
    expect(await getSettings(store)).toEqual(DEFAULT_SETTINGS);
    await setSettings(store, { ...DEFAULT_SETTINGS, easeRun: 4, weakerSideTimes: 2 });
    expect(await getSettings(store)).toEqual({ ...DEFAULT_SETTINGS, easeRun: 4, weakerSideTimes: 2 });
  });
  it("fall back where what is kept cannot be read", async () => {
    await writeMeta(store, "word-settings", "{half");
    expect(await getSettings(store)).toEqual(DEFAULT_SETTINGS);
  });
});

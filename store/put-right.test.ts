import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { LadderPlan } from "@/core/ladder";
import { movedFrom } from "@/core/record";
import { EMPTY_BEHAVIOUR, type HorseInput } from "@/core/schemas";
import { newStore } from "@/tests/support/new-store";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import {
  addHorse,
  addLadder,
  addSession,
  closeStore,
  getLadder,
  listLadders,
  loadSession,
  putSessionRight,
  type Store,
  updateLadder,
} from ".";

const named = (name: string): HorseInput => ({
  name,
  born_day: null,
  birth_year: 2018,
  sex: "mare",
  kind: "",
  height_cm: null,
  mass_kg: null,
  history: "",
  triggers: "",
  preferred_reinforcers: "",
  resting_breaths_per_min: null,
  resting_heart_per_min: null,
});

const SESSION = testId(78);
let folder: string;
let store: Store;
let wrong: string;
let right: string;
let ladder: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-put-right-"));
  store = await newStore(join(folder, "store.sqlite"), () => Date.UTC(2026, 4, 10));
  wrong = await addHorse(store, named("Wrong"));
  right = await addHorse(store, named("Right"));
  ladder = await addLadder(store, wrong, { ...EMPTY_BEHAVIOUR, name: "Stands", involves: ["tying"] }, emptyDraft().plan);
  await addSession(store, {
    id: SESSION,
    horseId: wrong,
    ladderId: ladder,
    personId: null,
    placeId: null,
    startRung: 1,
    kitIds: [],
  });
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true });
});

/** Two blocks on rung 1 and 2 of a version. */
async function worked(version = 1) {
  const w = new SessionWriter(SESSION);
  w.add(0, "session.start", { horse: "Wrong", method: "combined" });
  for (const rung of [1, 2]) {
    w.block(rung * 10, { block: rung, ladder, version, rung });
    w.add(rung * 10 + 5, "trial", { outcome: "met" });
  }
  w.add(40, "session.end");
  await store.events.append({ recorder: "phone:a", events: w.events, clocks: {} });
}
const move = (more: object) => putSessionRight(store, SESSION, { horse: right, reason: "opened for the wrong one", ...more });

describe("a session that is put to another horse", () => {
  it("says where it came from, and not after it went back", async () => {
    await worked();
    expect(movedFrom((await loadSession(store, SESSION)).events)).toBeNull();
    await move({ ladder: null });
    expect(movedFrom((await loadSession(store, SESSION)).events)).toMatchObject({ from: "Wrong", reason: "opened for the wrong one" });
    await putSessionRight(store, SESSION, { horse: wrong, ladder, reason: "no, it was right" });
    expect(movedFrom((await loadSession(store, SESSION)).events)).toMatchObject({ from: "Right", reason: "no, it was right" });
  });
  it("takes the same ladder along: all of it, with what was worked on it", async () => {
    await worked();
    await move({ take_along: true });
    const [copy, ...others] = await listLadders(store, right);
    expect(others).toEqual([]);
    expect(copy?.plan).toEqual((await getLadder(store, ladder)).plan);
    expect(copy?.behaviour).toMatchObject({ name: "Stands", involves: '["tying"]' });
    const { session, record } = await loadSession(store, SESSION);
    expect(session).toMatchObject({ horse_id: right, ladder_id: copy?.id });
    expect(record.blocks.map((block) => [block.ladder, block.version, block.rung])).toEqual([
      [copy?.id, 1, "1"],
      [copy?.id, 1, "2"],
    ]);
    // A press that came twice makes no second ladder.
    await move({ take_along: true });
    expect(await listLadders(store, right)).toHaveLength(1);
  });
  it("takes a rung of an earlier version along under its present number, and one that was changed for none", async () => {
    await worked(1);
    const { plan, behaviour } = await getLadder(store, ladder);
    const [first, second] = plan.rungs;
    if (first === undefined || second === undefined) throw new Error("two rungs are needed");
    const more: LadderPlan = {
      ...plan,
      rungs: [{ values: { ...first.values, latency: 9 } }, first, { ...second, leastMovement: 3 }],
    };
    await updateLadder(store, ladder, { ...EMPTY_BEHAVIOUR, name: behaviour.name }, more, { newVersion: true });
    await move({ take_along: true });
    const { record } = await loadSession(store, SESSION);
    expect(record.blocks.map((block) => [block.ladder === null, block.rung])).toEqual([
      [false, "2"],
      [true, "2"],
    ]);
  });
  it("refuses where that horse has a ladder of the name, and moves nothing", async () => {
    await worked();
    await addLadder(store, right, { ...EMPTY_BEHAVIOUR, name: "stands" }, emptyDraft().plan);
    await expect(move({ take_along: true })).rejects.toThrow("There is a ladder “Stands” there already. Choose it, or none.");
    const { session, record } = await loadSession(store, SESSION);
    expect(session.horse_id).toBe(wrong);
    expect(record.blocks.map((block) => block.ladder)).toEqual([ladder, ladder]);
    expect(await listLadders(store, right)).toHaveLength(1);
  });
});

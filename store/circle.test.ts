import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { type CircleSetup, NO_FIT, USUAL_SETUP, USUAL_SOUNDS } from "@/core/circle";
import { planToLog } from "@/core/events/circle-log";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { PLAN } from "@/tests/support/circle-plan";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import {
  addHandLoad,
  addHorse,
  addKit,
  addLadder,
  addSession,
  circleSetup,
  closeStore,
  coolingHorses,
  evidenceOfLadders,
  handLoad,
  kitFits,
  listLadders,
  listSessions,
  pastOfHorse,
  rebuildCaches,
  removeHandLoad,
  type Store,
  saveCircleSetup,
  saveKitFit,
} from "./index";

const TODAY = "2026-05-04";
const START = Date.UTC(2026, 4, 4, 9, 0, 0);
/** The plan as it is logged and sent. */
const LOGGED = planToLog(PLAN);
let folder: string;
let store: Store;
let horse: string;
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-"));
  store = await newStore(join(folder, "yard.sqlite"), () => START + 600_000);
  horse = await addHorse(store, PLAIN_HORSE);
});

const input = ({ changed: _changed, ...setup }: CircleSetup) => setup;

/** A session on the circle with its taps in the store. */
async function worked(id: string, write: (w: SessionWriter) => void): Promise<void> {
  await addSession(
    store,
    {
      id,
      horseId: horse,
      kind: "circle",
      ladderId: null,
      personId: null,
      placeId: null,
      startRung: null,
      circle: { plan: LOGGED, overrides: [] },
    },
    { createdMs: START },
  );
  const w = new SessionWriter(id, START);
  w.block(0, { ladder: undefined, side: "" });
  w.add(0, "circle.start", { plan: LOGGED, overrides: [] });
  write(w);
  await store.events.append({ recorder: "phone:a", events: w.events, clocks: {} });
}

describe("how a horse works on the circle", () => {
  it("is the usual way until somebody says otherwise, and is kept as it was said", async () => {
    expect(await circleSetup(store, horse)).toEqual(USUAL_SETUP);
    const ramp = {
      start: { walk: 8, trot: 2, canter: 0, obstacles: false },
      goal: { walk: 6, trot: 8, canter: 0, obstacles: true },
      sessionsAWeek: 3,
      radiusMetres: 10,
      since: TODAY,
    };
    await saveCircleSetup(store, horse, { ...input(USUAL_SETUP), ways: "turn", stiffer: "R", ramp, plan: PLAN }, TODAY);
    expect(await circleSetup(store, horse)).toEqual({ ...USUAL_SETUP, ways: "turn", stiffer: "R", ramp, plan: PLAN, changed: [] });
    await expect(saveCircleSetup(store, "nobody", input(USUAL_SETUP), TODAY)).rejects.toMatchObject({ code: "not-found" });
  });
  it("calls a changed sound new only to a horse that has heard the old one, and no longer once it is changed back", async () => {
    const other = { ...input(USUAL_SETUP), sounds: { ...USUAL_SOUNDS, trot: "two even" as const } };
    expect((await saveCircleSetup(store, horse, other, TODAY)).changed).toEqual([]);
    await saveCircleSetup(store, horse, input(USUAL_SETUP), TODAY);
    await worked(testId(1), () => undefined);
    expect((await saveCircleSetup(store, horse, other, TODAY)).changed).toEqual([{ call: "trot", before: "two rising", since: TODAY }]);
    expect((await saveCircleSetup(store, horse, other, "2026-05-20")).changed).toEqual([
      { call: "trot", before: "two rising", since: TODAY },
    ]);
    expect((await saveCircleSetup(store, horse, input(USUAL_SETUP), "2026-05-21")).changed).toEqual([]);
  });
});

describe("a session on the circle among those over weeks", () => {
  it("is one where it was begun on a ladder, and none where its plan was all there was", async () => {
    const ladder = await addLadder(store, horse, { ...EMPTY_BEHAVIOUR, name: "walk to trot" }, emptyDraft().plan);
    const circled = { horseId: horse, kind: "circle", personId: null, placeId: null, circle: { plan: LOGGED, overrides: [] } } as const;
    await worked(testId(1), (w) => w.add(60, "session.end"));
    await addSession(store, { ...circled, id: testId(2), ladderId: ladder, startRung: 1 }, { createdMs: START });
    const w = new SessionWriter(testId(2), START);
    w.block(0, { ladder });
    w.add(5, "trial", { outcome: "met", phase: 1 });
    await store.events.append({ recorder: "phone:a", events: w.events, clocks: {} });
    const seen = async () =>
      (await pastOfHorse(store, horse, { fromMs: START - 1, toMs: START + 1, ladders: await listLadders(store, horse) })).sessions.map(
        ({ id }) => id,
      );
    expect(await seen()).toEqual([testId(2)]);
    await rebuildCaches(store);
    expect(await seen()).toEqual([testId(2)]);
  });
});

describe("fit cards and work by hand", () => {
  it("are kept by horse and kit, changed in place, and go with the kit", async () => {
    const kit = await addKit(store, {
      name: "A roller",
      kind: "roller or harness",
      length_m: null,
      mass_g: null,
      buckles_equal: null,
      note: "",
    });
    await saveKitFit(store, horse, kit, { ...NO_FIT, holesLeft: 4, holesRight: 4 });
    await saveKitFit(store, horse, kit, { ...NO_FIT, holesLeft: 5, holesRight: 5, nextCheck: "2026-06-01" });
    expect([...(await kitFits(store, horse))]).toEqual([[kit, { ...NO_FIT, holesLeft: 5, holesRight: 5, nextCheck: "2026-06-01" }]]);
    await expect(saveKitFit(store, horse, "no kit", NO_FIT)).rejects.toMatchObject({ code: "not-found" });
  });
  it("are listed by day since one, and taken out", async () => {
    const ridden = await addHandLoad(store, horse, { day: "2026-05-02", kind: "ridden", minutes: 45, note: "hacked out" });
    await addHandLoad(store, horse, { day: "2026-04-02", kind: "driven", minutes: 30, note: "" });
    expect(await handLoad(store, horse, "2026-05-01")).toMatchObject([{ id: ridden, kind: "ridden", minutes: 45 }]);
    await removeHandLoad(store, horse, ridden);
    expect(await handLoad(store, horse, "2026-05-01")).toEqual([]);
    await expect(removeHandLoad(store, horse, ridden)).rejects.toMatchObject({ code: "not-found" });
  });
});

describe("what is kept of a session on the circle", () => {
  it("is the same before the caches have it, after, and made anew; its plan is its own", async () => {
    await worked(testId(2), (w) => {
      w.add(30, "signal", { name: "falls in", class: "count" });
      w.add(200, "session.end");
      w.add(201, "cool", { did: "starts" });
    });
    const shown = async () =>
      (await listSessions(store, horse, { limit: 5 })).map(({ session, summary }) => [session.circle, summary.circle]);
    const before = await shown();
    expect([...(await coolingHorses(store, START - 1000))]).toEqual([horse]);
    expect(JSON.parse(before[0]?.[0] ?? "null")).toEqual({ plan: LOGGED, overrides: [] });
    // 120 s of walk and 60 of trot to the left, then 20 of walk to the right.
    expect(JSON.parse(before[0]?.[1] ?? "null")).toMatchObject({
      seconds: { "walk L": 120, "trot L": 60, "walk R": 20 },
      faults: { "falls in L": 1 },
    });
    await rebuildCaches(store);
    expect(await shown()).toEqual(before);
    expect([...(await coolingHorses(store, START - 1000))]).toEqual([horse]);
    expect([...(await coolingHorses(store, START + 1000))]).toEqual([]);
  });
  it("holds evidence of the ladder its transitions are asks of, before the caches have it and after", async () => {
    const ladder = await addLadder(store, horse, { ...EMPTY_BEHAVIOUR, name: "walk at the end" }, emptyDraft().plan);
    await worked(testId(3), (w) => {
      w.block(1, { block: 2, ladder });
      w.add(12, "trial", { outcome: "met", phase: 1, latency_s: 2, logged: "timed", reinforced: 1 });
      w.add(200, "session.end");
    });
    const shown = async () => {
      const ladders = await listLadders(store, horse);
      return (await evidenceOfLadders(store, ladders)).get(ladder)?.map(({ session, outcome, side }) => [session, outcome, side]);
    };
    const before = await shown();
    expect(before).toEqual([[testId(3), "met", "L"]]);
    await rebuildCaches(store);
    expect(await shown()).toEqual(before);
  });
});

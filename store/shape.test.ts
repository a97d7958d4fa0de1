import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { copyRung, deleteRung, type LadderPlan, moveRung, setValue } from "@/core/ladder";
import type { HorseInput } from "@/core/schemas";
import { strandFromCatalogue } from "@/core/strands";
import { newStore } from "@/tests/support/new-store";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { connect } from "./connect";
import {
  addChain,
  addHorse,
  addLadder,
  addSession,
  asBehaviour,
  brokenLadder,
  closeStore,
  evidenceOfLadder,
  getLadder,
  listChains,
  listLadders,
  listVersions,
  MIGRATIONS,
  migrate,
  NotFoundError,
  openStore,
  putInBin,
  removeSampleData,
  rungEvidence,
  type Store,
  unreadPlan,
  updateChain,
  updateLadder,
} from "./index";

let folder: string;
let store: Store;
const NOW = Date.UTC(2026, 5, 20);
const HORSE = { name: "Tarn", kind: "", history: "" } as HorseInput;
const plan: LadderPlan = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("stay", "stay")],
  rungs: [1, 2, 4, 8].map((stay) => ({ values: { stay } })),
};
const behaviour = { ...emptyDraft().behaviour, name: "stands" };
const rope = ({ strands, rungs }: LadderPlan) => ({ strands, rungs });
let sessions = 0;

/** A session of met answers on one rung of a version. */
async function worked(horseId: string, ladderId: string, version: number, rung: number, met: number): Promise<void> {
  const id = testId(800_000 + sessions++);
  await addSession(store, { id, horseId, ladderId, personId: null, placeId: null, startRung: rung });
  const writer = new SessionWriter(id, NOW - 86_400_000 + sessions * 60_000);
  writer.add(0, "session.start", {});
  writer.block(1, { ladder: ladderId, version, rung });
  for (let n = 0; n < met; n++) writer.add(5 + n * 4, "trial", { outcome: "met", phase: 1, logged: "tally" });
  writer.add(100, "session.end");
  await store.events.append({ recorder: "phone:a", events: writer.events, clocks: {} });
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-shape-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

describe("versions of a ladder", () => {
  it("keep their evidence; the present one is lent that of the rungs that ask the same", async () => {
    const horse = await addHorse(store, HORSE);
    const id = await addLadder(store, horse, behaviour, plan);
    await worked(horse, id, 1, 2, 3);
    await worked(horse, id, 1, 3, 5);
    // A rung goes in before rung 2, and rung 3 asks something else.
    const split = setValue(copyRung(rope(plan), 1), 4, "stay", 3);
    expect(await updateLadder(store, id, behaviour, { ...plan, ...split })).toBe(2);
    expect((await listVersions(store, id)).map(({ version, plan: { rungs } }) => [version, rungs.length])).toEqual([
      [1, 4],
      [2, 5],
    ]);
    expect((await rungEvidence(store, await getLadder(store, id), 1)).map(({ rung, n }) => [rung, n])).toEqual([
      [2, 3],
      [3, 5],
    ]);
    expect((await rungEvidence(store, await getLadder(store, id), 2)).map(({ rung, n }) => [rung, n])).toEqual([[3, 3]]);
    expect(
      (await evidenceOfLadder(store, await getLadder(store, id))).filter(({ version }) => version === 2).map(({ rung }) => rung),
    ).toEqual([3, 3, 3]);
    await worked(horse, id, 2, 3, 2);
    expect((await rungEvidence(store, await getLadder(store, id), 2)).map(({ n }) => n)).toEqual([5]);
    expect((await rungEvidence(store, await getLadder(store, id), 1)).map(({ n }) => n)).toEqual([3, 5]);
  });

  it("leave a plan that asks nothing else as it is, and a version that was never worked is changed in place", async () => {
    const horse = await addHorse(store, HORSE);
    const id = await addLadder(store, horse, behaviour, plan);
    await worked(horse, id, 1, 1, 1);
    expect(await updateLadder(store, id, behaviour, plan)).toBe(1);
    expect(await updateLadder(store, id, behaviour, { ...plan, plannedRepetitions: 4 })).toBe(2);
    expect(await updateLadder(store, id, behaviour, { ...plan, plannedRepetitions: 5 })).toBe(2);
    expect((await getLadder(store, id)).plan.plannedRepetitions).toBe(5);
  });
});

describe("chains", () => {
  it("are added, changed, listed in order and removed; their ladders stay", async () => {
    const horse = await addHorse(store, HORSE);
    const first = await addLadder(store, horse, behaviour, plan);
    const second = await addLadder(store, horse, { ...behaviour, name: "comes" }, plan);
    const links = [
      { ladder: first, rung: 4 },
      { ladder: second, rung: 1 },
    ];
    const id = await addChain(store, horse, { name: "both", direction: "forward", links });
    expect(await listChains(store, horse)).toEqual([{ id, horseId: horse, name: "both", direction: "forward", links }]);
    await updateChain(store, id, { name: "turned", direction: "backward", links: [...links].reverse() });
    expect((await listChains(store, horse))[0]).toMatchObject({ name: "turned", direction: "backward", links: [...links].reverse() });
    await putInBin(store, "chain", id);
    expect(await listChains(store, horse)).toEqual([]);
    expect((await getLadder(store, first)).version).toBe(1);
  });

  it("refuse another horse's ladder, a rung that is not there and a chain that is none, and change nothing", async () => {
    const horse = await addHorse(store, HORSE);
    const other = await addHorse(store, { ...HORSE, name: "Other" });
    const own = await addLadder(store, horse, behaviour, plan);
    const foreign = await addLadder(store, other, behaviour, plan);
    const chain = (ladder: string, rung: number) => ({
      name: "c",
      direction: "forward" as const,
      links: [
        { ladder: own, rung: 1 },
        { ladder, rung },
      ],
    });
    await expect(addChain(store, horse, chain(foreign, 1))).rejects.toThrow("belongs to another horse");
    await expect(addChain(store, horse, chain(own, 9))).rejects.toThrow("has no rung 9");
    await expect(addChain(store, "nobody", chain(own, 1))).rejects.toThrow(NotFoundError);
    await expect(updateChain(store, "none", chain(own, 1))).rejects.toThrow(NotFoundError);
    await expect(putInBin(store, "chain", "none")).rejects.toThrow(NotFoundError);
    const id = await addChain(store, horse, chain(own, 2));
    await expect(updateChain(store, id, chain(own, 9))).rejects.toThrow(NotFoundError);
    expect((await listChains(store, horse))[0]?.links.map(({ rung }) => rung)).toEqual([1, 2]);
  });

  it("stay on what a link asked for when its ladder changes", async () => {
    const horse = await addHorse(store, HORSE);
    const id = await addLadder(store, horse, behaviour, plan);
    await addChain(store, horse, {
      name: "c",
      direction: "forward",
      links: [
        { ladder: id, rung: 2 },
        { ladder: id, rung: 4 },
      ],
    });
    const rungsNow = async () => (await listChains(store, horse))[0]?.links.map(({ rung }) => rung);
    const moved = moveRung(rope(plan), 2, 1);
    await updateLadder(store, id, behaviour, { ...plan, ...moved });
    expect(await rungsNow()).toEqual([1, 4]);
    await updateLadder(store, id, behaviour, { ...plan, ...deleteRung(deleteRung(moved, 4), 3) });
    expect(await rungsNow()).toEqual([1, 2]);
  });

  it("go with the sample data they belong to", async () => {
    const horse = await addHorse(store, HORSE, { sample: true });
    const id = await addLadder(store, horse, behaviour, plan, { sample: true });
    const links = [1, 2].map((rung) => ({ ladder: id, rung }));
    await addChain(store, horse, { name: "c", direction: "forward", links }, { sample: true });
    await removeSampleData(store);
    expect(await store.models.chain.count()).toBe(0);
    expect(await store.models.chainLink.count()).toBe(0);
  });
});

describe("a ladder that cannot be read", () => {
  const BROKEN = '{"rungs":';
  const breakIt = (id: string) =>
    store.sequelize.query("UPDATE ladder_plan SET document = :text WHERE ladder_id = :id", { replacements: { id, text: BROKEN } });

  it("is mended by its next version; what was there stays, and its links stay on their rungs", async () => {
    const horse = await addHorse(store, HORSE);
    const [id, other] = [await addLadder(store, horse, behaviour, plan), await addLadder(store, horse, behaviour, plan)];
    const chain = await addChain(store, horse, {
      name: "both",
      direction: "forward",
      links: [
        { ladder: id, rung: 2 },
        { ladder: id, rung: 4 },
        { ladder: other, rung: 1 },
      ],
    });
    await breakIt(id);
    await expect(getLadder(store, id)).rejects.toThrow("cannot read its plan");
    const broken = await brokenLadder(store, id);
    expect(broken).toMatchObject({ horseId: horse, plan: null, unread: { text: BROKEN }, lost: { involves: false, prerequisites: false } });
    const shorter = { ...plan, rungs: plan.rungs.slice(0, 3) };
    expect(await updateLadder(store, id, broken.behaviour, shorter, { revision: broken.revision })).toBe(2);
    expect((await getLadder(store, id)).plan).toEqual(shorter);
    expect(await unreadPlan(store, id, 1)).toMatchObject({ text: BROKEN });
    expect((await listChains(store, horse)).find((one) => one.id === chain)?.links.map(({ rung }) => rung)).toEqual([2, 3, 1]);
    await expect(updateLadder(store, id, broken.behaviour, plan, { revision: broken.revision })).rejects.toThrow("another window");
  });

  it("of which nobody knows what it involves is opened with all of it, so that a restriction closes it", async () => {
    const id = await addLadder(store, await addHorse(store, HORSE), behaviour, plan);
    await store.sequelize.query("UPDATE behaviour SET involves = 'null', prerequisites = '{'");
    expect(await listLadders(store, (await brokenLadder(store, id)).horseId)).toEqual([]);
    const broken = await brokenLadder(store, id);
    expect(broken).toMatchObject({ unread: null, lost: { involves: true, prerequisites: true }, plan });
    expect(broken.behaviour.involves).toEqual(["circling", "tying", "loading", "load", "legs"]);
    expect(broken.behaviour.prerequisites).toEqual([]);
  });

  it("involves something that nobody knows here, which may close it: it is offered nowhere until somebody says", async () => {
    const id = await addLadder(store, await addHorse(store, HORSE), behaviour, plan);
    await store.sequelize.query(`UPDATE behaviour SET involves = '["legs", "jumping"]'`);
    const broken = await brokenLadder(store, id);
    expect(await listLadders(store, broken.horseId)).toEqual([]);
    expect(broken.lost.involves).toBe(true);
    expect(broken.behaviour.involves).toHaveLength(5);
  });

  it("is not written: a plan that could not be read back is refused", async () => {
    const horse = await addHorse(store, HORSE);
    await expect(addLadder(store, horse, behaviour, { ...plan, workingStrandId: "gone" })).rejects.toThrow(RangeError);
    expect(await listLadders(store, horse)).toEqual([]);
  });
});

describe("the third migration", () => {
  it("gives an old ladder what it now says, keeps its events, and makes its evidence anew", async () => {
    const file = join(folder, "old.sqlite");
    const old = connect(file).sequelize;
    await migrate(old, MIGRATIONS.slice(0, 2));
    const run = (sql: string) => old.query(sql);
    await run(
      "INSERT INTO horse (id, name, kind, history, triggers, preferred_reinforcers, sample, created_ms) VALUES ('h', 'Bo', '', '', '', '', 0, 5)",
    );
    await run(
      "INSERT INTO behaviour (id, name, finished, cue, why, involves, sample) VALUES ('b', 'plate', '', 'point', '', '[\"circling\"]', 0)",
    );
    await run("INSERT INTO ladder (id, horse_id, behaviour_id, version, sample, created_ms) VALUES ('l', 'h', 'b', 1, 0, 7)");
    await run(
      `INSERT INTO ladder_version (ladder_id, version, method, maximum_s, mastery, schedule, offers, working_strand, planned, created_ms)
       VALUES ('l', 1, 'combined', 20, '{"kind":"run","length":3}', '{"kind":"fixed","ratio":2}', 'ignore', 'stay', 8, 7)`,
    );
    await run(
      "INSERT INTO strand (ladder_id, version, position, strand_id, key, name, kind, unit, levels, harder) VALUES ('l', 1, 0, 'stay', 'stay', 'stay', 'number', 's', '[]', 'more')",
    );
    for (const number of [1, 2])
      await run(`INSERT INTO rung (ladder_id, version, number, rung_values) VALUES ('l', 1, ${number}, '{"stay":${number}}')`);
    await run(
      "INSERT INTO cue_phase (ladder_id, version, number, label, kind, profile, dwell_s, pulses_per_min) VALUES ('l', 1, 1, 'point', 'point', 'steady', 3, NULL)",
    );
    await run(
      "INSERT INTO session (id, horse_id, kind, ladder_id, ladder_version, start_rung, kit, sample, created_ms) VALUES ('s', 'h', 'work', 'l', 1, 1, '[]', 0, 8)",
    );
    const writer = new SessionWriter("s", NOW - 3_600_000);
    writer.block(0, { ladder: "l", criterion: { sentence: "x", working: { strand: "stay", unit: "s", target: 1, harder: "more" } } });
    writer.add(3, "trial", { outcome: "met", value: 4, unit: "s" });
    for (const event of writer.events)
      await old.query(
        `INSERT INTO event (id, session_id, recorder, load, seq, mono_ms, wall_ms, type, payload, received_ms)
         VALUES (:id, 's', 'r', :load, :seq, :mono_ms, :wall_ms, :type, :payload, 1)`,
        { replacements: { ...event, payload: JSON.stringify(event.payload) } },
      );
    await old.close();

    const grown = await openStore(file, () => NOW);
    const ladder = await getLadder(grown, "l");
    expect(ladder.plan).toMatchObject({
      holdOnWrong: true,
      firstTouchCentimetres: null,
      transfer: null,
      feeding: { reinforcer: "food", pieceGrams: null, dayLimitGrams: null, where: "", politeSeconds: 0 },
      ways: {},
      schedule: { kind: "fixed", ratio: 2 },
      rungs: [{ values: { stay: 1 } }, { values: { stay: 2 } }],
    });
    expect(asBehaviour(ladder.behaviour)).toMatchObject({
      movement: "other",
      template: null,
      free: false,
      prerequisites: [],
      involves: ["circling"],
    });
    // Evidence knows its values now, from events that always held them.
    expect(await evidenceOfLadder(grown, await getLadder(grown, "l"))).toMatchObject([{ rung: 1, outcome: "met", value: 4 }]);
    await closeStore(grown);
  });

  it("changes nothing where it cannot be finished", async () => {
    const file = join(folder, "broken.sqlite");
    const old = connect(file).sequelize;
    await migrate(old, MIGRATIONS.slice(0, 2));
    // Something is in the way of its last step.
    await old.query("CREATE TABLE chain_link (x TEXT)");
    await expect(migrate(old, MIGRATIONS)).rejects.toThrow();
    const [columns] = await old.query("SELECT name FROM pragma_table_info('rung')");
    expect(columns).not.toContainEqual({ name: "percentile" });
    await old.query("DROP TABLE chain_link");
    await migrate(old, MIGRATIONS);
    await old.close();
  });
});

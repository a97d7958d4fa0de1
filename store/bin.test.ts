import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { BIN_KINDS, EMPTY_BEHAVIOUR, goesWithWords } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { newStore } from "@/tests/support/new-store";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import {
  addChain,
  addHorse,
  addKit,
  addLadder,
  addPerson,
  addPlace,
  addSession,
  bringBack,
  ConflictError,
  closeStore,
  evidenceOfLadder,
  getLadder,
  goesWith,
  listBin,
  listChains,
  listHorses,
  listKit,
  listLadders,
  listPeople,
  listPlaces,
  listSessions,
  loadSession,
  NotFoundError,
  purgeBin,
  purgeExpired,
  putInBin,
  rungEvidence,
  type Store,
} from "./index";

let folder: string;
let store: Store;
let now = Date.UTC(2026, 4, 10);
const HORSE = {
  name: "Tarn",
  born_day: null,
  birth_year: 2015,
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

beforeEach(async () => {
  now = Date.UTC(2026, 4, 10);
  folder = mkdtempSync(join(tmpdir(), "deft-bin-"));
  store = await newStore(join(folder, "own.sqlite"), () => now);
});

afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

/** A horse with two ladders, a chain of both, and a worked session with handler, place, kit and a note. */
async function yard() {
  const horse = await addHorse(store, HORSE);
  const ladders = await Promise.all(["one", "two"].map((name) => addLadder(store, horse, { ...EMPTY_BEHAVIOUR, name }, emptyDraft().plan)));
  const [ladder = "", other = ""] = ladders;
  const chain = await addChain(store, horse, {
    name: "both",
    direction: "forward",
    links: [
      { ladder, rung: 1 },
      { ladder: other, rung: 1 },
    ],
  });
  const person = await addPerson(store, { name: "Ada", role: "handler" });
  const place = await addPlace(store, { name: "Pen", shape: "round", length_m: 18, width_m: 18, footing: "", fence: "", items: [] });
  const kit = await addKit(store, { name: "Long line", kind: "line", length_m: 7, mass_g: null, buckles_equal: null, note: "" });
  const session = testId(77);
  await addSession(store, { id: session, horseId: horse, ladderId: ladder, personId: person, placeId: place, startRung: 1, kitIds: [kit] });
  const w = new SessionWriter(session);
  w.add(0, "session.start", { horse: "Tarn", handler: "Ada", place: "Pen", method: "combined" });
  w.block(1, { ladder });
  w.add(5, "trial", { outcome: "met" });
  w.add(9, "trial", { outcome: "miss" });
  w.add(20, "session.end");
  const note = w.add(30, "note", { text: "Shorter next time." });
  await store.events.append({ recorder: "phone:a", events: w.events, clocks: {} });
  return { horse, ladder, other, chain, person, place, kit, session, note, w };
}

const rows = async (table: string) =>
  Number((await store.sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`, { type: QueryTypes.SELECT }))[0]?.n);

describe("the bin", () => {
  it("takes each kind of thing out of every list and brings it back whole", async () => {
    const made = await yard();
    const seen = async () => ({
      horses: (await listHorses(store)).length,
      ladders: (await listLadders(store, made.horse)).map(({ plan }) => plan),
      chains: await listChains(store, made.horse),
      people: await listPeople(store),
      places: await listPlaces(store),
      kit: await listKit(store),
      sessions: (await listSessions(store, made.horse, { limit: 200 })).map(({ session, summary }) => [session.id, summary.n, summary.met]),
      evidence: await getLadder(store, made.ladder)
        .then((ladder) => evidenceOfLadder(store, ladder))
        .catch(() => "no ladder"),
      sums: await getLadder(store, made.ladder)
        .then((ladder) => rungEvidence(store, ladder, 1))
        .catch(() => "no ladder"),
    });
    const before = await seen();
    expect(before.sums).toEqual([
      {
        rung: 1,
        n: 2,
        met: 1,
        metAtLightest: 0,
        share: { sessions: 1, met: 1, of: 2, metSquares: 1, ofSquares: 4, products: 2, pairs: 0, metNext: 0, ofNext: 0, productsNext: 0 },
      },
    ]);
    for (const kind of BIN_KINDS) {
      await putInBin(store, kind, made[kind]);
      expect(await seen(), kind).not.toEqual(before);
      expect((await listBin(store)).map((one) => [one.kind, one.id])).toEqual([[kind, made[kind]]]);
      await expect(putInBin(store, kind, made[kind])).rejects.toThrow(NotFoundError);
      await bringBack(store, kind, made[kind]);
      expect(await seen(), kind).toEqual(before);
      expect(await listBin(store)).toEqual([]);
    }
  });

  it("counts the trials of a session in it nowhere, and takes its late taps all the same", async () => {
    const { session, ladder, horse, w } = await yard();
    await evidenceOfLadder(store, await getLadder(store, ladder));
    await putInBin(store, "session", session);
    expect(await evidenceOfLadder(store, await getLadder(store, ladder))).toEqual([]);
    expect(await rungEvidence(store, await getLadder(store, ladder), 1)).toEqual([]);
    await expect(loadSession(store, session)).rejects.toThrow(NotFoundError);
    const late = new SessionWriter(session);
    late.add(12, "trial", { outcome: "met" }, "phone:b", testId(5));
    await store.events.append({ recorder: "phone:b", events: late.events, clocks: {} });
    await bringBack(store, "session", session);
    expect((await loadSession(store, session)).record.trials).toHaveLength(3);
    expect(w.events).toHaveLength(6);
    expect((await listSessions(store, horse, { limit: 200 }))[0]?.summary.n).toBe(3);
  });

  it("says first what goes along, and what stays without it", async () => {
    const made = await yard();
    const said = async (kind: (typeof BIN_KINDS)[number]) => goesWithWords(kind, await goesWith(store, kind, made[kind]));
    await evidenceOfLadder(store, await getLadder(store, made.ladder));
    await store.caches.catchUp();
    expect(await said("horse")).toBe("With it go 2 ladders, 1 chain and 1 session.");
    expect(await said("person")).toBe("1 session stays, without a handler.");
    expect(await said("place")).toBe("1 session stays, without a place.");
    expect(await said("kit")).toBe("1 session stays, without it.");
    expect(await said("session")).toBe("");
    expect(await said("ladder")).toMatch(/^With it goes 1 chain\./);
  });

  it("brings with a horse only what went with it, and nothing before what it belongs to", async () => {
    const { horse, ladder, other, chain } = await yard();
    await putInBin(store, "ladder", ladder);
    expect(await listChains(store, horse)).toEqual([]);
    await putInBin(store, "horse", horse);
    expect((await listBin(store)).map(({ kind }) => kind).sort()).toEqual(["horse", "ladder"]);
    await expect(bringBack(store, "ladder", ladder)).rejects.toThrow(ConflictError);
    await expect(bringBack(store, "chain", chain)).rejects.toThrow(/Bring/);
    await bringBack(store, "horse", horse);
    // The ladder that lay there before stays there; the other one is back.
    expect((await listLadders(store, horse)).map(({ id }) => id)).toEqual([other]);
    await bringBack(store, "ladder", ladder);
    expect((await listLadders(store, horse)).map(({ id }) => id).sort()).toEqual([ladder, other].sort());
    expect(await listChains(store, horse)).toHaveLength(1);
  });

  it("keeps everything for thirty days, and then nothing of it", async () => {
    const { horse } = await yard();
    await putInBin(store, "horse", horse);
    now += 30 * MILLISECONDS_PER_DAY - 1;
    expect(await purgeExpired(store)).toBe(0);
    expect(await listBin(store)).toHaveLength(1);
    now += 1;
    expect(await listBin(store)).toEqual([]);
    await expect(bringBack(store, "horse", horse)).rejects.toThrow(/gone/);
    expect(await purgeExpired(store)).toBe(1);
    for (const table of ["horse", "ladder", "behaviour", "chain", "session", "event", "session_summary", "ladder_plan"])
      expect([table, await rows(table)]).toEqual([table, 0]);
    expect(await rows("person")).toBe(1);
  });

  it("sweeps nothing that got a tap within thirty days, nor the horse it belongs to", async () => {
    const { horse, session, w } = await yard();
    const DAY = 86_400_000;
    await putInBin(store, "horse", horse);
    now += 25 * DAY;
    // A phone in the pen goes on with it.
    const late = new SessionWriter(session);
    late.add(500, "trial", { outcome: "met" });
    await store.events.append({ recorder: "phone:a", events: late.events, clocks: {} });
    now += 10 * DAY;
    await purgeExpired(store);
    // Thirty days from its last tap, and until then it can be brought back.
    expect(await listBin(store)).toMatchObject([{ id: horse, goneMs: now + 20 * DAY }]);
    expect(await rows("session")).toBe(1);
    expect(await rows("horse")).toBe(1);
    expect(await rows("event")).toBe(w.events.length + 1);
    now += 21 * DAY;
    await purgeExpired(store);
    expect([await rows("session"), await rows("horse"), await rows("event")]).toEqual([0, 0, 0]);
  });

  it("purged at once, a ladder, a place or a person goes alone: the session worked with them stays with its names", async () => {
    const { ladder, place, person, session, horse } = await yard();
    await putInBin(store, "ladder", ladder);
    await putInBin(store, "place", place);
    await putInBin(store, "person", person);
    expect(await purgeBin(store, now)).toBe(3);
    expect(await listBin(store)).toEqual([]);
    await expect(getLadder(store, ladder)).rejects.toThrow(NotFoundError);
    const { session: row, record } = await loadSession(store, session);
    expect(row).toMatchObject({ ladder_id: null, place_id: null, person_id: null });
    expect(record.header).toMatchObject({ handler: "Ada", place: "Pen" });
    expect(record.trials).toHaveLength(2);
    expect(await listSessions(store, horse, { limit: 200 })).toHaveLength(1);
  });

  it("holds a struck note until it is brought back, undone or past its days", async () => {
    const { session, note } = await yard();
    const correct = new SessionWriter(session);
    const strike = correct.add(100, "correct", { event: note, strike: true, reason: "wrong horse" }, "laptop:b", testId(8));
    await store.events.append({ recorder: "laptop:b", events: correct.events, clocks: {} });
    expect(await listBin(store)).toMatchObject([{ kind: "note", id: note, name: "Shorter next time.", of: "Tarn", sessionId: session }]);
    const back = new SessionWriter(session);
    back.add(200, "correct", { event: note, strike: false, reason: "brought back" }, "laptop:b", testId(9));
    await store.events.append({ recorder: "laptop:b", events: back.events, clocks: {} });
    expect(await listBin(store)).toEqual([]);
    const again = new SessionWriter(session);
    again.add(300, "correct", { event: note, strike: true }, "laptop:b", testId(10));
    await store.events.append({ recorder: "laptop:b", events: again.events, clocks: {} });
    expect(await purgeBin(store, now)).toBe(1);
    const { events } = await loadSession(store, session);
    expect(events.filter(({ type }) => type === "note" || type === "correct")).toEqual([]);
    expect(strike).not.toBe("");
  });
});

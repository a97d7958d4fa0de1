import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loadOf } from "@/app/server/circle-of";
import { horseCare } from "@/app/server/horse-care";
import { ladderStates } from "@/app/server/ladder-state";
import { begunOf, horsePack, yardFacts } from "@/app/server/pack";
import { sidesOf } from "@/app/server/sides-of";
import { addDays } from "@/core/day";
import { planToLog } from "@/core/events/circle-log";
import { type HorsePack, packHorse, unpackHorse, withOwnSessions, type YardFacts } from "@/core/pack";
import { reduceSession } from "@/core/record";
import { recorderStart, startChoices } from "@/core/start";
import { circleState, todayOf } from "@/core/today";
import { closeStore, type HorseRow, listHorses, listSessions, loadSession, type Store } from "@/store";
import { PLAN } from "../support/circle-plan";
import { populatedStore } from "../support/demo";
import { SessionWriter, testId } from "../support/session-writer";

const NOW = Date.UTC(2026, 3, 1, 12);

let folder: string;
let store: Store;
let yard: YardFacts;
const horses: { readonly row: HorseRow; readonly pack: HorsePack }[] = [];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "pack-"));
  store = await populatedStore(join(folder, "demo.sqlite"), NOW, 6);
  yard = await yardFacts(store);
  for (const row of await listHorses(store)) horses.push({ row, pack: await horsePack(store, row) });
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

/** As a device has it: over the line and off its disk. */
const carried = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

describe("what a device keeps of a horse", () => {
  it("comes over the line as it was", () => {
    for (const { pack } of horses) expect(unpackHorse(carried(packHorse(pack)))).toEqual(carried(pack));
  });

  it("says what the server's other pages say: where each ladder stands, the limits, the sides", async () => {
    expect(horses.length).toBeGreaterThan(2);
    for (const { row, pack } of horses) {
      const now = todayOf(unpackHorse(carried(packHorse(pack))), carried(yard), NOW);
      const care = await horseCare(store, row);
      expect(now.allowance).toEqual(care.allowance);
      expect(now.cautions).toEqual(care.sentences);
      expect(now.sides).toEqual(await sidesOf(store, row.id));
      const states = await ladderStates(store, row.id, care.allowance);
      expect(now.states.map(({ ladder, next }) => [ladder.id, next])).toEqual(states.map(({ ladder, next }) => [ladder.id, next]));
      expect(startChoices(pack, now).ladders).toHaveLength(states.length);
    }
  });

  it("with a session of its own laid over is what the server has once that has come in", async () => {
    let tried = 0;
    for (const { row, pack } of horses) {
      for (const { session } of (await listSessions(store, row.id, { limit: 8 })).filter((_, i) => i % 3 === 0)) {
        const { record } = await loadSession(store, session.id);
        const without = {
          ...pack,
          ladders: pack.ladders.map((ladder) => ({ ...ladder, trials: ladder.trials.filter((trial) => trial.session !== session.id) })),
          digests: pack.digests.filter(({ id }) => id !== session.id),
          worked: pack.worked.filter(({ id }) => id !== session.id),
        };
        const own = withOwnSessions(carried(without), [{ begun: begunOf(session), createdMs: session.created_ms, record }], NOW);
        expect(carried(own.ladders)).toEqual(carried(pack.ladders));
        expect(carried(own.digests)).toEqual(carried(pack.digests));
        expect([...own.worked].sort((a, b) => a.id.localeCompare(b.id))).toEqual(
          carried([...pack.worked].sort((a, b) => a.id.localeCompare(b.id))),
        );
        expect(todayOf(own, yard, NOW).states.map(({ next }) => next)).toEqual(todayOf(pack, yard, NOW).states.map(({ next }) => next));
        // And without it something would be missing, else this would prove nothing.
        expect(carried(without.digests)).not.toEqual(carried(pack.digests));
        tried++;
      }
    }
    expect(tried).toBeGreaterThan(5);
  });

  it("knows the circle as the server does: load, ramp, caps, and what is left for a ladder that circles", async () => {
    const found = horses.find(({ pack }) => pack.worked.some(({ circle }) => circle !== undefined));
    if (found === undefined) throw new Error("a horse with work on the circle is needed");
    const { row } = found;
    const pack = unpackHorse(carried(packHorse(found.pack)));
    const state = circleState(pack, carried(yard), NOW);
    const { entries } = await loadOf(store, row.id);
    const sum = (list: readonly { readonly circlingMinutes: number }[]) => list.reduce((all, one) => all + one.circlingMinutes, 0);
    const since = state.entries[0]?.day ?? "";
    expect(sum(state.entries)).toBeCloseTo(sum(entries.filter(({ day }) => day >= since)), 6);
    // The demo's month: ten good sessions and a poor one, each step one on.
    expect(state.ramp?.done).toHaveLength(11);
    expect(state.ramp?.place.step).toBe(10);
    const week = entries.filter(({ day }) => day > addDays(state.today, -7));
    expect(state.use.weekMinutes).toBeGreaterThan(0);
    expect(state.use.weekMinutes).toBeLessThanOrEqual(sum(week) + 30);
    const [ladder] = pack.ladders.filter(({ involves }) => involves.includes("circling"));
    const begun = {
      id: "new",
      horse: row.id,
      kind: "work",
      ladder: ladder?.id ?? null,
      person: null,
      place: null,
      start_rung: 1,
      kit: [],
    } as const;
    const soFar = { storeId: store.id, events: [], clocks: {}, position: 0 };
    const left = (more: object = {}, facts: YardFacts = yard) =>
      recorderStart(pack, facts, NOW, { ...begun, ...more }, soFar).first.circling;
    expect(left()?.value).toBeCloseTo(30 - state.use.todayMinutes, 6);
    expect(left({ against: "short, to show" })).toBeNull();
    const tight = { ...yard, settings: { ...yard.settings, circleWeekMinutes: state.use.weekMinutes + 4 } };
    expect(left({}, tight)?.value).toBeCloseTo(4, 6);
    expect(left({}, { ...yard, settings: { ...yard.settings, circleWeekMinutes: 1 } })?.value).toBe(0);
    // Horses that do not circle have nothing of it.
    const other = horses.find(
      ({ pack: one }) => one.ladders.length > 0 && one.ladders.every(({ involves }) => !involves.includes("circling")),
    );
    const plain = other?.pack as HorsePack;
    expect(
      recorderStart(plain, yard, NOW, { ...begun, horse: plain.horse.id, ladder: plain.ladders[0]?.id ?? null }, soFar).first.circling,
    ).toBeNull();
  });

  it("counts a session on the circle that nobody ended: its minutes use up the cap, and the ramp waits for how it went", () => {
    const found = horses.find(({ pack }) => pack.worked.some(({ circle }) => circle !== undefined));
    if (found === undefined) throw new Error("a horse with work on the circle is needed");
    const { pack } = found;
    const w = new SessionWriter(testId(5), NOW - 10 * 60_000);
    w.block(0, { ladder: undefined, side: "" });
    const long = { ...PLAN, segments: [{ gait: "walk" as const, side: "L" as const, minutes: 25 }] };
    w.add(0, "circle.start", { plan: planToLog(long), overrides: [] });
    const begun = {
      id: testId(5),
      horse: pack.horse.id,
      kind: "circle",
      ladder: null,
      person: null,
      place: null,
      start_rung: null,
      kit: [],
    } as const;
    const dark = (nowMs: number) =>
      circleState(withOwnSessions(pack, [{ begun, createdMs: NOW - 10 * 60_000, record: reduceSession(w.events) }], nowMs), yard, nowMs);
    const before = circleState(pack, yard, NOW);
    expect(dark(NOW).use.todayMinutes - before.use.todayMinutes).toBeCloseTo(10, 6);
    const later = NOW + 3_600_000;
    expect(dark(later).use.todayMinutes - circleState(pack, yard, later).use.todayMinutes).toBeCloseTo(25, 6);
    expect(dark(later).entries.at(-1)?.minutes).toBeCloseTo(25, 6);
    // Begun anew four minutes later, since the plan was another: the horse goes in one of them.
    const next = { ...begun, id: testId(6) };
    const w2 = new SessionWriter(testId(6), NOW - 6 * 60_000);
    w2.block(0, { ladder: undefined, side: "" });
    w2.add(0, "circle.start", { plan: planToLog(long), overrides: [] });
    const anew = withOwnSessions(
      pack,
      [
        { begun, createdMs: NOW - 10 * 60_000, record: reduceSession(w.events) },
        { begun: next, createdMs: NOW - 6 * 60_000, record: reduceSession(w2.events) },
      ],
      later,
    );
    expect(circleState(anew, yard, later, testId(6)).use.todayMinutes - circleState(pack, yard, later).use.todayMinutes).toBeCloseTo(4, 6);
    expect(circleState(anew, yard, later).use.todayMinutes - circleState(pack, yard, later).use.todayMinutes).toBeCloseTo(29, 6);
    expect(dark(later).ramp?.place).toEqual(circleState(pack, yard, later).ramp?.place);
  });

  it("is the device's where both know a session", async () => {
    const [first] = horses;
    const [{ session }] = (await listSessions(store, first?.row.id ?? "", { limit: 1, kind: "work" })) as [
      Awaited<ReturnType<typeof listSessions>>[number],
    ];
    const { record } = await loadSession(store, session.id);
    const half = { ...record, trials: record.trials.slice(0, 3) };
    const own = withOwnSessions(first?.pack as HorsePack, [{ begun: begunOf(session), createdMs: session.created_ms, record: half }], NOW);
    expect(own.worked.find(({ id }) => id === session.id)?.trials).toBe(3);
    expect(own.worked.filter(({ id }) => id === session.id)).toHaveLength(1);
  });

  it("offers the kit of the last work, as the server does, whatever was done with the horse since", () => {
    const { pack, row } = horses[0] as (typeof horses)[number];
    const begun = { horse: row.id, ladder: null, person: null, place: null, start_rung: null };
    const own = (kind: "work" | "circle" | "signs", n: number, kit: string[]) => {
      const w = new SessionWriter(testId(n), NOW + n * 1000);
      w.block(0, { ladder: undefined });
      w.add(1, "signal", { name: "soft", class: "ease" });
      return { begun: { ...begun, id: testId(n), kind, kit }, createdMs: NOW + n * 1000, record: reduceSession(w.events) };
    };
    const kit = (...list: ReturnType<typeof own>[]) => withOwnSessions(pack, list, NOW + 60_000).last.kit;
    expect(kit(own("signs", 1, []))).toEqual(pack.last.kit);
    expect(kit(own("work", 1, ["line"]), own("circle", 2, ["roller"]), own("signs", 3, []))).toEqual(["line"]);
  });

  it("leaves out what was opened and left, and other horses' sessions", async () => {
    const [a, b] = horses;
    if (a === undefined || b === undefined) throw new Error("two horses are needed");
    const [other] = await listSessions(store, b.row.id, { limit: 1 });
    if (other === undefined) throw new Error("a session is needed");
    const { record } = await loadSession(store, other.session.id);
    expect(withOwnSessions(a.pack, [{ begun: begunOf(other.session), createdMs: 1, record }], NOW)).toBe(a.pack);
    const empty = { ...record, facts: [], trials: [], blocks: [], startWallMs: null, header: null, finishMs: null };
    const begun = { ...begunOf(other.session), id: "left", horse: a.row.id };
    const own = withOwnSessions(a.pack, [{ begun, createdMs: NOW, record: empty as never }], NOW);
    expect(own.worked).toEqual(a.pack.worked);
    expect(own.open).toEqual(a.pack.open);
  });

  it("begins the recorder with the session itself left out of what is earlier and used", async () => {
    for (const { row, pack } of horses.slice(0, 2)) {
      const [last] = await listSessions(store, row.id, { limit: 1, kind: "work" });
      if (last === undefined) continue;
      const soFar = { storeId: store.id, events: [], clocks: {}, position: 0 };
      const start = recorderStart(pack, yard, NOW, begunOf(last.session), soFar);
      expect(start.parts.flatMap(({ earlier }) => earlier).some(({ session }) => session === last.session.id)).toBe(false);
      expect(start.first.ladderId).toBe(last.session.ladder_id);
      expect(start.session.begun.id).toBe(last.session.id);
      // A person named on the spot is the handler until the server has them.
      const named = recorderStart(pack, yard, NOW, { ...begunOf(last.session), person: null, person_name: "Nell" }, soFar);
      expect(named.session.handler).toBe("Nell");
    }
  });
});

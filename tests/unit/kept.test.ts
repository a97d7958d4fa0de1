import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { checkEvent } from "@/core/events";
import { type HorsePack, horseForward, PACK_VERSION, PackProblem, packHorse } from "@/core/pack";
import { bareHorse, bareYard } from "@/core/pack/bare";
import { recorderStart, startChoices } from "@/core/start";
import { readHorse, readYard, todayOf, UNREAD_WORDS } from "@/core/today";
import { plainPack, plainYard } from "../support/plain-pack";

/** What a device kept under an older program, made by that program from the invented yard: one horse, the yard's facts, a tap of each shape. */
const kept = (program: string) =>
  JSON.parse(readFileSync(`tests/fixtures/kept-${program}.json`, "utf8")) as {
    readonly facts: Record<string, unknown>;
    readonly horse: { readonly horse: { readonly id: string; readonly name: string }; readonly ladders: readonly unknown[] };
    readonly events: readonly unknown[];
  };
const PROGRAMS = ["0.11.0", "0.12.0", "0.13.0", "0.14.0"];
const NOW = Date.UTC(2026, 3, 1, 12);
const SO_FAR = { storeId: "s", events: [], clocks: {}, position: 0 };
const yardOf = (facts: unknown) => ({ store: "s", epoch: "e", position: 1, nowMs: NOW, facts, me: {}, horses: [{ id: "h", name: "B" }] });
const begun = (horse: string, ladder: string | null = null) =>
  ({ id: "n", horse, kind: "work", ladder, person: null, place: null, start_rung: 1, kit: [] }) as const;

describe.each(PROGRAMS)("what %s kept on a device", (program) => {
  const { facts, horse, events } = kept(program);

  it("is worked by this program: its ladders with their trials, and what restricts the horse", () => {
    const yard = readYard(yardOf(facts)).facts;
    const pack = readHorse(horse, yard, NOW);
    expect(pack.ladders).toHaveLength(horse.ladders.length);
    expect(pack.ladders.some(({ trials }) => trials.length > 0)).toBe(true);
    const today = todayOf(pack, yard, NOW);
    expect(today.allowance.circlingMinutes?.value).toBe(0);
    expect(today.cautions.join(" ")).toContain("No circling");
    const start = recorderStart(pack, yard, NOW, begun(pack.horse.id, pack.ladders[0]?.id), SO_FAR);
    expect(start.parts[0]?.earlier.length).toBe(pack.ladders[0]?.trials.length);
    // Work on the circle has the program's own names, whatever the device kept.
    expect(JSON.stringify([pack.circle.setup, pack.circle.fits])).not.toMatch(/"[a-z]+_[a-z_]+":/);
    expect(typeof pack.circle.setup.stifferFirst).toBe("boolean");
    // What this program has learned since is there with its default.
    for (const value of Object.values(yard.settings)) expect(value).not.toBeUndefined();
  });

  it("that was tapped is taken by the server, every tap of it", () => {
    expect(events.length).toBeGreaterThan(40);
    expect(events.map((event) => checkEvent(event)).filter(({ ok }) => !ok)).toEqual([]);
  });
});

describe("a pack that cannot be read", () => {
  const yard = plainYard();
  const named = { id: "h", name: "Tarn" };

  it("is of a newer program, of none, or not whole: each is found before it is worked by", () => {
    const packed = packHorse(plainPack());
    expect(readHorse(packed, yard, NOW).ladders).toHaveLength(1);
    expect(() => horseForward({ ...packed, version: PACK_VERSION + 1 })).toThrow(PackProblem);
    for (const version of [-1, 1.5, "1", null]) expect(() => horseForward({ ...packed, version })).toThrow(PackProblem);
    for (const broken of [null, 7, [], "pack", {}, { ...packed, restrictions: undefined }, { ...packed, ladders: [{ id: "l" }] }])
      expect(() => readHorse(broken, yard, NOW)).toThrow();
    expect(() => readYard({ ...yardOf(undefined) })).toThrow(PackProblem);
    expect(() => readYard(yardOf({ ...yard, timeZone: "No/Where" }))).toThrow();
    expect(() => readYard({ ...yardOf(yard), horses: [{}] })).toThrow();
  });

  it("leaves the horse to be recorded, with what restricts it, no ladder, no advice, and says so", () => {
    const restrictions = [
      { kind: "one-side", amount: null, detail: "left", reason: "near fore", givenBy: "vet", from: null, until: null },
      {
        kind: "touch-off",
        amount: null,
        detail: "fetlock",
        limb: "left hind",
        carriesOthers: true,
        reason: "",
        givenBy: "",
        from: null,
        until: null,
      },
    ];
    const pack = bareHorse({ ...packHorse(plainPack()), version: 99, restrictions }, named, "version 99");
    const today = todayOf(pack, yard, NOW);
    expect(today.cautions[0]).toBe(UNREAD_WORDS);
    expect(today.cautions.join(" ")).toContain("near fore");
    expect(today.allowance.side?.value).toBe("left");
    expect(today.allowance.touchOff).toMatchObject([{ value: "fetlock", limb: "left hind", carriesOthers: true }]);
    expect(startChoices(pack, today)).toMatchObject({ ladders: [], noWork: null });
    const start = recorderStart(pack, yard, NOW, begun("h"), SO_FAR);
    expect(start.first).toMatchObject({ ladderId: null, behaviour: "Free start" });
  });

  it("closes work where what restricts the horse cannot be read: silence is never a yes", () => {
    const closed = (value: unknown) => todayOf(bareHorse(value, named, "x"), yard, NOW).allowance.noWork !== null;
    for (const value of [null, 7, {}, { restrictions: "none" }, { restrictions: [{ kind: "no-jumping" }] }, { restrictions: [7] }])
      expect(closed(value)).toBe(true);
    expect(closed({ restrictions: [] })).toBe(false);
    const passed: HorsePack["restrictions"][number] = {
      kind: "unread",
      amount: null,
      detail: null,
      reason: "leg, as the vet wrote",
      givenBy: "",
      from: null,
      until: null,
    };
    expect(todayOf(bareHorse({ restrictions: [passed] }, named, "x"), yard, NOW).cautions.join(" ")).toContain("as the vet wrote");
  });

  it("keeps the age it can read, since it may close work", () => {
    const of = (horse: object) => bareHorse({ restrictions: [], horse }, named, "x").horse;
    expect(of({ bornDay: "2024-05-01", birthYear: null })).toMatchObject({ bornDay: "2024-05-01", birthYear: null });
    expect(of({ bornDay: "yesterday", birthYear: "2024" })).toMatchObject({ bornDay: null, birthYear: null });
    const young = bareHorse({ restrictions: [], horse: { bornDay: "2024-05-01", birthYear: null } }, named, "x");
    expect(todayOf(young, yard, NOW).cautions.join(" ")).toContain("Under");
  });

  it("of the yard leaves its names, and horses by what is kept of them", () => {
    const raw = { ...yardOf({ ...yard, people: [{ id: "p", name: "Ida" }, { id: 4 }], settings: null }), version: 99 };
    const bare = bareYard(raw, "Europe/Oslo", [named]);
    expect(bare.facts.people).toEqual([{ id: "p", name: "Ida" }]);
    expect(bare.horses.map(({ name }) => name)).toEqual(["B"]);
    expect(bareYard({ store: "s" }, "Europe/Oslo", [named])).toMatchObject({
      store: "s",
      horses: [{ ...named, away: null }],
      facts: { timeZone: "Europe/Oslo" },
      me: { access: "helper" },
    });
  });
});

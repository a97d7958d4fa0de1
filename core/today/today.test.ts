import { beforeAll, describe, expect, it } from "vitest";
import { plainPack, plainYard } from "@/tests/support/plain-pack";
import { addDays } from "../day";
import type { HorsePack, YardFacts } from "../pack";
import type { Restriction } from "../welfare";
import { circleState, leftOfCircling, momentOn, todayOf, usedUp } from ".";

const DAY = "2026-06-01";
const NOW = Date.UTC(2026, 5, 1, 6);

let yard: YardFacts;
let pack: HorsePack;
beforeAll(() => {
  yard = plainYard();
  pack = plainPack();
});

const restriction = (change: Partial<Restriction>): Restriction => ({
  kind: "no-work",
  amount: null,
  detail: null,
  reason: "colic",
  givenBy: "vet",
  from: null,
  until: null,
  ...change,
});
const on = (day: string, facts: HorsePack = pack, where: YardFacts = yard) => todayOf(facts, where, momentOn(day, NOW, where.timeZone));

describe("the moment at which a day is read", () => {
  it("is now today, and the middle of any other, also where the clock is set", () => {
    expect(momentOn(DAY, NOW, "UTC")).toBe(NOW);
    expect(momentOn("2026-06-09", NOW, "UTC")).toBe(Date.UTC(2026, 5, 9, 12));
    // The day after the last Sunday of October begins an hour later by the clock: that Sunday is 25 hours long.
    expect(momentOn("2026-10-25", NOW, "Europe/Oslo")).toBe((Date.UTC(2026, 9, 24, 22) + Date.UTC(2026, 9, 25, 23)) / 2);
    // Late in the evening of the west it is the next day in the east.
    expect(momentOn("2026-06-01", Date.UTC(2026, 5, 1, 23), "Asia/Tokyo")).not.toBe(Date.UTC(2026, 5, 1, 23));
  });
});

describe("what is true on a day", () => {
  it("answers for any day: a restriction holds on its days and on no other", () => {
    const barred = { ...pack, restrictions: [restriction({ from: "2026-06-03", until: "2026-06-05" })] };
    const open = (day: string) => on(day, barred).allowance.noWork === null;
    expect([DAY, "2026-06-02", "2026-06-03", "2026-06-05", "2026-06-06"].map(open)).toEqual([true, true, false, false, true]);
    expect(on("2026-06-04", barred).states.every(({ next }) => next.barred !== null)).toBe(true);
    expect(on("2026-06-04", barred).cautions.join(" ")).toContain("colic");
    expect(on("2026-06-06", barred).states.some(({ next }) => next.barred !== null)).toBe(false);
  });

  it("ages the horse: what holds for the young ends with the birthday, and heat is borne worse with the years", () => {
    const young = { ...pack, horse: { ...pack.horse, bornDay: "2021-06-10", birthYear: 2021 } };
    expect(on("2026-06-09", young).cautions.join(" ")).toContain("Under five years");
    expect(on("2026-06-10", young).cautions).toEqual([]);
    const old = { ...pack, horse: { ...pack.horse, bornDay: "2006-06-10", birthYear: 2006 } };
    expect([on("2026-06-09", old), on("2026-06-10", old)].map(({ heatLowerCelsius }) => heatLowerCelsius)).toEqual([0, 3]);
  });

  it("leaves the session about to be worked out of what is used up, and what lies more than a week back", () => {
    const one = (id: string, daysAgo: number) => ({
      id,
      kind: "work" as const,
      startedMs: NOW - daysAgo * 86_400_000,
      workSeconds: 600,
      trials: 5,
      pieces: 0,
      weighedGrams: null,
      doNext: null,
      ladders: [],
      seconds: [],
    });
    const worked = { ...pack, worked: [one("now", 0), one("day before", 1), one("long ago", 8)] };
    const today = on(DAY, worked);
    const said = (but: string) => usedUp(worked, yard, today, circleState(worked, yard, NOW), null, but)[0];
    expect(said("now")).toBe("Last 7 days: 1 session, 10 min of work, 5 asks.");
    expect(said("another")).toBe("Last 7 days: 2 sessions, 20 min of work, 10 asks.");
  });

  it("lets what was circled fall out of the week, and out of the day, day by day", () => {
    const worked = {
      ...pack,
      ladders: pack.ladders.map((one) => ({ ...one, involves: ["circling"] })),
      worked: [
        {
          id: "s-1",
          kind: "work" as const,
          startedMs: NOW - 3_600_000,
          workSeconds: 1200,
          trials: 5,
          pieces: 0,
          weighedGrams: null,
          doNext: null,
          ladders: pack.ladders.map(({ id }) => id).slice(0, 1),
          seconds: [1200],
        },
      ],
    };
    const use = (days: number) => circleState(worked, yard, momentOn(addDays(DAY, days), NOW, "UTC")).use;
    expect([0, 1, 6, 8].map((days) => [use(days).todayMinutes, use(days).weekMinutes])).toEqual([
      [20, 20],
      [0, 20],
      [0, 20],
      [0, 0],
    ]);
    const left = (days: number) => leftOfCircling({}, circleState(worked, yard, momentOn(addDays(DAY, days), NOW, "UTC")))?.value ?? 0;
    expect(left(1) - left(0)).toBe(20);
    expect(leftOfCircling({ against: "the vet asked for it" }, circleState(worked, yard, NOW))).toBeNull();
  });
});

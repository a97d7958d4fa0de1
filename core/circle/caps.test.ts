import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PLAN } from "@/tests/support/circle-plan";
import { DEFAULT_SETTINGS } from "../settings";
import { type Age, ageCaution, allowanceOn, type Restriction } from "../welfare";
import {
  type CircleUse,
  circleCaps,
  circlingLeft,
  circlingSentence,
  NO_OWN_CAPS,
  planCautions,
  standingCautions,
  usedUpCircling,
} from "./caps";

const grown: Age = { years: 9, months: 0, exact: true };
const young: Age = { years: 3, months: 0, exact: true };
const TODAY = "2026-06-10";
const allow = (age: Age, ...list: Partial<Restriction>[]) =>
  allowanceOn(
    list.map((one) => ({ kind: "no-circling", amount: null, detail: null, reason: "", givenBy: "", from: null, until: null, ...one })),
    TODAY,
    ageCaution(age),
  );
const capsOf = (age: Age, more: Partial<Parameters<typeof circleCaps>[0]> = {}) =>
  circleCaps({ age, allowance: allow(age), settings: DEFAULT_SETTINGS, own: NO_OWN_CAPS, ways: "both", heat: null, ...more });
const NOTHING: CircleUse = { weekMinutes: 0, weekVisits: 0, todayMinutes: 0, daysSince: null, lastSide: null, kitWorn: true };
const said = (age: Age, plan: Partial<typeof PLAN>, use: Partial<CircleUse> = {}, restrictions: Partial<Restriction>[] = []) => {
  const own = { ...PLAN, ...plan };
  const allowance = allow(age, ...restrictions);
  const caps = circleCaps({ age, allowance, settings: DEFAULT_SETTINGS, own: NO_OWN_CAPS, ways: own.ways, heat: null });
  return planCautions(own, caps, { ...NOTHING, ...use }, { age, allowance }, DEFAULT_SETTINGS);
};
const keys = (...args: Parameters<typeof said>) => said(...args).map(({ key }) => key);

describe("what may still be circled", () => {
  const day = { value: 20, why: "the day's" };
  const week = { value: 60, why: "the week's" };
  it("is the nearer of the day's and the week's, and never under nothing", () => {
    expect(circlingLeft({ todayMinutes: 12, weekMinutes: 40 }, { day, week })).toEqual({ value: 8, why: "the day's", by: "day" });
    expect(circlingLeft({ todayMinutes: 12, weekMinutes: 57 }, { day, week })).toEqual({ value: 3, why: "the week's", by: "week" });
    expect(circlingLeft({ todayMinutes: 26, weekMinutes: 40 }, { day, week })?.value).toBe(0);
    // Both used up: the day's is said, as it is the one that ends first.
    expect(circlingLeft({ todayMinutes: 26, weekMinutes: 70 }, { day, week })?.by).toBe("day");
  });

  it("leaves out a cap that does not hold", () => {
    expect(circlingLeft({ todayMinutes: 26, weekMinutes: 40 }, { day: null, week })).toEqual({ value: 20, why: "the week's", by: "week" });
    expect(circlingLeft({ todayMinutes: 12, weekMinutes: 70 }, { day, week: null })?.value).toBe(8);
    expect(circlingLeft({ todayMinutes: 99, weekMinutes: 99 }, { day: null, week: null })).toBeNull();
  });
});

describe("where a circle is worked", () => {
  const inPlace = (acrossMetres: number | null, plan: Partial<typeof PLAN> = {}) =>
    planCautions(
      { ...PLAN, ...plan },
      capsOf(grown),
      NOTHING,
      { age: grown, allowance: allow(grown) },
      { ...DEFAULT_SETTINGS },
      { name: "Reed pen", acrossMetres },
    ).map(({ sentence, wall }) => [sentence, wall]);
  it("is said where it does not fit, as a caution, and not where nobody knows the size or no circle is drawn", () => {
    expect(inPlace(18)).toEqual([["The circle is 20 m across and Reed pen 18 m: it does not fit.", false]]);
    expect(inPlace(20)).toEqual([]);
    expect(inPlace(19.95, { radiusMetres: 9.97 })).toEqual([]);
    expect(inPlace(null)).toEqual([]);
    expect(inPlace(12, { form: "pen", radiusMetres: null })).toEqual([]);
    expect(inPlace(12, { form: "lines", radiusMetres: null })).toEqual([]);
  });
});

describe("caps on circling", () => {
  it("are thirty minutes a session for the grown, twenty and once a week under five", () => {
    expect(capsOf(grown)).toMatchObject({ sessionMinutes: { value: 30 }, weekMinutes: null, weekVisits: null, sentence: null });
    expect(capsOf(young)).toMatchObject({ sessionMinutes: { value: 20 }, weekVisits: { value: 1 }, weekMinutes: null });
    expect(capsOf({ years: 1, months: 0, exact: true }).sessionMinutes.value).toBe(5);
  });
  it("count minutes and not visits where one way a day is taken in turn, and say both", () => {
    const caps = capsOf(young, { ways: "turn" });
    expect(caps).toMatchObject({ weekVisits: null, weekMinutes: { value: 20 } });
    expect(caps.sentence).toBe(
      "1 session a week with both ways in it; one way a day in turn: 20 minutes of circling a week in any number of sessions.",
    );
  });
  it("are the strictest of the yard's, the horse's own and what a restriction says", () => {
    const own = { sessionMinutes: 12, weekMinutes: 40, weekVisits: 3 };
    expect(capsOf(grown, { own })).toMatchObject({
      sessionMinutes: { value: 12, why: "This horse's own." },
      weekMinutes: { value: 40 },
      weekVisits: { value: 3 },
    });
    const allowance = allow(grown, { kind: "circling-minutes", amount: 6, reason: "old strain" });
    expect(capsOf(grown, { own, allowance }).sessionMinutes).toEqual({
      value: 6,
      why: "At most 6 minutes of circling a session: old strain.",
    });
    expect(capsOf(grown, { settings: { ...DEFAULT_SETTINGS, circleWeekMinutes: 60 }, own }).weekMinutes?.value).toBe(40);
  });
  it("are lower in a pen, and lower still in heat", () => {
    expect(capsOf(grown).penMinutes.value).toBe(15);
    expect(capsOf(grown, { heat: "watch" }).penMinutes.value).toBe(11.25);
    expect(capsOf(grown, { heat: "cut" }).penMinutes.value).toBe(7.5);
  });
  it("are used up by the day, by the week's minutes, by the week's sessions", () => {
    const caps = capsOf(young);
    expect(usedUpCircling({ ...NOTHING, todayMinutes: 19 }, caps)).toBeNull();
    expect(usedUpCircling({ ...NOTHING, todayMinutes: 20 }, caps)).toMatch(/^20 min of circling today/);
    expect(usedUpCircling({ ...NOTHING, weekVisits: 1 }, caps)).toMatch(/^1 session of circling in the last 7 days; at most 1/);
    expect(usedUpCircling({ ...NOTHING, weekMinutes: 20 }, capsOf(young, { ways: "turn" }))).toMatch(
      /^20 min of circling in the last 7 days/,
    );
    expect(usedUpCircling({ ...NOTHING, weekMinutes: 500, weekVisits: 9 }, capsOf(grown))).toBeNull();
    expect(circlingSentence({ weekMinutes: 24.6, weekVisits: 2 }, capsOf(grown))).toBe(
      "Circling in the last 7 days: 2 sessions, 25 min; at most 30 min in a day. A setting of this yard.",
    );
    expect(circlingSentence({ weekMinutes: 0, weekVisits: 0 }, capsOf(grown))).toBeNull();
  });
});

describe("what is said of a plan", () => {
  it("is nothing for a usual start of a grown horse", () => {
    expect(said(grown, {})).toEqual([]);
  });
  it("names canter on a small circle, too long, too soon, too young, first kit, the same way again", () => {
    const canter = [{ gait: "canter" as const, side: "L" as const, minutes: 2 }];
    expect(keys(grown, { segments: canter, radiusMetres: 9.9 })).toEqual(["canter-small"]);
    expect(keys(grown, { segments: canter, radiusMetres: 10 })).toEqual([]);
    expect(keys(grown, { segments: [{ gait: "walk", side: "L", minutes: 31 }] })).toEqual(["too-long"]);
    expect(keys(grown, { segments: [{ gait: "walk", side: "L", minutes: 25 }] }, { todayMinutes: 6 })).toEqual(["too-long"]);
    // Standing is no circling.
    expect(
      keys(grown, {
        segments: [
          { gait: "walk", side: "L", minutes: 29 },
          { gait: "stand", side: "L", minutes: 20 },
        ],
      }),
    ).toEqual([]);
    expect(keys(grown, {}, { daysSince: 1 })).toEqual(["too-soon"]);
    expect(keys(grown, {}, { daysSince: 2 })).toEqual([]);
    expect(keys({ years: 1, months: 6, exact: true }, { segments: [{ gait: "walk", side: "L", minutes: 2 }] })).toEqual(["too-young"]);
    expect(keys(young, {}, { weekVisits: 1, daysSince: 4 })).toEqual(["visits"]);
    expect(keys(grown, { kit: "k" }, { kitWorn: false })).toEqual(["new-kit"]);
    expect(keys(grown, { kit: "k", segments: [{ gait: "walk", side: "L", minutes: 10 }] }, { kitWorn: false })).toEqual([]);
    const left = { ways: "turn" as const, segments: [{ gait: "walk" as const, side: "L" as const, minutes: 8 }] };
    expect(keys(grown, left, { lastSide: "L", daysSince: 1 })).toEqual(["same-way"]);
    expect(keys(grown, left, { lastSide: "R", daysSince: 1 })).toEqual([]);
  });
  it("says nothing of days between where the yard wants none", () => {
    const caps = capsOf(grown);
    const cautions = (circleRestDays: number, daysSince: number) =>
      planCautions(PLAN, caps, { ...NOTHING, daysSince }, { age: grown, allowance: allow(grown) }, { ...DEFAULT_SETTINGS, circleRestDays })
        .length;
    expect([cautions(0, 0), cautions(1, 1), cautions(1, 2), cautions(3, 3), cautions(3, 4)]).toEqual([0, 1, 0, 1, 0]);
  });
  it("is a wall where a restriction closes it, which no word of why opens", () => {
    const walls = said(grown, { segments: [{ gait: "trot", side: "L", minutes: 2 }] }, {}, [
      { kind: "no-circling" },
      { kind: "highest-gait", detail: "walk" },
      { kind: "one-side", detail: "right" },
    ]);
    expect(walls.filter(({ wall }) => wall).map(({ key }) => key)).toEqual(["no-circling", "gait", "one-side"]);
    const why = walls.map(({ key }) => ({ key, why: "I want to" }));
    expect(standingCautions(walls, why).map(({ key }) => key)).toEqual(["no-circling", "gait", "one-side"]);
  });
  it("stands until somebody has said why", () => {
    const cautions = said(grown, {}, { daysSince: 0 });
    expect(standingCautions(cautions, [])).toHaveLength(1);
    expect(standingCautions(cautions, [{ key: "too-soon", why: "  " }])).toHaveLength(1);
    expect(standingCautions(cautions, [{ key: "too-soon", why: "short and easy, vet agreed" }])).toEqual([]);
  });
  it("of long lines away from a circle is about the release and the traffic, not about circling", () => {
    const lines = {
      step: "walking behind",
      blinkers: "none",
      traces: false,
      breeching: false,
      head: "",
      traffic: "L",
      companion: null,
      releaseChecked: false,
    } as const;
    expect(keys(grown, { form: "lines", radiusMetres: null, lines }, { daysSince: 0, todayMinutes: 90 })).toEqual(["release", "traffic"]);
    expect(keys(grown, { form: "lines", radiusMetres: null, lines: { ...lines, head: "Nell", releaseChecked: true } })).toEqual([]);
  });
  it("never lets a plan over a cap through without a word", () => {
    const minutes = fc.integer({ min: 1, max: 40 });
    fc.assert(
      fc.property(minutes, fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 60 }), fc.boolean(), (own, today, week, turn) => {
        const plan = {
          segments: [{ gait: "walk" as const, side: "R" as const, minutes: own }],
          ways: turn ? ("turn" as const) : ("both" as const),
        };
        const found = said(young, plan, { todayMinutes: today, weekMinutes: Math.max(today, week) });
        const over = own + today > 20 || (turn && own + Math.max(today, week) > 20);
        expect(standingCautions(found, []).some(({ key }) => key === "too-long" || key === "week")).toBe(over);
      }),
    );
  });
});

import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { dayOf, dayWords, isDay } from "../day";
import type { LadderPlan } from "../ladder";
import { strandFromCatalogue } from "../strands";
import {
  ageCaution,
  ageOn,
  ageWords,
  allowanceOn,
  allowedRung,
  barredBehaviour,
  barredLegs,
  barredMethod,
  barredRung,
  barredValue,
  breathingOver,
  breathingRate,
  breathSums,
  closesZone,
  goneAgainstOn,
  handlerPlaceMetres,
  type Kit,
  type KitUse,
  kitCautions,
  type Restriction,
  restrictionSentence,
  restrictionsOverlap,
  yardRestrictions,
} from "./index";

describe("days", () => {
  it.each([
    ["2026-02-28", true],
    ["2028-02-29", true],
    ["2026-02-29", false],
    ["2026-00-10", false],
    ["1979-12-31", false],
    ["26-01-01", false],
    [20260101, false],
    [null, false],
  ])("%s: %s", (text, real) => {
    expect(isDay(text)).toBe(real);
  });

  it("fall where the clock stands", () => {
    const moment = Date.UTC(2026, 10, 24, 23, 30);
    expect([dayOf(moment), dayOf(moment, 60), dayOf(moment, -600)]).toEqual(["2026-11-24", "2026-11-25", "2026-11-24"]);
    expect(dayWords("2026-03-09")).toBe("9 March 2026");
  });
});

describe("age", () => {
  it.each([
    ["2026-11-25", "2026-11-25", 0, 0],
    ["2026-10-26", "2026-11-25", 0, 0],
    ["2026-10-25", "2026-11-25", 0, 1],
    ["2022-04-19", "2026-11-25", 4, 7],
    ["2021-11-26", "2026-11-25", 4, 11],
    ["2021-11-25", "2026-11-25", 5, 0],
    // A birthday on the 31st is had on the last day of a shorter month, one on 29 February on the 28th.
    ["2026-01-31", "2026-02-28", 0, 1],
    ["2024-02-29", "2026-02-28", 2, 0],
  ])("born %s, on %s: %i years %i months", (day, today, years, months) => {
    expect(ageOn({ day, year: null }, today)).toEqual({ years, months, exact: true });
  });

  it("takes a year alone as young as it may be, and knows nothing before birth or without either", () => {
    expect(ageOn({ day: null, year: 2021 }, "2026-11-25")).toMatchObject({ years: 4, exact: false });
    expect(ageOn({ day: null, year: 2026 }, "2026-11-25")).toEqual({ years: 0, months: 0, exact: false });
    expect(ageOn({ day: "2026-12-01", year: null }, "2026-11-25")).toBeNull();
    expect(ageOn({ day: null, year: null }, "2026-11-25")).toBeNull();
  });

  it.each([
    [{ years: 4, months: 7, exact: true }, "4 years 7 months"],
    [{ years: 1, months: 0, exact: true }, "1 year"],
    [{ years: 0, months: 1, exact: true }, "1 month"],
    [{ years: 9, months: 3, exact: false }, "9 or 10 years"],
    [{ years: 0, months: 0, exact: false }, "up to 1 year"],
  ])("%j reads %s", (age, words) => {
    expect(ageWords(age)).toBe(words);
  });

  it.each([
    [0, 1],
    [1, 2],
    [2, 5],
    [4, 5],
    [5, null],
    [22, null],
  ])("at %i years the caution is under %s", (years, under) => {
    expect(ageCaution({ years, months: 11, exact: true })?.underYears ?? null).toBe(under);
  });
});

const restriction = (change: Partial<Restriction>): Restriction => ({
  kind: "no-circling",
  amount: null,
  detail: null,
  reason: "",
  givenBy: "",
  from: null,
  until: null,
  ...change,
});
const TODAY = "2026-11-25";
const allow = (...list: Partial<Restriction>[]) => allowanceOn(list.map(restriction), TODAY, null);

describe("restrictions", () => {
  it("hold from their first day to their last, both included", () => {
    for (const [from, until, holds] of [
      ["2026-11-25", "2026-11-25", true],
      [null, "2026-11-24", false],
      ["2026-11-26", null, false],
      [null, null, true],
    ] as const)
      expect(allow({ from, until }).circlingMinutes !== null, `${from} ${until}`).toBe(holds);
  });

  it("say what, until when, why and who", () => {
    expect(restrictionSentence(restriction({ reason: "old strain.", givenBy: "the veterinarian", until: "2026-12-13" }))).toBe(
      "No circling until 13 December 2026: old strain. Advice of the veterinarian.",
    );
    expect(restrictionSentence(restriction({ kind: "weight-limit", amount: 5 }))).toBe("Carries or draws at most 5 kg.");
    expect(restrictionSentence(restriction({ kind: "other", reason: "Keep the rug on." }))).toBe("Keep the rug on.");
    expect(restrictionSentence(restriction({ kind: "one-side", detail: "left" }))).toBe("Left side only.");
  });

  it("of one kind that overlap leave the stricter, and say that they overlap", () => {
    const both = allow({ kind: "work-minutes", amount: 20 }, { kind: "work-minutes", amount: 10, reason: "hot" });
    expect(both.workMinutes).toEqual({ value: 10, why: "At most 10 minutes of work a session: hot." });
    expect(both.overlaps).toEqual(["work-minutes"]);
    expect(allow({ kind: "highest-gait", detail: "trot" }, { kind: "highest-gait", detail: "walk" }).highestGait?.value).toBe("walk");
    expect(allow({ kind: "touch-off", detail: "hock" }, { kind: "touch-off", detail: "ears" }).overlaps).toEqual([]);
  });

  it("overlap only where they share a day, whichever end is open", () => {
    const days = (from: string | null, until: string | null) => restriction({ from, until });
    expect(restrictionsOverlap(days("2026-01-01", "2026-01-31"), days("2026-01-31", null))).toBe(true);
    expect(restrictionsOverlap(days(null, "2026-01-30"), days("2026-01-31", null))).toBe(false);
    expect(restrictionsOverlap(days(null, null), days("2026-01-31", "2026-02-01"))).toBe(true);
    expect(restrictionsOverlap(days(null, null), restriction({ kind: "no-food" }))).toBe(false);
  });

  it("of two sides that exclude each other leave no work at all", () => {
    expect(allow({ kind: "one-side", detail: "left" }, { kind: "one-side", detail: "right" }).noWork?.why).toContain("no side");
    expect(allow({ kind: "one-side", detail: "left" }, { kind: "one-side", detail: "left" }).noWork).toBeNull();
  });

  it("and age: the stricter of the two holds", () => {
    const young = ageCaution({ years: 1, months: 3, exact: true });
    const allowance = allowanceOn([restriction({ kind: "circling-minutes", amount: 3 })], TODAY, young);
    expect(allowance.circlingMinutes?.value).toBe(3);
    expect(allowance.workMinutes?.value).toBe(15);
    expect(allowance.noTying).toBeNull();
  });

  it("of age alone closes nothing that is fairly done young: it is said", () => {
    for (const years of [0, 1, 4]) {
      const allowance = allowanceOn([], TODAY, ageCaution({ years, months: 2, exact: true }));
      expect(barredBehaviour(["tying", "circling", "legs", "load", "loading"], allowance), String(years)).toBeNull();
    }
    expect(ageCaution({ years: 0, months: 2, exact: true })?.sentence).toContain("no hard tying");
  });

  it("the yard's own settings close what they name, under the age they name, and a day on which they were gone against is open", () => {
    const age = { years: 1, months: 3, exact: true };
    const set = { youngTyingYears: 2, youngCirclingYears: 1 };
    expect(yardRestrictions(age, set).map(({ kind }) => kind)).toEqual(["no-tying"]);
    expect(yardRestrictions({ ...age, years: 2 }, set)).toEqual([]);
    expect(yardRestrictions(null, set)).toEqual([]);
    expect(yardRestrictions(age, { youngTyingYears: 0, youngCirclingYears: 0 })).toEqual([]);
    const tied = (goneAgainst: { day: string; reason: string }[]) =>
      barredBehaviour(["tying"], allowanceOn(yardRestrictions(age, set, goneAgainst), TODAY, null));
    expect(tied([])).toBe("No tying: under 2 years, a setting of this yard.");
    expect(tied([{ day: "2020-01-01", reason: "farrier" }])).not.toBeNull();
    expect(tied([{ day: TODAY, reason: "farrier" }])).toBeNull();
  });

  it("a restriction that was gone against today closes nothing today, and everything tomorrow", () => {
    const hock = restriction({ goneAgainst: [{ day: TODAY, reason: "the vet asked to see it trot" }] });
    expect(allowanceOn([hock], TODAY, null).circlingMinutes).toBeNull();
    expect(allowanceOn([hock], "2031-01-01", null).circlingMinutes?.value).toBe(0);
    expect(goneAgainstOn(hock, TODAY)?.reason).toContain("vet asked");
  });

  it("switch off behaviours and methods by what they name", () => {
    expect(barredBehaviour(["circling"], allow({}))).toBe("No circling.");
    expect(barredBehaviour(["legs"], allow({}))).toBeNull();
    expect(barredBehaviour(["legs"], allow({ kind: "touch-off", detail: "neck" }))).toBeNull();
    const fetlock = (more: Partial<Restriction> = {}) => allow({ kind: "touch-off", detail: "fetlock", ...more });
    // A stored one names no leg: it means all of them, and so does one that says nothing of the others.
    expect(barredBehaviour(["legs"], fetlock())).toBe("Not to be touched at fetlock; no leg may be handled.");
    expect(barredBehaviour(["legs"], fetlock({ limb: "left fore" }))).not.toBeNull();
    expect(barredBehaviour(["legs"], fetlock({ limb: "left fore", carriesOthers: false }))).not.toBeNull();
    const named = fetlock({ limb: "left fore", carriesOthers: true });
    expect(barredBehaviour(["legs"], named)).toBeNull();
    expect(barredLegs("L", named)).toBe("Not to be touched at left fore fetlock; the other legs may be handled.");
    expect(barredLegs("R", named)).toBeNull();
    expect(closesZone({ value: "fetlock", why: "", limb: "left fore" }, "fetlock", "R")).toBe(false);
    expect(closesZone({ value: "fetlock", why: "", limb: null }, "fetlock", "R")).toBe(true);
    expect(barredBehaviour(["load"], allow({ kind: "weight-limit", amount: 0 }))).toBe("Carries or draws at most 0 kg.");
    expect(barredMethod("marker-food", allow({ kind: "no-food" }))).toBe("No food.");
    expect(barredMethod("combined", allow({ kind: "no-food" }))).toBeNull();
  });
});

const plan = (key: Parameters<typeof strandFromCatalogue>[0], values: (string | number)[]): LadderPlan => ({
  ...emptyDraft().plan,
  strands: [strandFromCatalogue(key, "s")],
  rungs: values.map((s) => ({ values: { s } })),
});

describe("rungs under an allowance", () => {
  it.each([
    ["gait", "trot", { kind: "highest-gait", detail: "walk" }, true],
    ["gait", "walk", { kind: "highest-gait", detail: "walk" }, false],
    ["gait", "canter", { kind: "highest-gait", detail: "trot" }, true],
    ["circle", 8, {}, true],
    ["circle", 8, { kind: "circling-minutes", amount: 5 }, false],
    ["side", "right", { kind: "one-side", detail: "left" }, true],
    ["side", "left", { kind: "one-side", detail: "left" }, false],
    ["load", 12, { kind: "weight-limit", amount: 10 }, true],
    ["load", 10, { kind: "weight-limit", amount: 10 }, false],
    ["touch-zone", "flank", { kind: "touch-off", detail: "flank" }, true],
    ["touch-zone", "neck", { kind: "touch-off", detail: "flank" }, false],
    ["stay", 30, {}, false],
  ] as const)("%s %s under %j: barred %s", (key, value, change, barred) => {
    expect(barredValue(strandFromCatalogue(key, "s"), value, allow(change as Partial<Restriction>)) !== null).toBe(barred);
  });

  it("a user's own gait is barred by where the list puts it", () => {
    const strand = { ...strandFromCatalogue("gait", "s"), levels: ["walk", "trot", "running walk", "hand gallop"] };
    expect(barredValue(strand, "running walk", allow({ kind: "highest-gait", detail: "trot" }))).toBe("No faster gait than trot.");
    expect(barredValue(strand, "running walk", allow({ kind: "highest-gait", detail: "canter" }))).toBeNull();
  });

  it("a rung for both sides stays open while one side is", () => {
    expect(barredRung(plan("side", ["both"]), 1, allow({ kind: "one-side", detail: "left" }))).toEqual([]);
  });

  it("the highest allowed rung at or below the wanted one is found, with why", () => {
    const gaits = plan("gait", ["stand", "walk", "trot", "canter"]);
    const walk = allow({ kind: "highest-gait", detail: "walk", reason: "stiff" });
    expect(allowedRung(gaits, 2, walk)).toEqual({ rung: 2, why: null });
    expect(allowedRung(gaits, 4, walk)).toEqual({ rung: 2, why: "No faster gait than walk: stiff." });
    expect(allowedRung(plan("circle", [4, 6]), 2, allow({}))).toBeNull();
    expect(barredRung(gaits, 9, walk)).toEqual([]);
  });
});

describe("kit", () => {
  const use: KitUse = { loading: false, leaves: false, handlerMetres: null, loadLimit: null };
  const kit = (change: Partial<Kit>): Kit => ({
    name: "It",
    kind: "line",
    lengthMetres: null,
    massGrams: null,
    bucklesEqual: null,
    ...change,
  });

  it.each([
    ["a short line, loading", { lengthMetres: 2.4 }, { loading: true }, /2\.4 m, too short for loading.*3 m or more/],
    ["a short line, a horse that leaves", { lengthMetres: 2.9 }, { leaves: true }, /too short for a horse that leaves/],
    ["a line nobody measured", {}, { loading: true }, /not noted/],
    ["a stick that cannot reach", { kind: "stick", lengthMetres: 1.2 }, { handlerMetres: 2 }, /reaches 1\.8 m.*puts you at 2 m/],
    ["unequal buckles", { kind: "halter", bucklesEqual: false }, {}, /different holes/],
    ["buckles nobody looked at", { kind: "roller or harness" }, {}, /nobody has noted/],
    [
      "a roller over the limit",
      { kind: "roller or harness", massGrams: 6000, bucklesEqual: true },
      { loadLimit: { kg: 5, why: "Advice." } },
      /6 kg, over the limit of 5 kg\. Advice\./,
    ],
  ] as const)("%s is said", (_, piece, change, words) => {
    expect(kitCautions([kit(piece as Partial<Kit>)], { ...use, ...change })[0]).toMatch(words);
  });

  it.each([
    ["a line of 3 m for loading", { lengthMetres: 3 }, { loading: true }],
    ["a short line where nothing asks for more", { lengthMetres: 1 }, {}],
    ["a stick that reaches", { kind: "stick", lengthMetres: 1.5 }, { handlerMetres: 2 }],
    ["equal buckles", { kind: "halter", bucklesEqual: true }, {}],
  ] as const)("%s passes", (_, piece, change) => {
    expect(kitCautions([kit(piece as Partial<Kit>)], { ...use, ...change })).toEqual([]);
  });

  it("reads metres in a handler place, or takes the usual", () => {
    expect(["2 m off", "2,5 m off", "at the head", "behind", "out of sight"].map(handlerPlaceMetres)).toEqual([2, 2.5, 0.5, 1.5, null]);
  });
});

describe("breathingRate", () => {
  it("is breaths over the time between first and last tap", () => {
    const rate = breathingRate([0, 5000, 10_000, 15_000, 20_000, 25_000, 30_000]);
    expect(rate).toMatchObject({ perMinute: 12, breaths: 6, seconds: 30 });
    // Breaths alike to the millisecond leave nothing open.
    expect(rate?.interval?.[0]).toBeCloseTo(12, 9);
  });

  it("takes its interval from how much the breaths differ", () => {
    // Intervals 4, 5, 6 s: mean 5, s = 1, t with 2 degrees 4.3027 in printed tables: 5 ± 2.4841 s.
    const rate = breathingRate([0, 4000, 9000, 15_000]);
    expect(rate?.perMinute).toBe(12);
    expect(rate?.interval?.[0]).toBeCloseTo(60 / 7.4841, 3);
    expect(rate?.interval?.[1]).toBeCloseTo(60 / 2.5159, 3);
    // One interval, or two so uneven that none is ruled out, tell no interval.
    expect(breathingRate([0, 5000])?.interval).toBeNull();
    expect(breathingRate([0, 1000, 9000])?.interval).toBeNull();
  });

  it("goes by readings where there are three, since days differ more than breaths", () => {
    const reading = (perMinute: number) =>
      breathSums([0, 60_000 / perMinute, 120_000 / perMinute]) ?? { breaths: 0, seconds: 0, squares: 0 };
    expect(breathingOver([])).toBeNull();
    expect(breathingOver([reading(12)])).toMatchObject({ readings: 1, perMinute: 12 });
    expect(breathingOver([reading(12), reading(10)])).toMatchObject({ perMinute: 11, interval: null });
    // 10, 12, 14: mean 12, s = 2, 12 ± 4.3027·2/√3.
    const three = breathingOver([reading(10), reading(12), reading(14)]);
    expect(three?.interval?.[0]).toBeCloseTo(12 - 4.9683, 3);
    expect(three?.interval?.[1]).toBeCloseTo(12 + 4.9683, 3);
  });

  it("needs two taps at different moments, in any order", () => {
    expect(breathingRate([])).toBeNull();
    expect(breathingRate([5])).toBeNull();
    expect(breathingRate([5, 5])).toBeNull();
    expect(breathingRate([6000, 0])?.perMinute).toBe(10);
  });
});

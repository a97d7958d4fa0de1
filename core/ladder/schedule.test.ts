import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import {
  criterionOf,
  earnsReinforcer,
  foodPlan,
  type LadderPlan,
  ratioList,
  ratioProgression,
  reinforcedShare,
  scheduleSentence,
  thinnedSchedules,
} from "./index";

describe("ratioProgression (Fleshler & Hoffman 1962, adapted to ratios; the formula from memory)", () => {
  it("is the interval progression where nothing is rounded: N = 10, mean 100, worked out from the formula by hand", () => {
    // t(1) = 100·(1 + ln 10 + 9·ln 9 − 10·ln 10) = 5.1746; t(10) = 100·(1 + ln 10) = 330.26.
    const list = ratioProgression(100, 10);
    expect(list[0]).toBe(5);
    expect(list[9]).toBe(330);
    expect(list.reduce((sum, ratio) => sum + ratio, 0)).toBe(1000);
  });

  it("rises, holds whole answers from 1, and has its mean exactly (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 30 }), (mean, count) => {
        const list = ratioProgression(mean, count);
        expect(list).toHaveLength(count);
        expect(list.reduce((sum, ratio) => sum + ratio, 0)).toBe(mean * count);
        expect(list.every((ratio) => Number.isInteger(ratio) && ratio >= 1)).toBe(true);
        expect(list).toEqual([...list].sort((a, b) => a - b));
      }),
    );
  });

  it("pays with a nearly steady chance: of what is left of the list, the share that pays next hardly moves", () => {
    const list = ratioProgression(20, 60);
    const hazard = (from: number, to: number) => list.filter((r) => r > from && r <= to).length / list.filter((r) => r > from).length;
    expect(hazard(0, 10)).toBeCloseTo(1 - Math.exp(-0.5), 1);
    expect(hazard(20, 30)).toBeCloseTo(1 - Math.exp(-0.5), 1);
    expect(() => ratioProgression(0)).toThrow(RangeError);
    expect(() => ratioProgression(2.5)).toThrow(RangeError);
  });

  it("is shuffled by its seed and by nothing else", () => {
    expect(ratioList(4, 7)).toEqual(ratioList(4, 7));
    expect(ratioList(4, 7)).not.toEqual(ratioList(4, 8));
    expect([...ratioList(4, 7)].sort((a, b) => a - b)).toEqual(ratioProgression(4));
  });
});

describe("earnsReinforcer", () => {
  const earned = (schedule: Parameters<typeof earnsReinforcer>[0], n: number) =>
    Array.from({ length: n }, (_, i) => i + 1).filter((nth) => earnsReinforcer(schedule, nth));

  it("follows every one, a fixed ratio, and a list that begins again", () => {
    expect(earned({ kind: "every" }, 4)).toEqual([1, 2, 3, 4]);
    expect(earned({ kind: "fixed", ratio: 3 }, 10)).toEqual([3, 6, 9]);
    expect(earned({ kind: "variable", ratio: 2, list: [1, 3, 2] }, 12)).toEqual([1, 4, 6, 7, 10, 12]);
    expect(earned({ kind: "variable", ratio: 2 }, 6)).toEqual([2, 4, 6]);
  });

  it("of a list reinforces the share it says, in the long run", () => {
    const list = ratioList(5, 3);
    expect(earned({ kind: "variable", ratio: 5, list }, 600)).toHaveLength(600 * reinforcedShare({ kind: "variable", ratio: 5 }));
  });
});

describe("thinnedSchedules", () => {
  it("goes from every one over every second to a variable ratio", () => {
    expect(thinnedSchedules(8, 4).map(({ kind }) => kind)).toEqual([
      "every",
      "every",
      "every",
      "fixed",
      "fixed",
      "fixed",
      "variable",
      "variable",
    ]);
    expect(thinnedSchedules(2, 3).map(({ kind }) => kind)).toEqual(["every", "fixed"]);
    expect(() => thinnedSchedules(5, 1)).toThrow(RangeError);
    expect(scheduleSentence({ kind: "fixed", ratio: 3 })).toBe("every 3rd");
    expect(scheduleSentence({ kind: "fixed", ratio: 12 })).toBe("every 12th");
  });
});

describe("a rung's own schedule and food", () => {
  const plan: LadderPlan = {
    ...emptyDraft().plan,
    feeding: { reinforcer: "food", pieceGrams: 2, dayLimitGrams: 40, where: "at the hip", politeSeconds: 1 },
    rungs: [
      { values: { form: "any movement", latency: 10 } },
      { values: { form: "weight shift", latency: 10 }, schedule: { kind: "variable", ratio: 4 } },
    ],
  };

  it("goes into the criterion with its list", () => {
    expect(criterionOf(plan, 1).schedule).toEqual({ kind: "every" });
    const schedule = criterionOf(plan, 2, { seed: 9 }).schedule;
    expect(schedule).toEqual({ kind: "variable", ratio: 4, list: ratioList(4, 9) });
  });

  it("plans pieces a fifth over the expected and checks the day's limit", () => {
    expect(foodPlan(plan, 1, 20, 0.8)).toEqual({ pieces: 20, grams: 40, withinLimit: true });
    expect(foodPlan(plan, 1, 21, 0.8)).toMatchObject({ pieces: 21, withinLimit: false });
    expect(foodPlan(plan, 2, 20, 0.8)).toMatchObject({ pieces: 5 });
    expect(foodPlan({ ...plan, method: "pressure-release" }, 1, 20, 0.8)).toBeNull();
    expect(foodPlan({ ...plan, feeding: { ...plan.feeding, pieceGrams: null } }, 1, 20, 0.8)).toMatchObject({
      grams: null,
      withinLimit: null,
    });
    expect(() => foodPlan(plan, 1, -1, 0.8)).toThrow(RangeError);
  });
});

import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { placesOf, spoilt as spoiltAt } from "@/tests/support/spoil";
import { EASE_GRADES } from "../../strands";
import type { LadderPlan } from "..";
import { PLAN_FORMAT, planText, readPlanText } from ".";
import { mendPlan } from "./mend";

const OTHERWISE = emptyDraft().plan;
const PLAN: LadderPlan = {
  ...OTHERWISE,
  strands: [
    { id: "stay", key: "stay", name: "stay", kind: "number", unit: "s", levels: [], harder: "more" },
    { id: "calm", key: "ease", name: "calm", kind: "levels", unit: "", levels: [...EASE_GRADES], harder: "more" },
  ],
  rungs: [1, 2, 4, 8].map((stay) => ({ values: { stay, calm: "deeply relaxed" } })),
  workingStrandId: "stay",
  plannedRepetitions: 5,
};

type Loose = Record<string, unknown> & {
  rungs: { values: Record<string, unknown> }[];
  strands: Record<string, unknown>[];
  phases: Record<string, unknown>[];
};

const spoilt = (spoil: (plan: Loose) => void): string => {
  const plan = JSON.parse(planText(PLAN)) as Loose;
  spoil(plan);
  return JSON.stringify(plan);
};

describe("a plan that is mended", () => {
  it("is the plan itself where nothing is wrong", () => {
    expect(mendPlan(planText(PLAN), OTHERWISE)).toEqual({ plan: PLAN, lost: [] });
  });

  it.each<[string, (plan: Loose) => void, string[], (plan: LadderPlan) => unknown, unknown]>([
    ["a word nobody knows", (p) => (p.method = "magic"), ["the method"], (p) => p.method, OTHERWISE.method],
    ["a rule that is none", (p) => (p.mastery = []), ["when it moves on"], (p) => p.mastery, { ...OTHERWISE.mastery, days: 3 }],
    ["a setting that is gone", (p) => delete p.plannedRepetitions, ["the repetitions"], (p) => p.plannedRepetitions, 8],
    [
      "a rung's number: it asks what the rung below asks",
      (p) => Object.assign(p.rungs[2]?.values ?? {}, { stay: "long" }),
      ["rung 3"],
      (p) => p.rungs.map(({ values }) => values.stay),
      [1, 2, 2, 8],
    ],
    [
      "the lowest rung's number: that of the next",
      (p) => Object.assign(p.rungs[0]?.values ?? {}, { stay: null }),
      ["rung 1"],
      (p) => p.rungs.map(({ values }) => values.stay),
      [2, 2, 4, 8],
    ],
    [
      "a whole rung, which keeps its place",
      (p) => p.rungs.splice(1, 1, "gone" as never),
      ["rung 2"],
      (p) => p.rungs.map(({ values }) => values.stay),
      [1, 1, 4, 8],
    ],
    [
      "calm: never less than soft",
      (p) => Object.assign(p.rungs[3]?.values ?? {}, { calm: "frantically" }),
      ["rung 4"],
      (p) => p.rungs[3]?.values.calm,
      "soft",
    ],
    [
      "a strand, which goes",
      (p) => p.strands.splice(0, 1, { id: "stay" }),
      ["strand 1", "the counted strand"],
      (p) => p.strands.map(({ id }) => id),
      ["calm"],
    ],
    [
      "the strand of calm, which stays and asks what it asked",
      (p) => p.strands.splice(1, 1, { id: "calm", key: "ease" }),
      ["strand 2"],
      (p) => [p.strands[1]?.levels, p.rungs.map(({ values }) => values.calm)],
      [[...EASE_GRADES], Array(4).fill("deeply relaxed")],
    ],
    [
      "a phase of the cue, which goes",
      (p) => p.phases.splice(0, 1, {}),
      ["phase 1"],
      (p) => p.phases[0]?.label,
      OTHERWISE.phases[1]?.label,
    ],
    ["the counted strand", (p) => (p.workingStrandId = "calm"), ["the counted strand"], (p) => p.workingStrandId, null],
  ])("%s", (_, spoil, lost, look, wanted) => {
    const mended = mendPlan(spoilt(spoil), OTHERWISE);
    expect(mended.lost).toEqual(lost);
    expect(look(mended.plan)).toEqual(wanted);
    expect("plan" in readPlanText(PLAN_FORMAT, planText(mended.plan))).toBe(true);
  });

  it.each(["", "{", "null", "[]", "7", '"x"', "{}"])("out of %j is one that can be worked, and says what it is not", (text) => {
    const { plan, lost } = mendPlan(text, OTHERWISE);
    expect("plan" in readPlanText(PLAN_FORMAT, planText(plan))).toBe(true);
    expect(lost.length).toBeGreaterThan(0);
    expect(plan.mastery.days).toBe(3);
  });

  it("can be worked wherever one value is spoilt", () => {
    for (const path of placesOf(PLAN).slice(1))
      for (const to of [null, -1, "x", [], {}]) {
        const text = JSON.stringify(spoiltAt(PLAN, path, to));
        const { plan, lost } = mendPlan(text, OTHERWISE);
        const where = `${path.join(".")} = ${JSON.stringify(to)}`;
        expect("plan" in readPlanText(PLAN_FORMAT, planText(plan)), where).toBe(true);
        // What was changed is said.
        if (!("plan" in readPlanText(PLAN_FORMAT, text))) expect(lost, where).not.toEqual([]);
      }
  });
});

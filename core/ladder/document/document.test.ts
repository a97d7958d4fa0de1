import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { ODD_VALUES, placesOf, spoilt } from "@/tests/support/spoil";
import { checkLadderPlan } from "../../schemas";
import type { LadderPlan } from "..";
import { PLAN_FORMAT, planText, readPlanText } from ".";

/** A plan that says something everywhere. */
const FULL: LadderPlan = {
  ...emptyDraft().plan,
  strands: [
    { id: "stay", key: "stay", name: "stay", kind: "number", unit: "s", levels: [], harder: "more" },
    { id: "around", key: "surroundings", name: "around", kind: "levels", unit: "", levels: ["quiet", "busy"], harder: "more" },
  ],
  rungs: [
    {
      values: { stay: 2, around: "quiet" },
      method: "combined",
      schedule: { kind: "fixed", ratio: 3 },
      percentile: { lookBack: 10, wantedShare: 0.5 },
      kept: "known",
      leastMovement: 2,
      handlerMost: [{ act: "steps", most: 1 }],
    },
    { values: { stay: 4, around: "busy" } },
  ],
  phases: [
    { label: "point", kind: "point", profile: "steady", dwellSeconds: 2, pulsesPerMinute: null },
    { label: "tap", kind: "tap", profile: "pulse", dwellSeconds: 2, pulsesPerMinute: 60 },
  ],
  transfer: { gapSeconds: 1 },
  firstTouchCentimetres: 20,
  mastery: { kind: "share", met: 8, of: 10, window: "moving", days: 2 },
  schedule: { kind: "variable", ratio: 4 },
  feeding: { reinforcer: "food", pieceGrams: 2, dayLimitGrams: 300, where: "knee", politeSeconds: 1 },
  workingStrandId: "stay",
  ways: { taught: "plain" },
  conversation: {
    whenWrong: { did: "left", met: "ignored", plan: "" },
    ownTimes: ["looks"],
    pinned: [{ name: "licks", class: "ease" }],
    acts: ["late"],
    movement: ["a", "b", "c", "d", "e"],
    retreats: true,
    rig: [{ text: "girth", when: "start" }],
  },
};

const MASTERIES: readonly LadderPlan["mastery"][] = [
  { kind: "run", length: 5 },
  { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 },
  { kind: "first-clean", days: 2 },
];

const read = (value: unknown) => readPlanText(PLAN_FORMAT, JSON.stringify(value) ?? "");

describe("a plan as a document", () => {
  it("is read as it was written", () => {
    for (const plan of [FULL, ...MASTERIES.map((mastery) => ({ ...FULL, mastery }))])
      expect(readPlanText(PLAN_FORMAT, planText(plan))).toEqual({ plan });
  });

  it("takes whatever the form gives, and nothing that the form refuses", () => {
    let taken = 0;
    let refused = 0;
    const tried = [
      ...placesOf(FULL).map((path) => ({ plan: FULL, path })),
      ...MASTERIES.flatMap((mastery) => placesOf(mastery).map((path) => ({ plan: { ...FULL, mastery }, path: ["mastery", ...path] }))),
    ];
    for (const { plan, path } of tried)
      for (const to of ODD_VALUES) {
        const value = spoilt(plan, path, to);
        const form = checkLadderPlan(value);
        const name = `${path.join(".")} = ${JSON.stringify(to)?.slice(0, 40)}`;
        if (form.ok) {
          taken++;
          expect(read(form.value), name).toEqual({ plan: JSON.parse(JSON.stringify(form.value)) });
        } else {
          refused++;
          expect("plan" in read(value), name).toBe(false);
        }
      }
    expect(taken).toBeGreaterThan(100);
    expect(refused).toBeGreaterThan(1000);
  });

  it("cannot be changed by whoever got it", () => {
    const found = readPlanText(PLAN_FORMAT, planText(FULL));
    if (!("plan" in found)) throw new Error("a plan");
    expect(() => Object.assign(found.plan.rungs[0]?.values ?? {}, { stay: 9 })).toThrow(TypeError);
    expect(() => (found.plan.strands as unknown[]).push({})).toThrow(TypeError);
  });

  it.each<[string, number, string, string]>([
    ["of a later format", PLAN_FORMAT + 1, planText(FULL), "A newer version wrote it."],
    ["that is cut off", PLAN_FORMAT, planText(FULL).slice(0, 90), "Its text is not whole."],
    ["that is empty", PLAN_FORMAT, "", "Its text is not whole."],
  ])("%s is no plan, and says why", (_, format, text, why) => {
    expect(readPlanText(format, text)).toEqual({ problems: [{ path: "", message: why }] });
  });

  it("names the place of what is wrong", () => {
    const found = read(spoilt(FULL, ["phases", 1, "dwellSeconds"], "long"));
    expect("problems" in found && found.problems[0]?.path).toBe("phases[1].dwellSeconds");
    expect(read(spoilt(FULL, ["workingStrandId"], "gone"))).toEqual({
      problems: [{ path: "workingStrandId", message: "Counted strand: choose a strand of numbers." }],
    });
  });
});

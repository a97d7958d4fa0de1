import { describe, expect, it } from "vitest";
import { checkLadderPlan } from "../schemas";
import { stepFaults } from "../strands";
import { starterPlan } from "./starter";

describe("starterPlan", () => {
  it("is a ladder that can be saved, without a fault in its steps", () => {
    const plan = starterPlan(null);
    expect(checkLadderPlan(plan)).toMatchObject({ ok: true });
    expect(
      stepFaults(
        plan.strands,
        plan.rungs.map(({ values }) => values),
      ),
    ).toEqual([]);
  });
  it("takes the cue of another ladder of the same horse over, also one of a single phase", () => {
    const one = starterPlan(null);
    const like = { ...one, phases: one.phases.slice(0, 1), method: "marker-food" as const, maximumSeconds: 12 };
    const plan = starterPlan(like);
    expect(plan).toMatchObject({ method: "marker-food", maximumSeconds: 12 });
    expect(plan.rungs).toHaveLength(2);
    expect(checkLadderPlan(plan)).toMatchObject({ ok: true });
  });
});

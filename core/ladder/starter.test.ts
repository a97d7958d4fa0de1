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
  it("takes method and rules of another ladder of the same horse over, and never its cue", () => {
    const one = starterPlan(null);
    const phases = [{ label: "cluck", kind: "voice" as const, profile: "steady" as const, dwellSeconds: 9, pulsesPerMinute: null }];
    const plan = starterPlan({ ...one, phases, method: "marker-food", maximumSeconds: 12 });
    expect(plan).toMatchObject({ method: "marker-food", maximumSeconds: 12 });
    expect(plan.phases).toEqual(one.phases);
    expect(plan.rungs).toHaveLength(one.rungs.length);
    expect(checkLadderPlan(plan)).toMatchObject({ ok: true });
  });
});

import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { planByWay } from "./by-way";
import { type LadderPlan, methodOf } from "./ladder";

const plan = (change: Partial<LadderPlan> = {}): LadderPlan => ({ ...emptyDraft().plan, ...change });

describe("a plan by a way", () => {
  it("earns what the way says, and nothing else of it changes", () => {
    const fed = plan({ method: "combined" });
    expect(planByWay(fed, { reinforcer: "scratch" })).toEqual({ ...fed, feeding: { ...fed.feeding, reinforcer: "scratch" } });
    expect(planByWay(fed, {})).toEqual(fed);
    expect(planByWay(fed, { zone: "gate", kit: "stick" })).toEqual(fed);
  });
  it("feeds on rungs that are worked by release alone, and leaves the others' method", () => {
    const own = plan({ method: "pressure-release" });
    const rungs = own.rungs.map((rung, i) => (i === 1 ? { ...rung, method: "marker-food" as const } : rung));
    const fed = planByWay({ ...own, rungs }, { reinforcer: "food" });
    expect(fed.rungs.map((_, i) => methodOf(fed, i + 1)).slice(0, 2)).toEqual(["combined", "marker-food"]);
    expect(planByWay(own, { reinforcer: "scratch" }).method).toBe("pressure-release");
    const mixed = plan({ method: "combined", rungs: own.rungs.map((rung) => ({ ...rung, method: "pressure-release" as const })) });
    expect(methodOf(planByWay(mixed, { reinforcer: "food" }), 1)).toBe("combined");
  });
  it("asks with what the way says, at its own dwell", () => {
    const own = plan();
    const led = planByWay(own, { cue: "lead" });
    expect(led.phases.map(({ kind }) => kind)).toEqual(own.phases.map(() => "lead"));
    expect(led.phases.map(({ dwellSeconds }) => dwellSeconds)).toEqual(own.phases.map(({ dwellSeconds }) => dwellSeconds));
    expect(led.phases[0]?.label).toBe("lead 1");
    const pulsed = planByWay(own, { profile: "pulse" });
    expect(pulsed.phases.every(({ profile, pulsesPerMinute }) => profile === "pulse" && (pulsesPerMinute ?? 0) > 0)).toBe(true);
    expect(planByWay(pulsed, { profile: "steady" }).phases.every(({ pulsesPerMinute }) => pulsesPerMinute === null)).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { strandFromCatalogue } from "../strands";
import { expectedRepetitions, type LadderPlan, otherSettingsDiffer, planChanges, unchangedRungs } from "./index";

const plan = (stays: readonly number[], change: Partial<LadderPlan> = {}): LadderPlan => ({
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("stay", "stay")],
  rungs: stays.map((stay) => ({ values: { stay } })),
  ...change,
});

describe("unchangedRungs", () => {
  it.each([
    [
      "nothing",
      [1, 2, 4],
      [1, 2, 4],
      [
        [1, 1],
        [2, 2],
        [3, 3],
      ],
    ],
    [
      "a rung put in",
      [1, 2, 8],
      [1, 2, 4, 8],
      [
        [1, 1],
        [2, 2],
        [3, 4],
      ],
    ],
    [
      "a rung taken out",
      [1, 2, 4, 8],
      [1, 2, 8],
      [
        [1, 1],
        [2, 2],
        [4, 3],
      ],
    ],
    [
      "a value changed",
      [1, 2, 4],
      [1, 3, 4],
      [
        [1, 1],
        [3, 3],
      ],
    ],
    [
      "rungs alike, each once",
      [2, 2],
      [2, 2, 2],
      [
        [1, 1],
        [2, 2],
      ],
    ],
  ] as [string, number[], number[], [number, number][]][])("%s", (_, before, after, pairs) => {
    expect([...unchangedRungs(plan(before), plan(after))]).toEqual(pairs);
  });

  it("is lost with another cue, another maximum, another meaning of the level; not with another rule or dwell", () => {
    const old = plan([1, 2]);
    const phases = old.phases.map((phase, i) => (i === 0 ? { ...phase, label: "breath" } : phase));
    expect(unchangedRungs(old, { ...old, phases }).size).toBe(0);
    expect(unchangedRungs(old, { ...old, maximumSeconds: 5 }).size).toBe(0);
    expect(unchangedRungs(old, { ...old, strands: old.strands.map((s) => ({ ...s, harder: "less" as const })) }).size).toBe(0);
    // Two strands of the trainer's own: the other one is counted now.
    const own = (id: string) => ({
      id,
      key: "own" as const,
      name: id,
      kind: "number" as const,
      unit: "",
      levels: [],
      harder: "more" as const,
    });
    const two = { ...old, strands: [own("steps"), own("height")], rungs: [{ values: { steps: 1, height: 2 } }], workingStrandId: "steps" };
    expect(unchangedRungs(two, { ...two }).size).toBe(1);
    expect(unchangedRungs(two, { ...two, workingStrandId: "height" }).size).toBe(0);
    const slower = old.phases.map((phase) => ({ ...phase, dwellSeconds: 9 }));
    expect(unchangedRungs(old, { ...old, phases: slower, mastery: { kind: "run", length: 2 }, plannedRepetitions: 3 }).size).toBe(2);
  });
});

describe("planChanges", () => {
  it("says what is new, rewritten, gone and moved, and which strands", () => {
    const change = planChanges(plan([1, 2, 8, 16]), plan([1, 3, 8, 10, 16]));
    expect(change.from).toEqual([1, null, 3, null, 4]);
    expect(change.changed).toEqual([[], ["stay"], [], ["stay"], []]);
    expect(change.gone).toEqual([]);
    expect(change.sentences).toEqual([
      "Rung 4 is new.",
      "Rung 2 asks something else.",
      "Rung 5 stands at another place and asks the same.",
    ]);
    expect(planChanges(plan([1, 2, 4]), plan([1, 4])).sentences).toEqual([
      "Rung 2 of the version before is gone.",
      "Rung 2 stands at another place and asks the same.",
    ]);
    expect(planChanges(plan([1, 2]), plan([1, 2])).sentences).toEqual([]);
  });

  it("names what changed beside the rungs", () => {
    const old = plan([1, 2]);
    const now = { ...old, mastery: { kind: "run" as const, length: 3 }, method: "marker-food" as const, ways: { pressure: "rising" } };
    expect(planChanges(old, now).sentences).toEqual([
      "Moves on when: 3 in a row, was 9 of the last 10.",
      "Method: marker and food, was combined: release, mark and food.",
      "The ask while the horse thinks: rising, was steady.",
    ]);
  });
});

describe("otherSettingsDiffer", () => {
  const old = plan([1, 2]);
  const phase = { label: "body", kind: "body", profile: "steady", dwellSeconds: 3, pulsesPerMinute: null } as const;
  it.each<[string, Partial<LadderPlan>]>([
    ["repetitions", { plannedRepetitions: old.plannedRepetitions + 1 }],
    ["how long a phase is held", { phases: [{ ...phase, dwellSeconds: 9 }, ...old.phases.slice(1)] }],
    ["how it presses", { phases: [{ ...phase, profile: "rising" }, ...old.phases.slice(1)] }],
    ["one piece", { feeding: { ...old.feeding, pieceGrams: 5 } }],
    ["the transfer", { transfer: { gapSeconds: 1 } }],
    ["what an offer earns", { offers: "ignore" }],
  ])("sees %s", (_, change) => expect(otherSettingsDiffer(old, { ...old, ...change })).toBe(true));

  it("says nothing of what a sentence tells, nor of nothing", () => {
    expect(otherSettingsDiffer(old, plan([3, 4], { maximumSeconds: 5, method: "marker-food" }))).toBe(false);
    const relabelled = old.phases.map((one) => ({ ...one, label: `${one.label}!` }));
    expect(otherSettingsDiffer(old, { ...old, phases: relabelled })).toBe(false);
  });
});

describe("expectedRepetitions", () => {
  it("adds the exact mean of the rule up over the rungs, twice where both sides are asked", () => {
    const side = strandFromCatalogue("side", "side");
    const both: LadderPlan = {
      ...plan([1, 2]),
      strands: [side],
      rungs: [{ values: { side: "left" } }, { values: { side: "both" } }],
      mastery: { kind: "run", length: 3 },
      schedule: { kind: "fixed", ratio: 2 },
    };
    // A run of 3 at 0.5 takes 14 on average (Feller 1968).
    expect(expectedRepetitions(both, 0.5)).toEqual({ byRung: [14, 28], total: 42, reinforced: 10.5 });
    expect(expectedRepetitions({ ...both, mastery: { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 } }, 0.7).total).toBeNull();
  });
});

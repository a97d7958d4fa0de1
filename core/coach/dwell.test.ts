import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { dwellConsistency, heldPhases } from "../record";
import { reduceSession } from "../record/reduce-session";
import { type DwellPlan, dwellAdvice, plannedDwell } from "./dwell";

const plan: DwellPlan = {
  phases: [
    { label: "look", kind: "body", dwellSeconds: 3, profile: "rising" },
    { label: "point", kind: "point", dwellSeconds: 2, profile: "steady" },
    { label: "tap", kind: "tap", dwellSeconds: 2, profile: "pulse" },
  ],
  maximumSeconds: 20,
  holdOnWrong: true,
  transfer: null,
  firstTouchCentimetres: null,
};

describe("dwellAdvice", () => {
  it.each([
    ["inside the dwell", { phase: 1, answer: null }, 2, "hold"],
    ["at its end, rising", { phase: 1, answer: null }, 3, "step up"],
    ["at its end, steady: the trainer's choice", { phase: 2, answer: null }, 2, "step up"],
    ["the clearest phase", { phase: 3, answer: null }, 5, "clearest"],
    ["on a try", { phase: 1, answer: "try" }, 9, "hold the try"],
    ["on what was asked", { phase: 1, answer: "met" }, 4, "release"],
    ["on something else", { phase: 1, answer: "wrong" }, 9, "hold: wrong answer"],
    ["at the maximum", { phase: 3, answer: null }, 20, "maximum"],
    ["at the maximum, also on a try", { phase: 2, answer: "try" }, 25, "maximum"],
    ["what was asked comes at the very end", { phase: 3, answer: "met" }, 21, "release"],
  ] as const)("%s", (_, ask, seconds, word) => {
    expect(dwellAdvice(plan, { ...ask, askMs: 1000, phaseMs: 1000 }, 1000 + seconds * 1000).word).toBe(word);
  });

  it("fills the ring with the dwell and counts the ask down", () => {
    const at = dwellAdvice(plan, { phase: 1, answer: null, askMs: 0, phaseMs: 4000 }, 5500);
    expect(at).toMatchObject({ ring: 0.5, heldSeconds: 1.5, plannedSeconds: 3, leftSeconds: 14.5 });
    expect(dwellAdvice(plan, { phase: 1, answer: null, askMs: 0, phaseMs: 0 }, 60_000)).toMatchObject({ ring: 1, leftSeconds: 0 });
  });

  it("counts a stay from being in place, and lets go at its end or when it is said to be reached", () => {
    const at = (seconds: number, reached = false) =>
      dwellAdvice(
        plan,
        { phase: 1, answer: "met", askMs: 0, phaseMs: 0, stay: { askedSeconds: 8, sinceMs: 2000, reached } },
        2000 + seconds * 1000,
      );
    expect(at(4)).toMatchObject({ word: "stays", ring: 0.5, heldSeconds: 4 });
    expect(at(8)).toMatchObject({ word: "release", sentence: "8 s. That is it. Let go." });
    expect(at(30).word).toBe("release");
    expect(at(1, true).word).toBe("release");
  });

  it("says from how near a touch begins", () => {
    const near = { ...plan, firstTouchCentimetres: 15 };
    const at = (phase: number) => dwellAdvice(near, { phase, answer: null, askMs: 0, phaseMs: 0 }, 4000).sentence;
    expect([at(1), at(2)]).toEqual(["Go to point.", "Time at this level is up. Hold, or go to tap, starting 15 cm away."]);
  });

  it("steps up on a wrong answer where the plan does not hold", () => {
    const loose = { ...plan, holdOnWrong: false };
    expect(dwellAdvice(loose, { phase: 1, answer: "wrong", askMs: 0, phaseMs: 0 }, 4000).word).toBe("step up");
  });

  it("waits the gap of a cue transfer before the old cue", () => {
    expect(plannedDwell({ ...plan, transfer: { gapSeconds: 1.2 } }, 1)).toBe(1.2);
    expect(plannedDwell({ ...plan, transfer: { gapSeconds: 1.2 } }, 2)).toBe(2);
  });
});

describe("planned against real dwell", () => {
  const record = (steps: readonly (readonly [at: number, phase: number])[]) => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "Any.", dwell_s: [2, 2, 2], phases: ["a", "b", "c"] } });
    w.add(10, "ask", { phase: 1 });
    for (const [at, phase] of steps) w.add(at, "phase", { phase, by: "press" });
    w.add(30, "response", { answer: "met" });
    w.add(30.2, "release");
    return reduceSession(w.events);
  };

  it("takes each phase that was left for a clearer one by a press, and no other", () => {
    expect(
      heldPhases(
        record([
          [12, 2],
          [15, 3],
        ]),
      ),
    ).toEqual([
      { trial: 1, phase: 1, plannedSeconds: 2, heldSeconds: 2 },
      { trial: 1, phase: 2, plannedSeconds: 2, heldSeconds: 3 },
    ]);
    expect(
      heldPhases(
        record([
          [12, 2],
          [15, 1],
        ]),
      ),
    ).toHaveLength(1);
    expect(heldPhases(record([]))).toEqual([]);
  });

  it("is kept within 25 % either way", () => {
    expect(
      dwellConsistency(
        heldPhases(
          record([
            [11.5, 2],
            [14, 3],
          ]),
        ),
      ),
    ).toEqual({ n: 2, within: 2, share: 1, tooSoon: 0, tooLate: 0 });
    expect(
      dwellConsistency(
        heldPhases(
          record([
            [11.4, 2],
            [14, 3],
          ]),
        ),
      ),
    ).toMatchObject({ within: 0, tooSoon: 1, tooLate: 1, share: 0 });
    expect(dwellConsistency([]).share).toBeNull();
  });
});

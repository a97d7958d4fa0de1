import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import type { LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record";
import { strandFromCatalogue } from "../strands";
import { type AdviceInput, nextStart, theAdvice } from "./index";

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 8, 1, 9);

/** Three steps more each; risky work: three in a row, and again on another day. */
const PLAN = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3].map((steps) => ({ values: { steps } })),
  mastery: { kind: "run", length: 3, days: 2 },
} as const satisfies LadderPlan;

/** "+" met and said to be soft, "." missed. */
const day = (text: string, rung: number, daysAgo: number, hour = 0): EvidenceTrial[] =>
  [...text].map((one, i) => ({
    session: `${daysAgo}-${hour}`,
    handler: null,
    wallMs: NOW - daysAgo * DAY + hour * 3_600_000 + i * 60_000,
    ladder: "x",
    version: 1,
    rung,
    kind: "work",
    blockKey: `${daysAgo}-${hour}:0`,
    side: null,
    outcome: one === "+" ? "met" : "miss",
    phase: 2,
    ease: one === "+" ? 3 : null,
    value: null,
    clean: false,
    comparable: true,
  }));

const start = (trials: readonly EvidenceTrial[]) => nextStart({ plan: PLAN, ladder: "x", version: 1, trials, nowWallMs: NOW });

describe("a rule over days", () => {
  it("is not passed after one of two days: the same rung again", () => {
    const next = start(day("+++", 1, 1));
    expect(next.rung).toBe(1);
    expect(next.headline).toBe("Stay on rung 1");
    expect(next.reason).toContain("1 of 2 days");
    expect(next.reason).not.toContain("is met");
  });

  it("is passed after the second", () => {
    const next = start([...day("+++", 1, 3), ...day("+++", 1, 1)]);
    expect(next.rung).toBe(2);
    expect(next.reason).toContain("Rung 1 is done");
  });

  it("is not passed by a morning and an evening of one day", () => {
    expect(start([...day("+++", 1, 1, 0), ...day("+++", 1, 1, 8)]).rung).toBe(1);
  });

  it("does not take what one side showed days ago for today's: both sides are to be had", () => {
    const sided = {
      ...PLAN,
      strands: [...PLAN.strands, strandFromCatalogue("side", "side")],
      rungs: [1, 2, 3].map((steps) => ({ values: { steps, side: "both" } })),
    };
    const on = (side: "L" | "R", daysAgo: number) =>
      day("+++", 1, daysAgo).map((trial) => ({ ...trial, side, session: `${side}${daysAgo}` }));
    const trials = [...on("L", 5), ...on("R", 5), ...on("R", 1)];
    const word = theAdvice({
      rule: PLAN.mastery,
      bothSides: true,
      running: "R",
      rung: 1,
      rungCount: 3,
      earlier: trials.slice(0, 6),
      block: trials.slice(6),
      counts: true,
      minutesSinceRest: 1,
      trialsSinceRest: 3,
      workMinutes: 3,
    });
    expect(word.why).not.toBe("day");
    expect(nextStart({ plan: sided, ladder: "x", version: 1, trials, nowWallMs: NOW }).rung).toBe(1);
  });

  it("keeps the top rung open too until its second day", () => {
    expect(start(day("+++", 3, 1)).headline).toBe("Stay on rung 3");
    expect(start([...day("+++", 3, 3), ...day("+++", 3, 1)]).headline).toBe("Keep rung 3");
  });
});

describe("nothing asked yet", () => {
  const input = (change: Partial<AdviceInput>): AdviceInput => ({
    rule: PLAN.mastery,
    bothSides: false,
    rung: 3,
    rungCount: 3,
    earlier: [],
    block: [],
    counts: true,
    minutesSinceRest: 0,
    trialsSinceRest: 0,
    workMinutes: 0,
    session: { trials: 0, planned: 60 },
    ...change,
  });

  it("begins, whatever was shown before: never Finish", () => {
    const top = theAdvice(input({ earlier: [...day("+++", 3, 3), ...day("+++", 3, 1)] }));
    expect(top.word).toBe("Start");
    expect(top.reason).toMatch(/^Begin\./);
    const today = theAdvice(input({ rung: 1, earlier: day("+++", 1, 0) }));
    expect(today.word).toBe("Start");
    expect(today.reason).toMatch(/^Begin/);
    const barred = theAdvice(input({ rung: 1, nextBarred: "Walk only.", earlier: [...day("+++", 1, 3), ...day("+++", 1, 1)] }));
    expect(barred.word).toBe("Start");
    expect(barred.reason).toContain("Walk only.");
  });

  it("goes up with the first one that meets the rule on its second day, and does not stop there for what yesterday showed", () => {
    const rule = { kind: "first-clean", days: 2 } as const;
    const clean = (trials: readonly EvidenceTrial[]) => trials.map((trial) => ({ ...trial, phase: 1, clean: true }));
    const second = theAdvice(input({ rule, rung: 1, earlier: clean(day("+", 1, 1)), block: clean(day("+", 1, 0)) }));
    expect(second.word).not.toBe("Repeat");
    expect(second.why).not.toBe("day");
  });

  it("says Finish again once it was asked", () => {
    const asked = theAdvice(input({ earlier: [...day("+++", 3, 3), ...day("+++", 3, 1)], block: day("+++", 3, 0) }));
    expect(asked.word).toBe("Finish");
  });
});

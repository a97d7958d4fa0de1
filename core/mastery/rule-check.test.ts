import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seededChance } from "../chance";
import { type MasteryRule, type MasteryTrial, masteryProgress, ruleCheck, ruleCheckSentence } from "./index";

const moving = (met: number, of: number): MasteryRule => ({ kind: "share", met, of, window: "moving" });
const one = (rule: MasteryRule, p: number, within: number) => {
  const [row] = ruleCheck(rule, [p], within);
  if (row === undefined) throw new Error("no row");
  return row;
};

describe("ruleCheck", () => {
  it.each([
    [moving(8, 10), 0.6, 20, 0.454094, 29.9683],
    [moving(8, 10), 0.8, 20, 0.944802, 12.0539],
    [moving(4, 5), 0.6, 20, 0.921695, null],
    [{ kind: "posterior", target: 0.8, confidence: 0.9, least: 5 }, 0.85, 20, 0.469642, null],
    [{ kind: "posterior", target: 0.8, confidence: 0.9, least: 5 }, 0.9, 20, 0.668702, 20.1731],
    [{ kind: "posterior", target: 0.8, confidence: 0.9, least: 5 }, 0.95, 20, 0.881394, 9.9775],
    [{ kind: "share", met: 8, of: 10, window: "block" }, 0.6, 10, 0.16729, null],
  ] as [MasteryRule, number, number, number, number | null][])(
    "%j at %d within %i (check values of the project's measures, worked out apart from this code)",
    (rule, p, within, pass, mean) => {
      const row = one(rule, p, within);
      expect(row.passWithin).toBeCloseTo(pass, 6);
      if (mean !== null) expect(row.meanTrials).toBeCloseTo(mean, 4);
    },
  );

  it("passes no block rule under a block, also where every trial is met", () => {
    const block: MasteryRule = { kind: "share", met: 8, of: 10, window: "block" };
    expect(one(block, 1, 9).passWithin).toBe(0);
    expect(one(block, 1, 10)).toMatchObject({ passWithin: 1, meanTrials: 10 });
  });

  it.each([
    [3, 0.5, 14],
    [5, 0.8, 10.2588],
  ])("a run of %i at %d takes %d on average (Feller 1968)", (length, p, mean) => {
    expect(one({ kind: "run", length }, p, 20).meanTrials).toBeCloseTo(mean, 4);
  });

  it("a moving window of all met is a run: the same chance and the same mean", () => {
    for (const p of [0.3, 0.6, 0.95]) {
      const window = one(moving(4, 4), p, 30);
      const run = one({ kind: "run", length: 4 }, p, 30);
      expect(window.passWithin).toBeCloseTo(run.passWithin, 12);
      expect(window.meanTrials).toBeCloseTo(run.meanTrials ?? 0, 8);
    }
  });

  it("keeps the mean exact where passing is rare", () => {
    // A run of 12 at 0.2: Feller's formula gives 3.05e8; the window's walk must agree without walking that far.
    const mean = one(moving(12, 12), 0.2, 20).meanTrials;
    expect((mean ?? 0) / ((1 - 0.2 ** 12) / (0.2 ** 12 * 0.8))).toBeCloseTo(1, 8);
  });

  it("agrees with playing the rule out, within sampling error", () => {
    const chance = seededChance(11);
    const rule = moving(4, 6);
    const p = 0.55;
    const runs = 4000;
    let passed = 0;
    for (let run = 0; run < runs; run++) {
      const trials: MasteryTrial[] = [];
      for (let t = 0; t < 12; t++) {
        trials.push({ met: chance() < p, clean: false, blockKey: "b", wallMs: 0 });
        if (masteryProgress(rule, trials).passed) {
          passed++;
          break;
        }
      }
    }
    const exact = one(rule, p, 12).passWithin;
    expect(Math.abs(passed / runs - exact)).toBeLessThan(4 * Math.sqrt((exact * (1 - exact)) / runs));
  });

  it("is a chance that grows with the trials and with p, and is sure or never at the ends", () => {
    const rules = fc.oneof(
      fc.integer({ min: 1, max: 9 }).chain((of) => fc.integer({ min: 1, max: of }).map((met) => moving(met, of))),
      fc.integer({ min: 1, max: 6 }).map((length): MasteryRule => ({ kind: "run", length })),
      fc.constant<MasteryRule>({ kind: "first-clean" }),
    );
    fc.assert(
      fc.property(rules, fc.double({ min: 0.05, max: 0.9, noNaN: true }), fc.integer({ min: 0, max: 60 }), (rule, p, within) => {
        const here = one(rule, p, within).passWithin;
        expect(here).toBeGreaterThanOrEqual(0);
        expect(here).toBeLessThanOrEqual(1 + 1e-12);
        expect(one(rule, p, within + 5).passWithin).toBeGreaterThanOrEqual(here - 1e-12);
        expect(one(rule, p + 0.05, within).passWithin).toBeGreaterThanOrEqual(here - 1e-12);
      }),
      { numRuns: 60 },
    );
    for (const rule of [moving(8, 10), { kind: "run", length: 3 }, { kind: "first-clean" }] as MasteryRule[]) {
      expect(one(rule, 0, 50)).toEqual({ p: 0, passWithin: 0, meanTrials: null });
      expect(one(rule, 1, 50).passWithin).toBe(1);
    }
    expect(one({ kind: "posterior", target: 0.8, confidence: 0.9, least: 5 }, 0.8, 20).meanTrials).toBeNull();
  });

  it("of a posterior rule grows likewise, and its mean is finite just above the target alone", () => {
    const rule: MasteryRule = { kind: "posterior", target: 0.7, confidence: 0.8, least: 4 };
    const rows = ruleCheck(rule, [0.3, 0.5, 0.7, 0.75, 0.85, 1], 30);
    rows.reduce((before, row) => {
      expect(row.passWithin).toBeGreaterThan(before.passWithin);
      return row;
    });
    expect(rows.map(({ meanTrials }) => meanTrials === null)).toEqual([true, true, true, false, false, false]);
    const means = rows.slice(3).map(({ meanTrials }) => meanTrials ?? 0);
    expect(means).toEqual([...means].sort((a, b) => b - a));
    // Four of four already reach 80 %: P(p ≥ 0.7 | 4 of 4) = 0.87 under Jeffreys' prior.
    expect(means[2]).toBe(4);
  });

  it("refuses what it cannot check", () => {
    expect(() => ruleCheck(moving(9, 13), [0.5], 20)).toThrow(RangeError);
    expect(() => ruleCheck(moving(3, 2), [0.5], 20)).toThrow(RangeError);
    expect(() => ruleCheck({ kind: "run", length: 0 }, [0.5], 20)).toThrow(RangeError);
    expect(() => ruleCheck({ kind: "run", length: 3 }, [1.2], 20)).toThrow(RangeError);
    expect(() => ruleCheck({ kind: "run", length: 3 }, [0.5], 2.5)).toThrow(RangeError);
  });

  it("says it in a sentence", () => {
    expect(ruleCheckSentence(one(moving(8, 10), 0.6, 20), 20)).toBe(
      "A horse that gets it 6 times in 10 passes this rule within 20 tries 45 % of the time, and on average after 30.",
    );
    expect(ruleCheckSentence({ p: 0.5, passWithin: 0.01, meanTrials: null }, 20)).toContain("and may never");
    expect(ruleCheckSentence(one(moving(8, 10), 0.9, 20), 20)).toContain("over 99 % of the time");
    expect(ruleCheckSentence(one(moving(8, 10), 0.2, 20), 20)).toContain("under 1 % of the time");
    expect(ruleCheckSentence(one(moving(8, 10), 1, 20), 20)).toContain("100 % of the time");
  });
});

describe("ruleCheck on wide windows", () => {
  it("keeps a mean where the survival is tiny: one hit in two, by hand", () => {
    // At least 1 of 2 in a moving window, not before 2 trials: passes at trial 2 unless both missed, then at the first met.
    const [row] = ruleCheck(moving(1, 2), [0.6], 30);
    expect(row?.meanTrials).toBeCloseTo(2 + 0.16 / 0.6, 10);
    const means = ruleCheck(moving(2, 12), [0.1, 0.3, 0.9], 400).map(({ meanTrials }) => meanTrials ?? 0);
    expect(means.every((mean) => mean >= 12)).toBe(true);
    expect(means[2]).toBeCloseTo(12, 6);
  });
});

describe("a rule of different days", () => {
  it("is what can be counted by hand: one of one, on two days, one ask a day", () => {
    // Two heads or more in four throws: 11 of 16. The mean wait for two is 2 ÷ 0.5, and with two asks a day 2 ÷ 0.75 days of 1.5 asks.
    const once: MasteryRule = { kind: "run", length: 1, days: 2 };
    expect(ruleCheck(once, [0.5], 4, 1)[0]).toEqual({ p: 0.5, passWithin: 11 / 16, meanTrials: 4 });
    expect(ruleCheck(once, [0.5], 4, 2)[0]?.meanTrials).toBeCloseTo(4, 12);
    // Two of two on two days, three asks a day, p ½: a day passes by ++ (¼) or .++ (⅛).
    const [row] = ruleCheck({ kind: "run", length: 2, days: 2 }, [0.5], 5, 3);
    expect(row?.passWithin).toBeCloseTo(0.25 * 0.25 + 2 * 0.25 * 0.125, 12);
    expect(row?.meanTrials).toBeCloseTo((2 / 0.375) * (2 * 0.25 + 3 * 0.75), 12);
  });

  it("agrees with playing days out, for every kind", () => {
    const chance = seededChance(5);
    const rules: MasteryRule[] = [
      { kind: "run", length: 3, days: 2 },
      { kind: "share", met: 4, of: 5, window: "moving", days: 2 },
      { kind: "share", met: 4, of: 5, window: "block", days: 3 },
      { kind: "posterior", target: 0.6, confidence: 0.7, least: 4, days: 2 },
      { kind: "first-clean", days: 3 },
    ];
    const [p, asksADay, within, runs] = [0.7, 8, 24, 3000] as const;
    for (const rule of rules) {
      let passed = 0;
      for (let run = 0; run < runs; run++) {
        const trials: MasteryTrial[] = [];
        for (let day = 0; trials.length < within; day++)
          for (let t = 0; t < asksADay && trials.length < within; t++) {
            const met = chance() < p;
            trials.push({ met, clean: met, soft: met, blockKey: `b${day}`, wallMs: day * 86_400_000 });
            const progress = masteryProgress(rule, trials);
            if (progress.enoughToday) break;
            if (progress.passed) {
              passed++;
              day = runs;
              trials.length = within;
            }
          }
      }
      const exact = ruleCheck(rule, [p], within, asksADay)[0]?.passWithin ?? 0;
      expect(Math.abs(passed / runs - exact), JSON.stringify(rule)).toBeLessThan(4 * Math.sqrt((exact * (1 - exact)) / runs) + 1e-9);
    }
  });

  it("may never hold at p 0, nor where a day is too short for it, and refuses a day of no asks", () => {
    expect(ruleCheck({ kind: "run", length: 3, days: 2 }, [0, 1], 50, 2).map(({ meanTrials }) => meanTrials)).toEqual([null, null]);
    expect(ruleCheck({ kind: "run", length: 3, days: 2 }, [1], 50, 9)[0]).toEqual({ p: 1, passWithin: 1, meanTrials: 6 });
    expect(() => ruleCheck({ kind: "run", length: 3 }, [0.5], 5, 0)).toThrow(RangeError);
  });
});

import fc from "fast-check";
import { mean, quantile } from "simple-statistics";
import { describe, expect, it } from "vitest";
import { fisherExact } from "./fisher";
import { GroupTally, type MeasuredTrial, measureGroup } from "./group";
import { quantileOfSorted } from "./quantile";
import { compareSides } from "./sides";
import { weeklyFactor } from "./trend";

const trial = (change: Partial<MeasuredTrial> = {}): MeasuredTrial => ({
  outcome: "met",
  phase: 1,
  latencySeconds: 2,
  waitedSeconds: 2,
  releaseLagSeconds: 0.4,
  markLagSeconds: null,
  feedDelaySeconds: null,
  released: true,
  marked: false,
  reinforced: true,
  reinforcers: 0,
  ...change,
});

describe("measureGroup", () => {
  it("computes rates, lightness, latency and lags by their definitions", () => {
    const m = measureGroup(
      [
        trial(),
        trial({ phase: 3, latencySeconds: 6, releaseLagSeconds: 0.8, marked: true, reinforcers: 2 }),
        trial({ outcome: "try", phase: 2, latencySeconds: 4, releaseLagSeconds: null, reinforced: null, released: null }),
        trial({ outcome: "miss", latencySeconds: null, waitedSeconds: 1, releaseLagSeconds: null, reinforced: false, released: false }),
        trial({ outcome: "refused", latencySeconds: null, waitedSeconds: 20, releaseLagSeconds: null, reinforced: false, released: false }),
      ],
      4,
    );
    expect([m.n, m.met, m.try, m.miss, m.refused]).toEqual([5, 2, 1, 1, 1]);
    expect([m.asksPerMinute, m.responsesPerMinute, m.triesPerMinute, m.reinforcedPerMinute]).toEqual([1.25, 0.5, 0.25, 0.5]);
    expect([m.releasesPerMinute, m.marksPerMinute, m.foodPerMinute]).toEqual([0.5, 0.25, 0.5]);
    expect([m.lightness, m.meanPhaseMet]).toEqual([0.5, 2]);
    expect([m.latency.answered, m.latency.censored]).toEqual([3, 2]);
    expect(m.releaseLag).toEqual({ n: 2, median: expect.closeTo(0.6), p90: expect.closeTo(0.76), lateShare: 0.5 });
    expect(m.feedDelay).toEqual({ n: 0, median: null, p90: null, lateShare: null });
  });

  it("has nulls and not zeros where there is nothing to compute", () => {
    const m = measureGroup([], 0);
    expect([m.success, m.wilson95, m.chanceAtLeast80, m.asksPerMinute, m.lightness, m.latency.medianSeconds]).toEqual([
      null,
      null,
      null,
      null,
      null,
      null,
    ]);
    expect(measureGroup([trial()], 0).asksPerMinute).toBeNull();
  });

  it("gives the same when divided into parts and joined", () => {
    const arbitrary = fc.record({
      outcome: fc.constantFrom("met" as const, "try" as const, "miss" as const, "refused" as const),
      phase: fc.option(fc.integer({ min: 1, max: 4 })),
      waitedSeconds: fc.option(fc.integer({ min: 0, max: 30 })),
      releaseLagSeconds: fc.option(fc.integer({ min: -1, max: 3 })),
    });
    fc.assert(
      fc.property(fc.array(arbitrary, { maxLength: 40 }), fc.nat(40), (list, cut) => {
        const trials = list.map((t) => trial({ ...t, latencySeconds: t.waitedSeconds }));
        const first = new GroupTally();
        const second = new GroupTally();
        trials.forEach((t, i) => {
          (i < cut ? first : second).add(t);
        });
        first.absorb(second.state());
        expect(first.finish(3)).toEqual(measureGroup(trials, 3));
      }),
    );
  });

  it("refuses a working time below 0", () => {
    expect(() => measureGroup([], -1)).toThrow(RangeError);
  });
});

describe("quantileOfSorted", () => {
  it("is type 7, which agrees with simple-statistics at the median of an odd list", () => {
    const list = [1, 2, 4, 8, 16];
    expect(quantileOfSorted(list, 0.5)).toBe(quantile(list, 0.5));
    // Type 7 by hand: place 4 · 0.9 = 3.6, so 8 + 0.6 · 8.
    expect(quantileOfSorted(list, 0.9)).toBeCloseTo(12.8, 12);
    expect(quantileOfSorted([], 0.5)).toBeNull();
    expect(() => quantileOfSorted(list, 1.5)).toThrow(RangeError);
  });

  it("of an even list at one half is the mean of the middle two", () => {
    expect(quantileOfSorted([1, 3, 5, 9], 0.5)).toBe(mean([3, 5]));
  });
});

describe("fisherExact", () => {
  it("gives the tea tasting's 0.4857 (Fisher 1935)", () => {
    expect(fisherExact(3, 1, 1, 3)).toBeCloseTo(0.4857, 4);
  });

  it("gives 1 for a table with nothing in it to tell", () => {
    expect(fisherExact(5, 0, 5, 0)).toBeCloseTo(1, 9);
    expect(fisherExact(2, 2, 2, 2)).toBeCloseTo(1, 9);
  });

  it("is the same from both sides and refuses what is no count", () => {
    expect(fisherExact(9, 1, 3, 7)).toBeCloseTo(fisherExact(3, 7, 9, 1), 12);
    expect(() => fisherExact(-1, 1, 1, 1)).toThrow(RangeError);
  });
});

describe("compareSides", () => {
  const side = (met: number, n: number) => {
    const tally = new GroupTally();
    for (let i = 0; i < n; i++) tally.add(trial({ outcome: i < met ? "met" : "miss", latencySeconds: 2 + i }));
    return tally;
  };

  it("gives index, Fisher and log-rank", () => {
    const compared = compareSides(side(3, 4), side(1, 4));
    expect(compared.fisherP).toBeCloseTo(0.4857, 4);
    expect(compared.index).toBeCloseTo((0.25 - 0.75) / 1, 12);
  });

  it("gives the log-rank of two sides worked out by hand", () => {
    const answered = (latencies: readonly number[]) => {
      const tally = new GroupTally();
      for (const latencySeconds of latencies) tally.add(trial({ outcome: "met", latencySeconds }));
      return tally;
    };
    // Left 2, 3, 4 s; right 5, 6, 7 s. Expected on the left 1/2 + 2/5 + 1/4, variance 1/4 + 6/25 + 3/16.
    const chiSquared = (3 - 1.15) ** 2 / 0.6775;
    const compared = compareSides(answered([2, 3, 4]), answered([5, 6, 7]));
    expect(compared.logRankChiSquared).toBeCloseTo(chiSquared, 9);
    // The tail of chi-squared on one degree is that of the normal: z = 2.2476, from the printed table 0.0246.
    expect(compared.logRankP).toBeCloseTo(0.0246, 4);
  });

  it("is all null where a side is empty, and has no index where both are 0", () => {
    expect(compareSides(side(0, 0), side(2, 3))).toEqual({ fisherP: null, logRankChiSquared: null, logRankP: null, index: null });
    expect(compareSides(side(0, 3), side(0, 3)).index).toBeNull();
  });
});

describe("weeklyFactor", () => {
  it("doubles a week for 2, 4, 8, 16 on days 0, 7, 14, 21", () => {
    expect(weeklyFactor([0, 7, 14, 21].map((days, i) => ({ days, rate: 2 ** (i + 1) })))).toBeCloseTo(2, 12);
  });

  it("gives ×1.379252 for the worked example of the measures document", () => {
    const rates = [3.2, 3.9, 3.6, 4.8, 5.1, 6.0, 5.8];
    expect(weeklyFactor([0, 2, 4, 7, 9, 11, 14].map((days, i) => ({ days, rate: rates[i] as number })))).toBeCloseTo(1.379252, 6);
  });

  it("is null on a single day and refuses a rate of 0", () => {
    expect(
      weeklyFactor([
        { days: 3, rate: 1 },
        { days: 3, rate: 2 },
      ]),
    ).toBeNull();
    expect(() => weeklyFactor([{ days: 0, rate: 0 }])).toThrow(RangeError);
  });
});

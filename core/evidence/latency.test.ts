import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { logRank, survival, type Waiting } from "./latency";

const times = (text: string): Waiting[] => text.split(", ").map((t) => ({ seconds: Number.parseFloat(t), answered: !t.endsWith("+") }));

// Freireich et al. 1963, remission times of the two arms.
const MERCAPTOPURINE = times("6, 6, 6, 6+, 7, 9+, 10, 10+, 11+, 13, 16, 17+, 19+, 20+, 22, 23, 25+, 32+, 32+, 34+, 35+");
const PLACEBO = times("1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23");

describe("survival", () => {
  it("gives the published curve and Greenwood errors of the remission data", () => {
    const curve = survival(MERCAPTOPURINE);
    const published = [
      [6, 0.857, 0.0764],
      [7, 0.807, 0.0869],
      [10, 0.753, 0.0963],
      [13, 0.69, 0.1068],
      [16, 0.627, 0.1141],
      [22, 0.538, 0.1282],
      [23, 0.448, 0.1346],
    ] as const;
    expect(curve.steps).toHaveLength(published.length);
    published.forEach(([seconds, share, error], i) => {
      expect(curve.steps[i]?.[0]).toBe(seconds);
      expect(curve.steps[i]?.[1]).toBeCloseTo(share, 3);
      expect(curve.steps[i]?.[2]).toBeCloseTo(error, 4);
    });
    expect(curve.medianSeconds).toBe(23);
    expect([curve.answered, curve.censored]).toEqual([9, 12]);
  });

  it("without censoring is the share still waiting", () => {
    const curve = survival(PLACEBO);
    for (const [seconds, share] of curve.steps)
      expect(share).toBeCloseTo(PLACEBO.filter((t) => t.seconds > seconds).length / PLACEBO.length, 12);
    expect(curve.steps.at(-1)?.[2]).toBeNull();
  });

  it("takes the first time at one half; R would give the midpoint to the next here", () => {
    expect(survival(times("1, 2, 3, 4")).medianSeconds).toBe(2);
  });

  it("puts answers before censorings at the same time", () => {
    expect(survival(times("5, 5+")).steps).toEqual([[5, 0.5, expect.closeTo(Math.sqrt(0.5 ** 3))]]);
  });

  it("has no median where fewer than half answered, and no steps without answers", () => {
    expect(survival(times("3, 9+, 9+")).medianSeconds).toBeNull();
    expect(survival(times("9+, 9+"))).toEqual({ answered: 0, censored: 2, medianSeconds: null, steps: [] });
    expect(survival([]).medianSeconds).toBeNull();
  });

  it("never rises, stays within 0 and 1, and does not depend on the order", () => {
    fc.assert(
      fc.property(fc.array(fc.record({ seconds: fc.integer({ min: 0, max: 40 }), answered: fc.boolean() }), { maxLength: 60 }), (list) => {
        const curve = survival(list);
        let before = 1;
        for (const [, share] of curve.steps) {
          expect(share).toBeLessThanOrEqual(before);
          expect(share).toBeGreaterThanOrEqual(0);
          before = share;
        }
        expect(survival([...list].reverse())).toEqual(curve);
      }),
    );
  });

  it("refuses times below 0 or not numbers", () => {
    expect(() => survival([{ seconds: -1, answered: true }])).toThrow(RangeError);
    expect(() => survival([{ seconds: Number.NaN, answered: false }])).toThrow(RangeError);
  });
});

describe("logRank", () => {
  it("gives the published 16.8 on 1 degree of freedom for the remission data (Mantel 1966)", () => {
    const test = logRank([MERCAPTOPURINE, PLACEBO]);
    expect(test?.chiSquared).toBeCloseTo(16.8, 1);
    expect(test?.degrees).toBe(1);
    expect(test?.p).toBeLessThan(0.0001);
  });

  it("is symmetric in the groups", () => {
    expect(logRank([PLACEBO, MERCAPTOPURINE])?.chiSquared).toBeCloseTo(logRank([MERCAPTOPURINE, PLACEBO])?.chiSquared ?? 0, 9);
  });

  it("is nothing for the same group twice", () => {
    expect(logRank([PLACEBO, PLACEBO])?.chiSquared).toBeCloseTo(0, 12);
  });

  it("of three groups has two degrees, and splitting a group adds nothing when halves are alike", () => {
    const three = logRank([MERCAPTOPURINE, PLACEBO, PLACEBO]);
    expect(three?.degrees).toBe(2);
    expect(three?.chiSquared).toBeGreaterThan(16.8);
  });

  it("is null where there is nothing to compare", () => {
    expect(logRank([PLACEBO])).toBeNull();
    expect(logRank([PLACEBO, []])).toBeNull();
    expect(logRank([times("3+"), times("4+")])).toBeNull();
  });
});

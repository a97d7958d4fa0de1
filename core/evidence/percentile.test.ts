import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seededChance } from "../chance";
import { beatsBar, percentileBar } from "./percentile";

describe("percentileBar", () => {
  it.each([
    [9, 0.5, 5],
    [4, 0.2, 4],
    [9, 0.6, 4],
  ])("of %i values for a share of %d is rank %i (Galbicka 1994: k = (m + 1)(1 − w))", (m, w, rank) => {
    const values = Array.from({ length: m }, (_, i) => i + 1);
    expect(percentileBar(values, m, w, "more")).toEqual({ used: m, rank, parts: [{ rank, weight: 1, criterion: rank, onEqual: 0.5 }] });
  });

  it("mixes two ranks where the rank is not whole", () => {
    const { rank, parts } = percentileBar([5, 1, 4, 2, 3], 10, 0.6, "more");
    expect(rank).toBeCloseTo(2.4, 12);
    expect(parts.map(({ criterion }) => criterion)).toEqual([2, 3]);
    expect(parts[0]?.weight).toBeCloseTo(0.6, 12);
    expect(parts[1]?.weight).toBeCloseTo(0.4, 12);
  });

  it("takes ties by their share: three twos in ranks 2 to 4, bar at rank 3", () => {
    expect(percentileBar([1, 2, 2, 2], 4, 0.4, "more").parts).toEqual([{ rank: 3, weight: 1, criterion: 2, onEqual: 0.5 }]);
  });

  it("mirrors a strand where less is harder, and looks at the last values only", () => {
    expect(percentileBar([99, 99, 10, 8, 6, 4], 4, 0.4, "less").parts).toEqual([{ rank: 3, weight: 1, criterion: 6, onEqual: 0.5 }]);
  });

  it("lets all through at rank 0 and none past the last", () => {
    expect(percentileBar([1, 2, 3], 3, 1, "more").parts).toEqual([{ rank: 0, weight: 1, criterion: null, onEqual: 1 }]);
    expect(percentileBar([1, 2, 3], 3, 0, "more").parts).toEqual([{ rank: 4, weight: 1, criterion: null, onEqual: 0 }]);
    expect(percentileBar([], 10, 0.6, "more").parts).toEqual([{ rank: 0, weight: 1, criterion: null, onEqual: 1 }]);
  });

  it("reinforces the wanted share of exchangeable values in the long run, ties or not", () => {
    for (const [seed, levels, m, w] of [
      [1, 1e9, 10, 0.6],
      [2, 4, 10, 0.6],
      [3, 2, 7, 0.35],
      [4, 1e9, 3, 0.8],
    ] as const) {
      const chance = seededChance(seed);
      const draw = () => Math.floor(chance() * levels);
      const values = Array.from({ length: m }, draw);
      let reinforced = 0;
      const n = 20_000;
      for (let i = 0; i < n; i++) {
        const value = draw();
        if (beatsBar(percentileBar(values, m, w, "more"), value, "more", chance)) reinforced++;
        values.push(value);
        values.shift();
      }
      // Neighbouring bars share values, so the error is allowed twice the plain one.
      expect(Math.abs(reinforced / n - w), `levels ${levels}`).toBeLessThan(8 * Math.sqrt((w * (1 - w)) / n));
    }
  });

  it("asks for more as the wanted share falls, and its weights add up to one", () => {
    const values = fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 1, maxLength: 15 });
    fc.assert(
      fc.property(values, fc.double({ min: 0, max: 1, noNaN: true }), (list, w) => {
        const bar = percentileBar(list, 10, w, "more");
        expect(bar.parts.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
        expect(percentileBar(list, 10, w / 2, "more").rank).toBeGreaterThanOrEqual(bar.rank - 1e-9);
        for (const { onEqual } of bar.parts) expect(onEqual >= 0 && onEqual <= 1).toBe(true);
      }),
    );
  });

  it.each([
    [[1], 0, 0.5],
    [[1], 1.5, 0.5],
    [[1], 5, 1.2],
    [[Number.NaN], 5, 0.5],
  ])("refuses %j, %d, %d", (values, m, w) => {
    expect(() => percentileBar(values, m, w, "more")).toThrow(RangeError);
  });
});

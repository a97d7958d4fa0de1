import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cohenKappa, timedAgreement } from "./agreement";

describe("cohenKappa", () => {
  it("gives 0.4 for the worked example of Cohen's κ [[20, 5], [10, 15]] (Cohen 1960; the table is the usual textbook one)", () => {
    expect(
      cohenKappa([
        [20, 5],
        [10, 15],
      ]),
    ).toMatchObject({ observed: 0.7, expected: 0.5, n: 50 });
    expect(
      cohenKappa([
        [20, 5],
        [10, 15],
      ])?.kappa,
    ).toBeCloseTo(0.4, 12);
  });

  it("is 1 in full agreement, 0 where the rows do not matter, below 0 where they contradict", () => {
    expect(
      cohenKappa([
        [7, 0],
        [0, 3],
      ])?.kappa,
    ).toBeCloseTo(1, 12);
    expect(
      cohenKappa([
        [6, 4],
        [12, 8],
      ])?.kappa,
    ).toBeCloseTo(0, 12);
    expect(
      cohenKappa([
        [0, 5],
        [5, 0],
      ])?.kappa,
    ).toBe(-1);
  });

  it("has no κ where only one answer was ever given, and none from an empty table", () => {
    expect(
      cohenKappa([
        [9, 0],
        [0, 0],
      ]),
    ).toMatchObject({ kappa: null, observed: 1 });
    expect(
      cohenKappa([
        [0, 0],
        [0, 0],
      ]),
    ).toBeNull();
  });

  it.each([[[]], [[[1, 2]]], [[[1.5]]], [[[-1]]]])("refuses %j", (table) => {
    expect(() => cohenKappa(table as number[][])).toThrow(RangeError);
  });
});

describe("timedAgreement", () => {
  const pair = { a: [1, 12, 25], b: [2, 14, 26, 38], toleranceSeconds: 2, durationSeconds: 40, intervalSeconds: 10 };

  it("gives the four shares worked out by hand", () => {
    // Counts per ten seconds: 1 1 1 0 against 1 1 1 1; all three of a are matched within 2 s.
    expect(timedAgreement(pair)).toEqual({ total: 0.75, exactInterval: 0.75, meanInterval: 0.75, point: 0.75 });
    expect(timedAgreement({ ...pair, toleranceSeconds: 1 })).toMatchObject({ point: 2 / 5 });
  });

  it("has nothing to compare where neither saw anything, and 0 where one did", () => {
    expect(timedAgreement({ ...pair, a: [], b: [] })).toEqual({ total: null, exactInterval: null, meanInterval: null, point: null });
    expect(timedAgreement({ ...pair, a: [] })).toMatchObject({ total: 0, point: 0 });
  });

  it("is the same either way round, within 0 and 1, and 1 with oneself", () => {
    const moments = fc.array(fc.double({ min: 0, max: 40, noNaN: true }), { maxLength: 12 });
    fc.assert(
      fc.property(moments, moments, (a, b) => {
        const there = timedAgreement({ ...pair, a, b });
        expect(timedAgreement({ ...pair, a: b, b: a })).toEqual(there);
        for (const share of Object.values(there)) if (share !== null) expect(share >= 0 && share <= 1).toBe(true);
        if (a.length > 0) expect(timedAgreement({ ...pair, a, b: a })).toEqual({ total: 1, exactInterval: 1, meanInterval: 1, point: 1 });
      }),
    );
  });

  it.each([{ durationSeconds: 0 }, { intervalSeconds: 0 }, { toleranceSeconds: -1 }, { a: [41] }, { b: [-1] }])("refuses %j", (change) => {
    expect(() => timedAgreement({ ...pair, ...change })).toThrow(RangeError);
  });
});

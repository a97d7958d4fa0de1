import { describe, expect, it } from "vitest";
import { poissonInterval, rateDifferenceP } from "./rate";
import { chiSquaredQuantile, chiSquaredUpperTail } from "./special";

describe("chiSquaredQuantile", () => {
  it.each([
    [0.95, 1, 3.841],
    [0.95, 10, 18.307],
    [0.975, 10, 20.483],
    [0.025, 10, 3.247],
    [0.99, 30, 50.892],
  ])("at %d with %d degrees is %d (printed tables of chi-squared, from memory)", (share, degrees, value) => {
    expect(chiSquaredQuantile(share, degrees)).toBeCloseTo(value, 3);
  });

  it("undoes the upper tail, and is −2·ln(1 − share) on two degrees", () => {
    for (const share of [0.001, 0.2, 0.5, 0.9, 0.9999]) {
      expect(1 - chiSquaredUpperTail(chiSquaredQuantile(share, 7), 7)).toBeCloseTo(share, 10);
      expect(chiSquaredQuantile(share, 2)).toBeCloseTo(-2 * Math.log(1 - share), 9);
    }
    for (const [share, degrees] of [
      [0, 3],
      [1, 3],
      [0.5, 0],
    ] as const)
      expect(() => chiSquaredQuantile(share, degrees)).toThrow(RangeError);
  });
});

describe("poissonInterval", () => {
  it.each([
    [0, 0, 3.689],
    [1, 0.0253, 5.572],
    [5, 1.623, 11.668],
    [10, 4.795, 18.39],
    [20, 12.217, 30.888],
  ])("of %d is %d to %d (printed tables of exact Poisson limits after Garwood 1936, from memory)", (count, low, high) => {
    const found = poissonInterval(count, 1);
    expect(found[0]).toBeCloseTo(low, 3);
    expect(found[1]).toBeCloseTo(high, 3);
    expect(poissonInterval(count, 4)[1]).toBeCloseTo(high / 4, 3);
  });

  it.each([
    [-1, 1],
    [1.5, 1],
    [1, 0],
  ])("refuses %d in %d", (count, exposure) => {
    expect(() => poissonInterval(count, exposure)).toThrow(RangeError);
  });
});

describe("rateDifferenceP", () => {
  it("is the binomial test on equal times: 9 against 1 is 2·(1 + 10)/2¹⁰", () => {
    expect(rateDifferenceP({ count: 9, minutes: 10 }, { count: 1, minutes: 10 })).toBeCloseTo((2 * 11) / 1024, 12);
    expect(rateDifferenceP({ count: 1, minutes: 10 }, { count: 9, minutes: 10 })).toBeCloseTo((2 * 11) / 1024, 12);
  });

  it("weighs unequal times: none in 10 against 3 in 30 is no difference", () => {
    expect(rateDifferenceP({ count: 0, minutes: 10 }, { count: 3, minutes: 30 })).toBeCloseTo(2 * 0.75 ** 3, 12);
    expect(rateDifferenceP({ count: 2, minutes: 10 }, { count: 2, minutes: 10 })).toBe(1);
  });

  it("has nothing to say where nothing was seen or watched", () => {
    expect(rateDifferenceP({ count: 0, minutes: 10 }, { count: 0, minutes: 10 })).toBeNull();
    expect(rateDifferenceP({ count: 1, minutes: 0 }, { count: 3, minutes: 10 })).toBeNull();
  });
});

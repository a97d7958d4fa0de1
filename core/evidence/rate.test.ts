import { describe, expect, it } from "vitest";
import { poissonInterval, sessionRate } from "./rate";
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

describe("sessionRate", () => {
  it("is exact within one session, silent over two, and by sessions from three on", () => {
    expect(sessionRate([{ count: 10, minutes: 1 }])?.interval?.[1]).toBeCloseTo(18.39, 2);
    expect(
      sessionRate([
        { count: 3, minutes: 5 },
        { count: 9, minutes: 5 },
      ]),
    ).toMatchObject({ perMinute: 1.2, interval: null });
    // 5, 5, 5 in a minute each: no spread, so the design effect is 1 and only Student's point with 2 degrees, 4.3027, widens it:
    // 15 counts are worth 15·(1.96/4.3027)² = 3.1125 in 0.6225 minutes.
    const even = sessionRate([1, 1, 1].map((minutes) => ({ count: 5, minutes })));
    expect(even?.interval?.[0]).toBeCloseTo(chiSquaredQuantile(0.025, 2 * 3.1125) / 2 / 0.6225, 2);
    expect(even?.interval?.[0]).toBeLessThan(1.2);
    expect(sessionRate([{ count: 0, minutes: 0 }])).toBeNull();
    expect(sessionRate([1, 2, 3].map((minutes) => ({ count: 0, minutes })))?.interval?.[0]).toBe(0);
  });
});

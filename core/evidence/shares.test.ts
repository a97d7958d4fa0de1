import { describe, expect, it } from "vitest";
import { chanceShareAtLeast, wilsonInterval } from "./shares";

describe("wilsonInterval", () => {
  // Wilson 1927; values of the measures document.
  it.each([
    [8, 10, 0.490162, 0.943318],
    [0, 10, 0, 0.277533],
    [20, 20, 0.838875, 1],
  ])("%i of %i", (met, of, low, high) => {
    const interval = wilsonInterval(met, of);
    expect(interval?.[0]).toBeCloseTo(low, 6);
    expect(interval?.[1]).toBeCloseTo(high, 6);
  });

  it("solves its own equation: the bounds lie 1.96 standard errors from the share", () => {
    for (const [met, of] of [
      [3, 7],
      [40, 50],
      [1, 200],
    ] as const) {
      for (const bound of wilsonInterval(met, of) ?? []) {
        expect(Math.abs(met / of - bound) / Math.sqrt((bound * (1 - bound)) / of)).toBeCloseTo(1.959963984540054, 9);
      }
    }
  });

  it("is null without trials and refuses counts that cannot be", () => {
    expect(wilsonInterval(0, 0)).toBeNull();
    expect(() => wilsonInterval(3, 2)).toThrow(RangeError);
    expect(() => wilsonInterval(-1, 2)).toThrow(RangeError);
    expect(() => wilsonInterval(1.5, 2)).toThrow(RangeError);
  });
});

describe("chanceShareAtLeast", () => {
  // Jeffreys' prior; values of the measures document.
  it.each([
    [8, 10, 0.466504],
    [9, 10, 0.773635],
    [10, 10, 0.967613],
    [5, 5, 0.874533],
    [18, 20, 0.872952],
  ])("P(p ≥ 0.8) after %i of %i", (met, of, chance) => {
    expect(chanceShareAtLeast(0.8, met, of)).toBeCloseTo(chance, 6);
  });

  it("agrees with adding up the density by Simpson's rule", () => {
    const [met, of] = [13, 17];
    const density = (p: number) => p ** (met - 0.5) * (1 - p) ** (of - met - 0.5);
    const area = (from: number, to: number) => {
      const steps = 20_000;
      const h = (to - from) / steps;
      let sum = density(from) + density(to);
      for (let i = 1; i < steps; i++) sum += density(from + i * h) * (i % 2 === 1 ? 4 : 2);
      return (sum * h) / 3;
    };
    expect(chanceShareAtLeast(0.8, met, of)).toBeCloseTo(area(0.8, 1) / area(0, 1), 8);
  });
});

import { gammaln } from "simple-statistics";
import { describe, expect, it } from "vitest";
import { chiSquaredUpperTail, incompleteBeta, logGamma, upperIncompleteGamma } from "./special";

/** The normal distribution function by Simpson's rule on its density, in steps of a thousandth. */
function cumulativeNormal(z: number): number {
  const steps = 2 * Math.ceil(Math.abs(z) * 1000 + 1);
  const h = z / steps;
  const density = (x: number) => Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
  let sum = density(0) + density(z);
  for (let i = 1; i < steps; i++) sum += density(i * h) * (i % 2 === 1 ? 4 : 2);
  return 0.5 + (sum * h) / 3;
}

describe("logGamma", () => {
  it("gives the factorials exactly to rounding", () => {
    let logFactorial = 0;
    for (let n = 1; n <= 60; n++) {
      logFactorial += Math.log(n);
      expect(logGamma(n + 1)).toBeCloseTo(logFactorial, 10);
    }
  });

  it("gives half of log π at one half (DLMF 5.4.6)", () => {
    expect(logGamma(0.5)).toBeCloseTo(0.5 * Math.log(Math.PI), 13);
  });

  it("agrees with simple-statistics", () => {
    for (const x of [0.7, 1.5, 3.25, 12.5, 80]) expect(logGamma(x)).toBeCloseTo(gammaln(x), 6);
  });

  it("refuses what is not above 0", () => {
    expect(() => logGamma(0)).toThrow(RangeError);
    expect(() => logGamma(Number.NaN)).toThrow(RangeError);
  });
});

describe("incompleteBeta", () => {
  it("is the identity for a uniform variable", () => {
    for (const x of [0, 0.1, 0.5, 0.93, 1]) expect(incompleteBeta(x, 1, 1)).toBeCloseTo(x, 12);
  });

  it("equals the binomial tail for whole shapes (DLMF 8.17.5)", () => {
    const choose = (n: number, k: number) => Array.from({ length: k }, (_, i) => (n - i) / (i + 1)).reduce((a, b) => a * b, 1);
    for (const [a, n, x] of [
      [3, 10, 0.4],
      [7, 12, 0.8],
      [1, 5, 0.2],
    ] as const) {
      let tail = 0;
      for (let j = a; j <= n; j++) tail += choose(n, j) * x ** j * (1 - x) ** (n - j);
      expect(incompleteBeta(x, a, n - a + 1)).toBeCloseTo(tail, 12);
    }
  });

  it("is arcsine for Beta(½, ½)", () => {
    for (const x of [0.1, 0.5, 0.8]) expect(incompleteBeta(x, 0.5, 0.5)).toBeCloseTo((2 / Math.PI) * Math.asin(Math.sqrt(x)), 12);
  });

  it("holds for very many trials", () => {
    // The normal approximation with its first correction for skewness (Abramowitz & Stegun 26.2.48, from memory):
    // F(x) = Φ(z) − γ(z² − 1)φ(z)/6 with the beta's own mean, deviation and skewness. At a million it is off by under 1e-6.
    const [a, b] = [800_000.5, 200_000.5];
    const deviation = Math.sqrt((a * b) / ((a + b) ** 2 * (a + b + 1)));
    const skewness = (2 * (b - a) * Math.sqrt(a + b + 1)) / ((a + b + 2) * Math.sqrt(a * b));
    const expected = (x: number) => {
      const z = (x - a / (a + b)) / deviation;
      return cumulativeNormal(z) - (skewness * (z * z - 1) * Math.exp((-z * z) / 2)) / Math.sqrt(2 * Math.PI) / 6;
    };
    for (const x of [0.7988, 0.7996, 0.8, 0.8004, 0.8012]) expect(incompleteBeta(x, a, b)).toBeCloseTo(expected(x), 5);
  });

  it("refuses shapes and places out of range", () => {
    expect(() => incompleteBeta(1.1, 1, 1)).toThrow(RangeError);
    expect(() => incompleteBeta(0.5, 0, 1)).toThrow(RangeError);
  });
});

describe("upperIncompleteGamma", () => {
  it("is the exponential for a = 1", () => {
    for (const x of [0.2, 1, 3, 20]) expect(upperIncompleteGamma(1, x)).toBeCloseTo(Math.exp(-x), 12);
  });

  it("equals the Poisson sum for whole a (DLMF 8.4.10)", () => {
    for (const [a, x] of [
      [3, 2],
      [5, 9],
      [10, 10],
    ] as const) {
      let sum = 0;
      let term = Math.exp(-x);
      for (let k = 0; k < a; k++) {
        sum += term;
        term *= x / (k + 1);
      }
      expect(upperIncompleteGamma(a, x)).toBeCloseTo(sum, 12);
    }
  });
});

describe("chiSquaredUpperTail", () => {
  // The 5 % and 1 % points printed in every handbook table of chi-squared.
  it.each([
    [3.841, 1, 0.05],
    [6.635, 1, 0.01],
    [5.991, 2, 0.05],
    [11.345, 3, 0.01],
    [18.307, 10, 0.05],
  ])("gives the table's tail for %f on %i degrees", (value, degrees, tail) => {
    expect(chiSquaredUpperTail(value, degrees)).toBeCloseTo(tail, 4);
  });
});

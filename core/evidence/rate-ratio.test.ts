import { describe, expect, it } from "vitest";
import { rateRatio } from "./rate-ratio";

const of = (n1: number, t1: number, n2: number, t2: number) => rateRatio({ count: n1, minutes: t1 }, { count: n2, minutes: t2 });

describe("two rates", () => {
  // R's help page of poisson.test, its example of two counts, from memory: ratio 1.971488, interval 0.8584264 to 4.2772659, p 0.07967.
  it("are those of R's own example", () => {
    const found = of(11, 800, 21, 3011);
    expect(found?.ratio).toBeCloseTo(1.971488, 6);
    expect(found?.interval[0]).toBeCloseTo(0.8584264, 7);
    expect(found?.interval[1]).toBeCloseTo(4.2772659, 6);
    expect(found?.p).toBeCloseTo(0.07967, 5);
  });

  // Computed with SciPy 1.17 (binomtest, beta.ppf), the way poisson.test does it.
  it.each([
    [5, 10, 1, 10, 5, 0.559491694, 236.487693, 0.21875],
    [2, 12, 9, 8, 0.148148148, 0.0155764274, 0.715758957, 0.00955242496],
  ])("%d in %d against %d in %d", (n1, t1, n2, t2, ratio, low, high, p) => {
    const found = of(n1, t1, n2, t2);
    expect(found?.ratio).toBeCloseTo(ratio, 7);
    expect(found?.interval[0]).toBeCloseTo(low, 7);
    expect((found?.interval[1] ?? 0) / high).toBeCloseTo(1, 7);
    expect(found?.p).toBeCloseTo(p, 8);
  });

  it("stay open on the side where nothing was counted", () => {
    expect(of(0, 10, 4, 10)?.interval[0]).toBe(0);
    expect(of(0, 10, 4, 10)?.ratio).toBe(0);
    expect(of(3, 7.5, 0, 5)?.interval[1]).toBe(Number.POSITIVE_INFINITY);
    expect(of(0, 10, 0, 10)).toBeNull();
  });

  it("refuse what is no count and no time", () => {
    expect(() => of(1.5, 1, 1, 1)).toThrow(RangeError);
    expect(() => of(1, 0, 1, 1)).toThrow(RangeError);
  });
});

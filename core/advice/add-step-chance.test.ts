import { describe, expect, it } from "vitest";
import { chanceOfAddStep, chanceOfNoGain } from "./add-step-chance";
import { chanceOfGoBack } from "./go-back-chance";

const DEFAULTS = { run: 3, misses: 4, window: 7 };

describe("what Split lets through", () => {
  it("by Ease: twice in so many blocks, by the binomial sum", () => {
    const each = chanceOfGoBack(DEFAULTS, 0.8);
    expect(chanceOfAddStep(DEFAULTS, 0.8, 2, 2)).toBeCloseTo(each ** 2, 12);
    expect(chanceOfAddStep(DEFAULTS, 0.8, 1, 3)).toBeCloseTo(1 - (1 - each) ** 3, 12);
    expect(chanceOfAddStep(DEFAULTS, 0.8, 2, 3)).toBeCloseTo(0.0223, 3);
  });

  it("by no gain: every outcome of three short sessions, weighed", () => {
    const p = [0.5, 0.6, 0.7] as const;
    let none = 0;
    for (let mask = 0; mask < 512; mask++) {
      const met = [0, 1, 2].map((s) => [0, 1, 2].filter((t) => (mask >> (s * 3 + t)) & 1).length);
      const chance = met.reduce((product, k, s) => product * (p[s] as number) ** k * (1 - (p[s] as number)) ** (3 - k), 1);
      if ((met[1] as number) <= (met[0] as number) && (met[2] as number) <= (met[0] as number)) none += chance;
    }
    expect(chanceOfNoGain(p, 3)).toBeCloseTo(none, 12);
    expect(chanceOfNoGain([], 10)).toBe(0);
    expect(chanceOfNoGain([0.4], 10)).toBeCloseTo(1, 12);
  });

  it("a horse that gains hears it less the more it gains", () => {
    const chances = [
      [0.6, 0.6, 0.6],
      [0.5, 0.6, 0.7],
      [0.4, 0.6, 0.8],
    ].map((p) => chanceOfNoGain(p, 10));
    expect(chances).toEqual([...chances].sort((a, b) => b - a));
    expect(chances[2]).toBeLessThan(0.04);
  });
});

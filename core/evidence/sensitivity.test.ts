import { describe, expect, it } from "vitest";
import { drawNormal, seededChance } from "../chance";
import { sensitivity } from "./sensitivity";

describe("how well two things are told apart", () => {
  it("is the difference of two normal points, with half an answer added to each count", () => {
    // 24 of 29 and 5 of 29: shares 24.5/30 and 5.5/30, z = ±0.902735 (Python's NormalDist).
    const some = sensitivity({ hits: 24, misses: 5, falseAlarms: 5, correctRejections: 24 });
    expect(some?.dPrime).toBeCloseTo(2 * 0.902735, 5);
    expect(some?.criterion).toBeCloseTo(0, 10);
    // As readily without the cue: 0.5 throughout.
    expect(sensitivity({ hits: 7, misses: 7, falseAlarms: 9, correctRejections: 9 })).toMatchObject({ dPrime: 0, criterion: -0 });
  });

  it("has a value for none and all, and tells readiness from sensitivity", () => {
    const all = sensitivity({ hits: 10, misses: 0, falseAlarms: 0, correctRejections: 10 });
    expect(all?.dPrime).toBeGreaterThan(3);
    expect(Number.isFinite(all?.interval[1])).toBe(true);
    // It comes whatever was asked: ready, and nothing told apart.
    const ready = sensitivity({ hits: 19, misses: 1, falseAlarms: 19, correctRejections: 1 });
    expect(ready?.dPrime).toBeCloseTo(0, 12);
    expect(ready?.criterion).toBeLessThan(-1);
    expect(sensitivity({ hits: 1, misses: 1, falseAlarms: 0, correctRejections: 0 })).toBeNull();
    expect(() => sensitivity({ hits: -1, misses: 1, falseAlarms: 0, correctRejections: 1 })).toThrow(RangeError);
    expect(() => sensitivity({ hits: 0.5, misses: 1, falseAlarms: 0, correctRejections: 1 })).toThrow(RangeError);
  });

  it("finds the truth of simulated watchers, in its range about 95 times in 100", () => {
    const chance = seededChance(77);
    const [truth, criterion] = [1.5, 0.3];
    let inside = 0;
    let sum = 0;
    const runs = 800;
    for (let run = 0; run < runs; run++) {
      // What is perceived lies about ±d′/2; the behaviour comes where it lies over the criterion.
      const count = (middle: number) => Array.from({ length: 60 }, () => drawNormal(chance, middle, 1) > criterion).filter(Boolean).length;
      const [hits, falseAlarms] = [count(truth / 2), count(-truth / 2)];
      const found = sensitivity({ hits, misses: 60 - hits, falseAlarms, correctRejections: 60 - falseAlarms });
      if (found === null) throw new Error("there is one");
      sum += found.dPrime;
      if (found.interval[0] <= truth && truth <= found.interval[1]) inside++;
    }
    expect(Math.abs(sum / runs - truth)).toBeLessThan(0.05);
    expect(inside / runs).toBeGreaterThan(0.92);
    expect(inside / runs).toBeLessThan(0.98);
  });
});

import { describe, expect, it } from "vitest";
import { type Strand, stepFaults, strandFromCatalogue } from "../strands";
import { rungsBetween } from "./between";
import type { Rung } from "./ladder";

const steps = strandFromCatalogue("steps", "a");
const stay = strandFromCatalogue("stay", "b");
const light: Strand = strandFromCatalogue("lightness", "c");
const rung = (a: number, b: number, c: number): Rung => ({ values: { a, b, c } });
const all = [steps, stay, light];

describe("rungsBetween", () => {
  it("takes the value half way", () => {
    const [put] = rungsBetween(all, [rung(1, 10, 2), rung(1, 20, 2)], 2, 4);
    // Half way by ratio is the root of 200, 14.14; of what a trainer would ask for, 15 lies nearer than 12.
    expect(put?.values).toEqual({ a: 1, b: 15, c: 2 });
  });
  it("eases the cue where the counted strand has nothing in between", () => {
    expect(rungsBetween(all, [rung(2, 0, 2), rung(3, 0, 2)], 2, 4)[0]?.values).toEqual({ a: 3, b: 0, c: 3 });
  });
  it("splits a step that has a fault by the step rules", () => {
    const before = [rung(1, 5, 3), rung(4, 5, 2)];
    const put = rungsBetween(all, before, 2, 4);
    expect(put.length).toBeGreaterThan(1);
    const ladder = [before[0], ...put, before[1]].map((one) => one?.values ?? {});
    expect(stepFaults(all, ladder)).toEqual([]);
  });
  it("leaves no fault behind where the step had none", () => {
    for (const [low, high] of [
      [rung(4, 8, 2), rung(4, 15, 2)],
      [rung(2, 8, 2), rung(3, 8, 2)],
      [rung(2, 8, 3), rung(2, 8, 2)],
    ] as const) {
      const put = rungsBetween(all, [low, high], 2, 4);
      expect(put).toHaveLength(1);
      expect(stepFaults(all, [low.values, ...put.map((one) => one.values), high.values])).toEqual([]);
    }
  });
  it("finds nothing for the first rung, or where all is at its easiest", () => {
    expect(rungsBetween(all, [rung(1, 0, 4), rung(2, 0, 4)], 1, 4)).toEqual([]);
    expect(rungsBetween([steps], [{ values: { a: 1 } }, { values: { a: 2 } }], 2, 4)).toEqual([]);
  });
});

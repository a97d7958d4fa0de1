import { median } from "simple-statistics";
import { describe, expect, it } from "vitest";
import { lowerMedianOf, medianOf } from "./median";

describe("the value in the middle", () => {
  it("is that of simple-statistics, and leaves its list as it is", () => {
    const lists = [[3], [9, 1], [4, 1, 3, 2], [2.5, -1, 7, 100, 0.25]];
    for (const list of lists) expect(medianOf(list)).toBe(median(list));
    expect(lists[2]).toEqual([4, 1, 3, 2]);
    expect(medianOf([])).toBeNull();
  });

  it("is by numbers and not by their words", () => expect(medianOf([100, 20, 3])).toBe(20));

  it("has a lower one of two, which was seen", () => {
    expect(lowerMedianOf([4, 1, 3, 2])).toBe(2);
    expect(lowerMedianOf([9, 5, 7])).toBe(7);
    expect(lowerMedianOf([])).toBeNull();
  });
});

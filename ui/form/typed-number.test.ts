import { describe, expect, it } from "vitest";
import { isOutOf, numberTyped, typedCount, typedNumber } from "./typed-number";

describe("a number as it is typed", () => {
  it("takes a comma for a point and leaves the blanks round it", () => {
    expect(numberTyped(" 2,5 ")).toBe(2.5);
    expect(typedNumber("2.5")).toBe(2.5);
    expect(typedCount("12")).toBe(12);
  });
  it("tells nothing typed from what is no number", () => {
    expect(numberTyped("  ")).toBeNull();
    expect(numberTyped("two")).toBeNaN();
    expect(typedNumber("two")).toBeNull();
    expect(typedNumber("1e999")).toBeNull();
    expect(typedNumber("1,2,3")).toBeNull();
    expect(typedCount("")).toBe(0);
    expect(typedCount("x")).toBeNaN();
  });
  it("is wrong outside its limits and where it is no number, never where nothing is typed", () => {
    expect(isOutOf(null, 0, 100)).toBe(false);
    expect(isOutOf(0, 0, 100)).toBe(false);
    expect(isOutOf(100, 0, 100)).toBe(false);
    expect(isOutOf(100.5, 0, 100)).toBe(true);
    expect(isOutOf(Number.NaN, 0, 100)).toBe(true);
  });
});

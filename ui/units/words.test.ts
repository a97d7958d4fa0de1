import { describe, expect, it } from "vitest";
import { scaleMetres } from "../place-plan";
import { isUnitSystem, lengthWords, massWords, shownLength, typedMetres } from "./words";

describe("units on screen", () => {
  it("read in either system", () => {
    expect([lengthWords(3, "metric"), lengthWords(3, "imperial")]).toEqual(["3 m", "9.8 ft"]);
    expect([massWords(462, "metric"), massWords(462, "imperial")]).toEqual(["462 kg", "1019 lb"]);
    expect([isUnitSystem("imperial"), isUnitSystem("stone"), isUnitSystem(undefined)]).toEqual([true, false, false]);
  });

  it("are typed in either system; what is no number is left for the form to name", () => {
    expect([typedMetres("3,5", "metric"), typedMetres("10", "imperial"), typedMetres("", "metric")]).toEqual([3.5, 3.048, null]);
    expect(typedMetres("wide", "imperial")).toBeNaN();
    expect([shownLength(null, "metric"), shownLength(3.048, "imperial")]).toEqual(["", "10"]);
  });

  it("come back from a field as they were, to the millimetre", () => {
    for (const metres of [0.6, 2.4, 6.7, 18, 60]) expect(typedMetres(shownLength(metres, "imperial"), "imperial")).toBeCloseTo(metres, 2);
  });
});

describe("scaleMetres", () => {
  it.each([
    [10, 2],
    [18, 5],
    [60, 10],
    [3, 0.5],
    [400, 100],
  ])("for a place of %d m is %d m", (length, scale) => {
    expect(scaleMetres(length)).toBeCloseTo(scale, 12);
  });
});

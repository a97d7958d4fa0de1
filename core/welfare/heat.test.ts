import { describe, expect, it } from "vitest";
import { fahrenheitToCelsius } from "../units";
import { heatCaution } from "./heat";
import { recoveryOf } from "./recovery";

describe("heatCaution", () => {
  // Bounds of the extension-service rule of thumb, from memory: 130, 150, 180.
  it.each([
    [70, 59, "usual"],
    [70, 60, "watch"],
    [80, 70, "watch"],
    [80, 71, "cut"],
    [95, 85, "cut"],
    [95, 86, "stop"],
    [20, 100, "usual"],
  ] as const)("%d °F and %d %% is %s", (fahrenheit, humidity, level) => {
    expect(heatCaution(fahrenheitToCelsius(fahrenheit), humidity).level).toBe(level);
  });
  it("refuses what cannot be", () => {
    expect(() => heatCaution(70, 50)).toThrow(RangeError);
    expect(() => heatCaution(20, 101)).toThrow(RangeError);
    expect(() => heatCaution(Number.NaN, 50)).toThrow(RangeError);
  });
});

describe("recoveryOf", () => {
  const minutes = (...pairs: readonly (readonly [number, number])[]) =>
    pairs.map(([at, perMinute]) => ({ wallMs: at * 60_000, perMinute }));
  /** An exponential fall by construction: resting 12, 48 above it at first, half gone each 4 minutes. */
  const exact = [0, 3, 6, 10].map((at) => [at, 12 + 48 * 2 ** (-at / 4)] as const);

  it("finds the half-time of an exponential fall to resting", () => {
    const recovery = recoveryOf(minutes(...exact), 12);
    expect(recovery.halfTimeMinutes).toBeCloseTo(4, 9);
    expect(recovery.startPerMinute).toBeCloseTo(60, 9);
    expect(recovery).toMatchObject({ cooled: false, callVet: false });
  });
  it("takes readings in any order, and needs three", () => {
    expect(recoveryOf(minutes(...[...exact].reverse()), 12).halfTimeMinutes).toBeCloseTo(4, 9);
    expect(recoveryOf(minutes([0, 40], [5, 20]), 12).halfTimeMinutes).toBeNull();
    // Back at resting is a reading too, which its logarithm would not be. Least squares by a grid search elsewhere: k = 0.285237.
    expect(recoveryOf(minutes([0, 40], [5, 20], [9, 12]), 12).halfTimeMinutes).toBeCloseTo(2.430074, 6);
  });
  it("says nothing of a half-time where breathing does not come down", () => {
    expect(recoveryOf(minutes([0, 30], [4, 34], [8, 40]), 12).halfTimeMinutes).toBeNull();
    expect(recoveryOf(minutes([5, 30], [5, 34], [5, 40]), 12).halfTimeMinutes).toBeNull();
  });
  it("is cooled within a quarter of resting", () => {
    expect(recoveryOf(minutes([0, 15]), 12).cooled).toBe(true);
    expect(recoveryOf(minutes([0, 15.1]), 12).cooled).toBe(false);
    expect(recoveryOf(minutes([0, 15]), null)).toMatchObject({ cooled: null, halfTimeMinutes: null });
    expect(recoveryOf([], 12).sentence).toBe("No breathing taken yet.");
  });
  it("calls for the veterinarian where breathing lies above the heart rate", () => {
    expect(recoveryOf(minutes([0, 70], [5, 66]), 12, 60)).toMatchObject({ callVet: true });
    expect(recoveryOf(minutes([0, 70], [5, 66]), 12, 60).sentence).toContain("call the veterinarian");
    expect(recoveryOf(minutes([0, 70], [5, 50]), 12, 60).callVet).toBe(false);
  });
});

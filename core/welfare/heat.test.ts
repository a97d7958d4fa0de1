import { describe, expect, it } from "vitest";
import { DEFAULT_SETTINGS, settingsFrom } from "../settings";
import { heatCaution, heatWords, wetBulbGlobeCelsius } from "./heat";
import { recoveryOf } from "./recovery";

describe("wet-bulb globe temperature", () => {
  // The Australian Bureau of Meteorology's approximation, from memory; values worked out by hand.
  it.each([
    [12, 98, 16.136],
    [38, 30, 33.266],
    [25, 50, 24.321],
  ])("of %d °C and %d %% is %d", (air, humidity, wbgt) => {
    expect(wetBulbGlobeCelsius(air, humidity, "sun")).toBeCloseTo(wbgt, 3);
    expect(wetBulbGlobeCelsius(air, humidity, "shade")).toBeCloseTo(wbgt - 2, 3);
  });
  it("refuses what cannot be", () => {
    expect(() => wetBulbGlobeCelsius(70, 50, "sun")).toThrow(RangeError);
    expect(() => heatCaution(20, 101)).toThrow(RangeError);
    expect(() => heatCaution(Number.NaN, 50)).toThrow(RangeError);
  });
});

describe("heatCaution", () => {
  it.each([
    ["a damp cold day", 12, 98, "sun", "usual"],
    ["a dry hot day", 38, 30, "sun", "stop"],
    ["the same in the shade", 38, 30, "shade", "cut"],
    ["a warm day", 25, 50, "sun", "usual"],
    ["a warmer one", 26, 60, "sun", "watch"],
    ["the same under cloud", 26, 60, "shade", "usual"],
    ["a hot one", 30, 50, "sun", "cut"],
  ] as const)("%s: %d °C and %d %% in the %s is %s", (_, air, humidity, sky, level) => {
    expect(heatCaution(air, humidity, sky).level).toBe(level);
  });

  it("goes by the yard's own bounds, which never cross", () => {
    expect(heatCaution(25, 50, "sun", { ...DEFAULT_SETTINGS, heatWatchCelsius: 24 }).level).toBe("watch");
    expect(settingsFrom({ heatWatchCelsius: 40, heatCutCelsius: 35, heatStopCelsius: 30 })).toMatchObject({
      heatWatchCelsius: 30,
      heatCutCelsius: 30,
      heatStopCelsius: 30,
    });
  });

  it("tells the older sum only where it is warm and stricter", () => {
    // 12 °C is 53.6 °F: 151.6 with 98 %, which said to cut the work on a cold day.
    expect(heatCaution(12, 98).stricterSum).toBeNull();
    // 21 °C is 69.8 °F: 159.8 with 90 %; the estimate is 24.7.
    expect(heatCaution(21, 90)).toMatchObject({ wbgtCelsius: 24.6, level: "usual", stricterSum: { sum: 160, level: "cut" } });
    expect(heatCaution(38, 30).stricterSum).toBeNull();
  });

  it("is said with its unit and where it holds", () => {
    expect(heatWords(heatCaution(25, 50))).toBe("Heat 24.3 °C WBGT, estimated for the sun. Usual care: shade and water at hand.");
    expect(heatWords(heatCaution(25, 50, "shade"), true)).toMatch(/^Heat 72\.1 °F WBGT, estimated for shade or cloud\./);
    expect(heatWords(heatCaution(21, 90))).toMatch(/ A second opinion, °F and humidity together 160: cut the work\.$/);
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

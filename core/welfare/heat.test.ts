import { describe, expect, it } from "vitest";
import { DEFAULT_SETTINGS, settingsFrom } from "../settings";
import { restingQuestion } from "./breath-down";
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
    ["the same in the shade", 38, 30, "shade", "stop"],
    ["a warm day", 25, 50, "sun", "usual"],
    ["a warmer one", 26, 60, "sun", "cut"],
    ["the same under cloud", 26, 60, "shade", "usual"],
    ["a hot one", 30, 50, "sun", "cut"],
  ] as const)("%s: %d °C and %d %% in the %s is %s", (_, air, humidity, sky, level) => {
    expect(heatCaution(air, humidity, sky).level).toBe(level);
  });

  it("goes by the yard's own bounds, which never cross", () => {
    expect(heatCaution(25, 50, "sun", { ...DEFAULT_SETTINGS, heatWatchCelsius: 24 }).level).toBe("watch");
    expect(settingsFrom({ heatWatchCelsius: 32, heatCutCelsius: 31, heatStopCelsius: 30 })).toMatchObject({
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
    expect(recovery).toMatchObject({ down: false, callVet: false });
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
  it("is down by two counts three minutes apart, a quarter or eight a minute over resting", () => {
    // Eight a minute over 11 is 19: common practice, no source.
    expect(recoveryOf(minutes([0, 14]), 11)).toMatchObject({ down: false, limitPerMinute: 19 });
    expect(recoveryOf(minutes([0, 14]), 11).sentence).toContain("nearly down. Count again in three minutes");
    expect(recoveryOf(minutes([0, 19], [3, 14]), 11).down).toBe(true);
    expect(recoveryOf(minutes([0, 19], [2.9, 14]), 11).down).toBe(false);
    expect(recoveryOf(minutes([0, 19.1], [3, 14]), 11).down).toBe(false);
    expect(recoveryOf(minutes([0, 14], [2, 25], [4, 14]), 11).down).toBe(false);
    expect(recoveryOf(minutes([0, 14], [3, 25]), 11).down).toBe(false);
    // Where the resting rate is not known, what is down for the slowest usual (8 and 8) is down for any; more says nothing.
    expect(recoveryOf(minutes([0, 16], [3, 16]), null)).toMatchObject({ down: true, ownLimit: false, halfTimeMinutes: null });
    expect(recoveryOf(minutes([0, 16], [2.9, 16]), null).down).toBeNull();
    expect(recoveryOf(minutes([0, 16.1], [3, 16]), null).down).toBeNull();
    expect(recoveryOf(minutes([0, 17], [3, 17]), null)).toMatchObject({
      down: null,
      sentence: expect.stringMatching(/not known.*16 or fewer, twice/),
    });
    expect(recoveryOf(minutes([0, 15], [3, 15]), null, { hard: true }).down).toBe(false);
    expect(recoveryOf([], 12).sentence).toBe("No breathing taken yet.");
  });
  it("asks for the heart, and the temperature where it was taken, after hard work or in heat", () => {
    const twice = minutes([0, 14], [3, 14]);
    const heart = (perMinute: number) => [{ wallMs: 3 * 60_000, perMinute }];
    expect(recoveryOf(twice, 11, { hard: true })).toMatchObject({ down: false });
    expect(recoveryOf(twice, 11, { hard: true, hearts: heart(60) }).down).toBe(false);
    expect(recoveryOf(twice, 11, { hard: true, hearts: heart(59) }).down).toBe(true);
    expect(recoveryOf(twice, 11, { hard: true, hearts: heart(50), celsius: 39 }).down).toBe(false);
    expect(recoveryOf(twice, 11, { hard: true, hearts: heart(50), celsius: 38.9 }).down).toBe(true);
  });
  it("says shade, water and air in heat, and never walk on", () => {
    expect(recoveryOf(minutes([0, 40]), 11, { hot: true }).sentence).toContain("water over the whole body");
    expect(recoveryOf(minutes([0, 40]), 11, { hot: true }).sentence).not.toContain("Walk on");
  });
  it("questions a resting rate over 20 and does not use one over 24", () => {
    expect(restingQuestion(20)).toBeNull();
    expect(restingQuestion(22)).toContain("Count it once more");
    expect(restingQuestion(30)).toContain("not used");
    expect(recoveryOf(minutes([0, 30], [4, 30]), 30).down).toBeNull();
    expect(recoveryOf(minutes([0, 30], [4, 30]), 24).down).toBe(true);
  });
  it("stops for breathing above the heart rate only where both were counted within two minutes", () => {
    const heart = (at: number, perMinute: number) => ({ wallMs: at * 60_000, perMinute });
    const above = recoveryOf(minutes([0, 70]), 12, { hearts: [heart(1, 60)] });
    expect(above).toMatchObject({ aboveHeart: true, callVet: false });
    expect(above.sentence).toContain("Call the vet now if the horse is dull");
    expect(above.sentence).toContain("again in ten minutes");
    expect(recoveryOf(minutes([0, 70]), 12, { hearts: [heart(2.1, 60)] }).aboveHeart).toBe(false);
    expect(recoveryOf(minutes([0, 50]), 12, { hearts: [heart(1, 60)] }).aboveHeart).toBe(false);
    // Ten minutes later: neither, then both clearly fallen.
    expect(recoveryOf(minutes([0, 70], [11, 66]), 12, { hearts: [heart(1, 60), heart(11, 50)] }).callVet).toBe(true);
    expect(recoveryOf(minutes([0, 70], [11, 50]), 12, { hearts: [heart(1, 60), heart(11, 58)] }).callVet).toBe(true);
    expect(recoveryOf(minutes([0, 70], [11, 50]), 12, { hearts: [heart(1, 60), heart(11, 50)] }).callVet).toBe(false);
  });
});

import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { drawExponential, drawNormal, pick, seededChance } from "./chance";
import { criterionOf } from "./ladder";
import * as units from "./units";

describe("units", () => {
  it("convert by the exact definitions of 1959 and back", () => {
    expect(units.feetToMetres(100)).toBeCloseTo(30.48, 12);
    expect(units.poundsToKilograms(1000)).toBeCloseTo(453.59237, 9);
    expect(units.metresToFeet(units.feetToMetres(7))).toBeCloseTo(7, 12);
    expect(units.kilogramsToPounds(units.poundsToKilograms(7))).toBeCloseTo(7, 12);
    expect(units.inchesToCentimetres(units.centimetresToInches(150))).toBeCloseTo(150, 12);
  });

  it("agree at the fixed points of the temperature scales", () => {
    expect([units.celsiusToFahrenheit(0), units.celsiusToFahrenheit(100), units.celsiusToFahrenheit(-40)]).toEqual([32, 212, -40]);
    expect(units.fahrenheitToCelsius(212)).toBe(100);
  });

  it("write heights in hands of four inches", () => {
    expect(units.centimetresToHands(147.32)).toBe("14.2");
    expect(units.centimetresToHands(162.56)).toBe("16.0");
    expect(units.centimetresToHands(121.9)).toBe("12.0");
  });
});

describe("seeded chance", () => {
  it("is the same for a seed, lies in [0, 1) and has the right means", () => {
    const a = seededChance(4);
    const b = seededChance(4);
    const draws = Array.from({ length: 20_000 }, () => a());
    expect(draws.slice(0, 50)).toEqual(Array.from({ length: 50 }, () => b()));
    expect(Math.min(...draws)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...draws)).toBeLessThan(1);
    const mean = (list: number[]) => list.reduce((s, x) => s + x, 0) / list.length;
    // Within four standard errors of 20 000 draws.
    const within = (list: number[], expected: number, deviation: number) =>
      expect(Math.abs(mean(list) - expected)).toBeLessThan((4 * deviation) / Math.sqrt(list.length));
    within(draws, 0.5, 1 / Math.sqrt(12));
    within(
      Array.from({ length: 20_000 }, () => drawExponential(a, 3)),
      3,
      3,
    );
    within(
      Array.from({ length: 20_000 }, () => drawNormal(a, 5, 2)),
      5,
      2,
    );
  });

  it("picks from a list and refuses an empty one", () => {
    expect(["a", "b"]).toContain(pick(seededChance(1), ["a", "b"]));
    expect(() => pick(seededChance(1), [])).toThrow(RangeError);
  });
});

describe("criterionOf", () => {
  it("carries the limits the rung sets and no others", () => {
    expect(criterionOf(emptyDraft().plan, 1)).toMatchObject({
      sentence: "Any movement within 10 s.",
      max_latency_s: 10,
      phases: ["body", "point", "line"],
      schedule: { kind: "every" },
    });
    expect(criterionOf(emptyDraft().plan, 1).max_phase).toBeUndefined();
    expect(() => criterionOf(emptyDraft().plan, 9)).toThrow(RangeError);
  });
});

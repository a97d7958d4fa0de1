import { describe, expect, it } from "vitest";
import { circleFigures, lapMetres, speedFromLaps } from "./mechanics";

describe("motion on a circle", () => {
  // Textbook circular motion: v²/r, atan(v²/(g·r)), 2πr; g as fixed by the CGPM in 1901. The values stand in the measures document.
  it("comes to the values of the measures document", () => {
    const trot = circleFigures({ radiusMetres: 10, speedMps: 3.3, minutes: 8 });
    expect(trot.distanceMetres).toBeCloseTo(1584, 6);
    expect(trot.laps).toBeCloseTo(25.21, 2);
    const small = circleFigures({ radiusMetres: 7.5, speedMps: 3.3, minutes: 1 });
    expect(small.sidewaysMps2).toBeCloseTo(1.452, 4);
    expect(small.leanDegrees).toBeCloseTo(8.422, 3);
    expect(circleFigures({ radiusMetres: 7.5, speedMps: 5, minutes: 1 }).leanDegrees).toBeCloseTo(18.773, 3);
  });
  it("gives a dose that adds up over minutes and grows with the square of the speed", () => {
    const dose = (speedMps: number, minutes: number) => circleFigures({ radiusMetres: 8, speedMps, minutes }).turningDoseGMinutes;
    // 4² / (9.80665·8) = 16 / 78.4532 = 0.203943 of g, by hand.
    expect(dose(4, 1)).toBeCloseTo(0.203943, 6);
    expect(dose(4, 5)).toBeCloseTo(5 * dose(4, 1), 12);
    expect(dose(2, 1)).toBeCloseTo(dose(4, 1) / 4, 12);
  });
  it("takes laps to speed and back", () => {
    const speed = speedFromLaps(10, 25, 476) ?? 0;
    expect(speed).toBeCloseTo((62.8318531 * 25) / 476, 6);
    expect(circleFigures({ radiusMetres: 10, speedMps: speed, minutes: 476 / 60 }).laps).toBeCloseTo(25, 9);
    expect(lapMetres(1)).toBeCloseTo(6.283185, 6);
    expect([speedFromLaps(10, 0, 60), speedFromLaps(10, 3, 0), speedFromLaps(0, 3, 60)]).toEqual([null, null, null]);
  });
  it("refuses a circle that is none", () => {
    for (const radiusMetres of [0, -1, Number.NaN, Number.POSITIVE_INFINITY])
      expect(() => circleFigures({ radiusMetres, speedMps: 1, minutes: 1 })).toThrow(RangeError);
    expect(() => circleFigures({ radiusMetres: 8, speedMps: -1, minutes: 1 })).toThrow(RangeError);
  });
});

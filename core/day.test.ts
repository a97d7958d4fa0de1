import { describe, expect, it } from "vitest";
import { dayIn, isTimeZone, startOfDayIn } from "./day";

describe("days in the yard's own time zone", () => {
  it("begin at its midnight, wherever the computer stands", () => {
    const late = Date.UTC(2026, 6, 1, 22, 30);
    expect([dayIn(late, "UTC"), dayIn(late, "Europe/Oslo"), dayIn(late, "America/New_York")]).toEqual([
      "2026-07-01",
      "2026-07-02",
      "2026-07-01",
    ]);
    expect(startOfDayIn(late, "Europe/Oslo")).toBe(Date.UTC(2026, 6, 1, 22));
  });

  it("have 23 or 25 hours where summer time begins and ends", () => {
    // The European Union's rule: the last Sunday of March and of October, at one o'clock universal time.
    const hours = (day: number, month: number) =>
      (startOfDayIn(Date.UTC(2026, month, day + 1, 12), "Europe/Oslo") - startOfDayIn(Date.UTC(2026, month, day, 12), "Europe/Oslo")) /
      3_600_000;
    expect([hours(29, 2), hours(25, 9), hours(1, 5)]).toEqual([23, 25, 24]);
  });

  it("are of zones that there are", () => {
    expect([isTimeZone("Europe/Oslo"), isTimeZone("UTC"), isTimeZone("Mars/Base"), isTimeZone(""), isTimeZone(3)]).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
  });
});

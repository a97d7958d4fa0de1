import { describe, expect, it } from "vitest";
import { dateWords, dayAfterWeeks, daysBetween, dueWords, type HorseDate } from "./dates";

const date = (change: Partial<HorseDate> = {}): HorseDate => ({ kind: "trim", day: "2026-03-10", everyWeeks: null, note: "", ...change });

describe("dates of a horse", () => {
  it("are said a week before, on the day and until they are done", () => {
    expect(dueWords(date(), "2026-03-02")).toBeNull();
    expect(dueWords(date(), "2026-03-03")).toBe("Trim due 10 March");
    expect(dueWords(date(), "2026-03-10")).toBe("Trim due today");
    expect(dueWords(date(), "2026-04-10")).toBe("Trim was due 10 March");
  });

  it("of coming back are said for as long as they lie ahead", () => {
    const back = date({ kind: "comes back on" });
    expect(dueWords(back, "2025-12-01")).toBe("Comes back on 10 March");
    expect(dueWords(back, "2026-03-10")).toBe("Comes back today");
    expect(dueWords(back, "2026-03-12")).toBe("Was to come back on 10 March");
  });

  it("have words of their own where they are of no kind", () => {
    expect(dueWords(date({ kind: "other", note: "worm count" }), "2026-03-09")).toBe("Worm count due 10 March");
    expect(dateWords(date({ everyWeeks: 6, note: "farrier at ten." }))).toBe("Trim on 10 March 2026, every 6 weeks. Farrier at ten.");
    expect(dateWords(date({ kind: "other", note: "worm count" }))).toBe("Worm count, 10 March 2026.");
  });

  it("count days across a change of clocks and a leap day, and weeks from the day it was done", () => {
    expect(daysBetween("2026-03-28", "2026-03-30")).toBe(2);
    expect(daysBetween("2028-02-28", "2028-03-01")).toBe(2);
    expect(daysBetween("2026-03-10", "2026-03-08")).toBe(-2);
    expect(dayAfterWeeks("2026-10-20", 6)).toBe("2026-12-01");
  });
});

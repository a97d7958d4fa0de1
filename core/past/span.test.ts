import { describe, expect, it } from "vitest";
import { spanOf } from ".";

const NOW = Date.UTC(2026, 9, 28, 12);
describe("a span", () => {
  it("opens on the last six weeks, and takes what it cannot read for that", () => {
    expect(spanOf({}, NOW, "UTC")).toMatchObject({ key: "42", label: "the last six weeks", fromMs: Date.UTC(2026, 8, 16) });
    expect(spanOf({ span: "nonsense", from: "31 June" }, NOW, "UTC").key).toBe("42");
    expect(spanOf({ from: "2026-05-02", to: "2026-05-01" }, NOW, "UTC").key).toBe("42");
    expect(spanOf({ span: "all" }, NOW, "UTC")).toMatchObject({ fromMs: 0, label: "since the beginning" });
  });
  it("holds whole days of the yard, also where the clock is put back", () => {
    // In Oslo 25 October 2026 has 25 hours: from 22:00 UTC of the day before to 23:00 UTC.
    const one = spanOf({ from: "2026-10-25", to: "2026-10-25" }, NOW, "Europe/Oslo");
    expect([one.fromMs, one.toMs]).toEqual([Date.UTC(2026, 9, 24, 22), Date.UTC(2026, 9, 25, 23)]);
    expect(spanOf({ from: "2026-10-25" }, NOW, "Pacific/Auckland").fromMs).toBe(Date.UTC(2026, 9, 24, 11));
    expect(spanOf({ to: "2026-10-25" }, NOW, "UTC")).toMatchObject({ fromMs: 0, label: "up to 2026-10-25" });
  });
});

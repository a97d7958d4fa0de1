import { describe, expect, it } from "vitest";
import { allowanceOn } from "./restrictions";
import { usedSentences } from "./week-use";

const DAY = 86_400_000;
const now = Date.UTC(2026, 5, 20, 15);
const midnight = Date.UTC(2026, 5, 20);
const session = (daysAgo: number, change = {}) => ({
  startMs: now - daysAgo * DAY,
  workMinutes: 12.4,
  trials: 20,
  circles: false,
  foodGrams: 30,
  ...change,
});
const free = allowanceOn([], "2026-06-20", null);

describe("usedSentences", () => {
  it("sums the last seven days and today", () => {
    expect(usedSentences([session(8), session(3), session(0.1)], now, midnight, free, null)).toEqual([
      "Last 7 days: 2 sessions, 25 min of work, 40 asks.",
      "Today already: 1 session, 12 min, 20 asks.",
    ]);
    expect(usedSentences([], now, midnight, free, null)).toEqual(["Last 7 days: 0 sessions, 0 min of work, 0 asks."]);
  });
  it("says what is left of circling and of the day's food where they are capped", () => {
    const capped = { ...free, circlingMinutes: { value: 20, why: "Under five years." } };
    expect(usedSentences([session(2, { circles: true }), session(0.2)], now, midnight, capped, 200).slice(2)).toEqual([
      "Circling in the last 7 days: 1 session; at most 20 min in one. Under five years.",
      "Food today: 30 of 200 g.",
    ]);
  });
});

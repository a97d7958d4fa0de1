import { describe, expect, it } from "vitest";
import { asUsed, usedSentences } from "./week-use";

const DAY = 86_400_000;
const now = Date.UTC(2026, 5, 20, 15);
const midnight = Date.UTC(2026, 5, 20);
const session = (daysAgo: number, change = {}) => ({
  startMs: now - daysAgo * DAY,
  workMinutes: 12.4,
  trials: 20,
  foodGrams: 30,
  ...change,
});

describe("asUsed", () => {
  const worked = {
    startMs: 0,
    workSeconds: 90,
    trials: 3,
    pieces: 4,
    weighedGrams: null,
    ladders: [{ pieceGrams: null }, { pieceGrams: 2.5 }],
  };
  it("takes the mass of a piece from the first ladder that says one, and the scales before it", () => {
    expect(asUsed(worked)).toEqual({ startMs: 0, workMinutes: 1.5, trials: 3, foodGrams: 10 });
    expect(asUsed({ ...worked, weighedGrams: 320 }).foodGrams).toBe(320);
    expect(asUsed({ ...worked, weighedGrams: 0 }).foodGrams).toBe(0);
    expect(asUsed({ ...worked, ladders: [] }).foodGrams).toBe(0);
  });
});

describe("usedSentences", () => {
  it("sums the last seven days and today", () => {
    expect(usedSentences([session(8), session(3), session(0.1)], now, midnight, null, null)).toEqual([
      "Last 7 days: 2 sessions, 25 min of work, 40 asks.",
      "Today already: 1 session, 12 min, 20 asks.",
    ]);
    expect(usedSentences([], now, midnight, null, null)).toEqual(["Last 7 days: 0 sessions, 0 min of work, 0 asks."]);
  });
  it("says what is left of circling and of the day's food where they are capped", () => {
    expect(usedSentences([session(2), session(0.2)], now, midnight, "Circling: 12 min.", 200).slice(2)).toEqual([
      "Circling: 12 min.",
      "Food today: 30 of 200 g.",
    ]);
  });
});

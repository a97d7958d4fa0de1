import { describe, expect, it } from "vitest";
import { NO_FACTS, type PastFacts } from "./facts";
import { packFacts, readFacts } from "./facts-wire";

const FULL: PastFacts = {
  method: "combined",
  airC: 0,
  humidity: 55,
  wind: "gusts",
  firstSide: "R",
  blocks: [
    { seconds: 80, planned: 6, startMs: 1000, endMs: 81_000 },
    { seconds: 60.25, planned: null, startMs: 90_000, endMs: 170_000 },
    { seconds: 10, planned: null, startMs: 170_000, endMs: 180_000, tries: { id: "t", arm: "B", n: 3 } },
    { seconds: 0, planned: null, startMs: 180_000, endMs: 180_000 },
  ],
  breaks: [[100_000, 119_750]],
  away: [[5000, 9000]],
  endMs: 180_000,
  moments: [
    [0, "zone", "__proto__"],
    [2000, "ease", "12"],
    [2000, "ease", "a"],
    [2000, "left", ""],
    [2000, "left", ""],
    [3000, "ease", "12"],
    [4000, "raised", ""],
  ],
  words: [
    { ms: 1, word: "Stay", taken: false },
    { ms: 2, word: "Raise", taken: true },
    { ms: 3, word: "Stay", taken: true },
  ],
  wrongMet: ["work", "nothing"],
};

describe("a session's facts as they are kept", () => {
  it("come back as they went, whatever they hold", () => {
    expect(readFacts(packFacts(FULL))).toEqual(FULL);
    for (const key of Object.keys(FULL) as (keyof PastFacts)[]) {
      const without = { ...FULL, [key]: NO_FACTS[key] };
      expect(readFacts(packFacts(without)), key).toEqual(without);
    }
  });

  it("take no room where there are none, and are none where nothing was kept", () => {
    expect(packFacts(NO_FACTS)).toBe("{}");
    expect(readFacts("{}")).toEqual(NO_FACTS);
  });
});

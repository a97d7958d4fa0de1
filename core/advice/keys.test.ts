import { describe, expect, it } from "vitest";
import { ADVICE_WORDS, adviceLogged, adviceOfKey } from ".";

/** What files of versions 0.1 to 0.14 call each advice. */
const IN_FILES = [
  ["Stop", "Stop"],
  ["Break", "Rest"],
  ["Finish", "Finish"],
  ["Add a step", "Split"],
  ["Go back", "Ease"],
  ["Change side", "Change side"],
  ["Up", "Raise"],
  ["Repeat", "Stay"],
] as const;

describe("the keys of the advice", () => {
  it.each(IN_FILES)("%s is written as %s and read back", (word, key) => {
    const advice = { word, why: "rule", reason: "So.", numbers: { met: 5 }, rung: 3 };
    expect(adviceLogged(advice, true)).toEqual({ word: key, why: "rule", reason: "So.", numbers: { met: 5 }, taken: true });
    expect(adviceLogged(advice, false, "rung 2")).toMatchObject({ word: key, taken: false, did: "rung 2" });
    expect(adviceOfKey(key)).toBe(word);
  });

  it("knows Start by the key of Repeat, and keeps a key nobody knows", () => {
    expect(adviceLogged({ word: "Start", why: "", reason: "", numbers: {} }, false).word).toBe("Stay");
    expect(adviceOfKey("Wander")).toBe("Wander");
    expect(ADVICE_WORDS.filter((word) => word !== "Start")).toHaveLength(IN_FILES.length);
  });
});

import { describe, expect, it } from "vitest";
import { lookedWords } from "./looked";

const gear = (on: boolean) => ({ helmet: on, gloves: on, boots: on });

describe("the look before work in words", () => {
  it("says all well only where all was said to be well", () => {
    expect(lookedWords({ gear: gear(true), checks: ["kit fits"], open: [] })).toBe("All looked at and well.");
  });
  it("never takes nothing ticked for well, as on the circle with no kit", () => {
    expect(lookedWords({ gear: gear(false), checks: [], open: [] })).toBe("Nothing was ticked before work.");
    expect(lookedWords({})).toBe("Nothing was ticked before work.");
    expect(lookedWords({ gear: { ...gear(false), helmet: true }, checks: [], open: [] })).toBe("Well: helmet. Not said: gloves, boots.");
  });
  it("names what was open, and a look that was skipped", () => {
    expect(lookedWords({ gear: gear(true), checks: ["kit fits"], open: ["sound"] })).toContain("Not right, or not looked at: sound.");
    expect(lookedWords({ skipped: true })).toContain("skipped");
  });
});

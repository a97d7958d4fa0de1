import { describe, expect, it } from "vitest";
import { randomSession } from "@/tests/support/random-session";
import { reduceSession, slimTrial, wholeTrial } from ".";

describe("a trial on its way to a browser", () => {
  it("comes back as it was, whatever it holds", () => {
    let trials = 0;
    let before = 0;
    let after = 0;
    for (let seed = 1; seed <= 40; seed++) {
      for (const trial of reduceSession(randomSession(seed).events).trials) {
        const sent = JSON.stringify(slimTrial(trial));
        expect(wholeTrial(JSON.parse(sent))).toEqual(trial);
        before += JSON.stringify(trial).length;
        after += sent.length;
        trials++;
      }
    }
    expect(trials).toBeGreaterThan(200);
    expect(after).toBeLessThan(0.75 * before);
  });
});

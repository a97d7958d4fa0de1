import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomSession } from "@/tests/support/random-session";
import { SessionWriter } from "@/tests/support/session-writer";
import { compactRibbonOf, DRAWING_MOST_CHARACTERS, readCompactRibbon } from "./compact-ribbon";
import { reduceSession } from "./reduce-session";

describe("a ribbon in small", () => {
  it("comes back with what was drawn: times to a thousandth of the line, outcomes, sides, food, rests and signs", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "ask", { phase: 1 });
    w.add(13, "phase", { phase: 3, by: "press" });
    w.add(15, "response", { answer: "met", phase: 3 });
    w.add(16, "release");
    w.add(17, "feed", { pieces: 1 });
    w.add(20, "signal", { name: "licks and chews", class: "ease" });
    w.add(40, "trial", { outcome: "refused" });
    w.add(50, "break.start");
    w.add(80, "break.end");
    w.add(90, "depart");
    w.add(95, "return");
    w.add(100, "session.end");
    const small = readCompactRibbon(compactRibbonOf(reduceSession(w.events)));
    expect(small.endMs).toBe(102_000);
    const near = (ms: number | null | undefined) => Math.round((ms ?? -1) / 100) / 10;
    expect(small.trials.map(({ askMs, endMs, outcome, side }) => [near(askMs), near(endMs), outcome, side])).toEqual([
      [10, 16, "met", "L"],
      [40, 40, "refused", "L"],
    ]);
    expect(small.trials[0]?.phaseSteps.map(({ phase }) => phase)).toEqual([1, 2, 3]);
    expect([near(small.trials[0]?.answerMs), small.trials[0]?.reinforcers, small.trials[1]?.reinforcers]).toEqual([15, 1, 0]);
    expect(small.facts.map((fact) => [near(fact.ms), fact.type === "signal" && fact.payload.class])).toEqual([[20, "ease"]]);
    // A rest to the hundredth of a second: its length stands beside it in words.
    expect(small.timeLine.breaks.map(({ startMs, endMs }) => [startMs, endMs ?? 0].map((ms) => Math.round(ms / 10) / 100))).toEqual([
      [50, 80],
    ]);
    expect(small.timeLine.departures.map(({ startMs, endMs }) => [near(startMs), near(endMs)])).toEqual([[90, 95]]);
  });

  it("takes a few hundred characters, however long the session", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), fc.constantFrom(40, 90, 600), (seed, steps) => {
        const record = reduceSession(randomSession(seed, undefined, steps).events);
        const drawing = compactRibbonOf(record);
        expect(drawing.length).toBeLessThanOrEqual(DRAWING_MOST_CHARACTERS);
        expect(readCompactRibbon(drawing).trials.length).toBeLessThanOrEqual(record.trials.length);
        if (record.trials.length > 0) expect(readCompactRibbon(drawing).trials[0]?.outcome).toBe(record.trials[0]?.outcome);
      }),
      { numRuns: 60 },
    );
  });

  it("of a session without a trial is a line without marks, and a drawing that is none draws nothing", () => {
    expect(readCompactRibbon(compactRibbonOf(reduceSession([]))).trials).toEqual([]);
    expect(readCompactRibbon("").trials).toEqual([]);
  });
});

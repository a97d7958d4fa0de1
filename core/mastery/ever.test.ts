import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { everMastered } from "./ever";
import { masteryProgress } from "./progress";
import type { MasteryRule } from "./rule";

const RULES: readonly MasteryRule[] = [
  { kind: "share", met: 4, of: 5, window: "moving" },
  { kind: "share", met: 4, of: 5, window: "block" },
  { kind: "share", met: 2, of: 2, window: "block" },
  { kind: "run", length: 3 },
  { kind: "posterior", target: 0.8, confidence: 0.7, least: 5 },
  { kind: "first-clean" },
];

describe("everMastered", () => {
  it.each(RULES)("says of %j what asking after each trial would say", (rule) => {
    const trial = fc.record({
      met: fc.boolean(),
      clean: fc.double({ min: 0, max: 1, noNaN: true }).map((x) => x > 0.97),
      blockKey: fc.constantFrom("a", "b", "c"),
    });
    fc.assert(
      fc.property(fc.array(trial, { maxLength: 40 }), (trials) => {
        const asked = trials.some((_, i) => masteryProgress(rule, trials.slice(0, i + 1)).passed);
        expect(everMastered(rule, trials)).toBe(asked);
      }),
      { numRuns: 300 },
    );
  });

  it("costs no more than reading them", () => {
    const trials = Array.from({ length: 200_000 }, (_, i) => ({ met: i % 2 === 0, clean: false, blockKey: String(Math.floor(i / 8)) }));
    const started = performance.now();
    for (const rule of RULES) everMastered(rule, trials);
    expect(performance.now() - started).toBeLessThan(2000);
  });
});

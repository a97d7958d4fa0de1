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
  { kind: "run", length: 2, days: 2 },
  { kind: "share", met: 2, of: 3, window: "moving", days: 3 },
  { kind: "first-clean", days: 2 },
];

describe("everMastered", () => {
  it.each(RULES)("says of %j what asking after each trial would say", (rule) => {
    const trial = fc.record({
      met: fc.boolean(),
      clean: fc.double({ min: 0, max: 1, noNaN: true }).map((x) => x > 0.97),
      blockKey: fc.constantFrom("a", "b", "c"),
      hours: fc.constantFrom(0, 0.1, 11, 12, 30),
    });
    fc.assert(
      fc.property(fc.array(trial, { maxLength: 40 }), (drawn) => {
        let wallMs = 0;
        const trials = drawn.map(({ hours, ...one }) => {
          wallMs += hours * 3_600_000;
          return { ...one, wallMs };
        });
        const asked = trials.some((_, i) => masteryProgress(rule, trials.slice(0, i + 1)).passed);
        expect(everMastered(rule, trials)).toBe(asked);
      }),
      { numRuns: 300 },
    );
  });

  it("costs no more than reading them", () => {
    const trials = (length: number) =>
      Array.from({ length }, (_, i) => ({
        met: i % 2 === 0,
        clean: false,
        blockKey: String(Math.floor(i / 8)),
        wallMs: i * 3_600_000,
      }));
    // Eight times as many cost about eight times as much, on a busy machine too; with the square it would be sixty-four.
    const msOf = (list: ReturnType<typeof trials>) => {
      const started = performance.now();
      for (const rule of RULES) everMastered(rule, list);
      return performance.now() - started;
    };
    const [few, many] = [trials(4000), trials(32_000)];
    msOf(few);
    const least = (list: ReturnType<typeof trials>) => Math.min(...[1, 2, 3].map(() => msOf(list)));
    expect(least(many)).toBeLessThan(24 * least(few) + 20);
  });
});

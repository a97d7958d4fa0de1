import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { shareDifference } from "./difference";

describe("shareDifference", () => {
  it("gives the published interval (Newcombe 1998, table II, 56/70 against 48/80, method 10; from memory)", () => {
    const found = shareDifference({ met: 48, of: 80 }, { met: 56, of: 70 });
    expect(found?.difference).toBeCloseTo(0.2, 12);
    expect(found?.interval[0]).toBeCloseTo(0.0524, 4);
    expect(found?.interval[1]).toBeCloseTo(0.3339, 4);
  });

  it.each([
    [9, 10, 3, 10, 0.1705, 0.809],
    [6, 7, 2, 7, 0.0582, 0.8062],
    [5, 56, 0, 29, -0.0381, 0.1926],
    [10, 10, 0, 20, 0.6791, 1],
  ])("of %i/%i less %i/%i is %d to %d (same table, small counts; from memory)", (met, of, metBefore, ofBefore, low, high) => {
    const found = shareDifference({ met: metBefore, of: ofBefore }, { met, of });
    expect(found?.interval[0]).toBeCloseTo(low, 4);
    expect(found?.interval[1]).toBeCloseTo(high, 4);
  });

  it("has nothing to say without trials, and says when they are too few", () => {
    expect(shareDifference({ met: 0, of: 0 }, { met: 1, of: 2 })).toBeNull();
    expect(shareDifference({ met: 0, of: 3 }, { met: 3, of: 3 })?.enough).toBe(false);
    expect(shareDifference({ met: 1, of: 5 }, { met: 5, of: 5 })?.enough).toBe(true);
    expect(() => shareDifference({ met: 3, of: 2 }, { met: 1, of: 2 })).toThrow(RangeError);
  });

  it("holds the difference inside its interval, and turns its sign with the order", () => {
    const counted = fc.integer({ min: 1, max: 60 }).chain((of) => fc.record({ met: fc.integer({ min: 0, max: of }), of: fc.constant(of) }));
    fc.assert(
      fc.property(counted, counted, (a, b) => {
        const there = shareDifference(a, b);
        const back = shareDifference(b, a);
        if (there === null || back === null) return false;
        const [low, high] = there.interval;
        return (
          low >= -1 &&
          high <= 1 &&
          low <= there.difference + 1e-12 &&
          there.difference <= high + 1e-12 &&
          Math.abs(low + back.interval[1]) < 1e-9 &&
          Math.abs(high + back.interval[0]) < 1e-9
        );
      }),
    );
  });
});

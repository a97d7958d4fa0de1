import { describe, expect, it } from "vitest";
import { fisherExact } from "@/core/evidence";
import { CLAIMS, type Claim, NOT_DRAWN, POOLED_AS_INDEPENDENT } from "@/tests/truth/claims";
import { measure } from "@/tests/truth/measure";

// The small form of `npm run -s truth`; the whole one with its table takes minutes.
const HORSES = 80;
const LONG_HORSES = 16;

describe("what the app says, on horses whose truth is known", () => {
  it("has a limit for each", () => {
    for (const { sentence, atMost, atLeast } of CLAIMS) expect(atMost ?? atLeast, sentence).toBeDefined();
  });

  it.each(CLAIMS.map((claim) => [claim.sentence, claim.horses, claim] as const))("%s (%s)", (_, __, claim) => {
    const { holds, share, of } = measure(claim, claim.long === true ? LONG_HORSES : HORSES);
    expect(holds, `${Math.round(share * 100)} % of ${of}`).toBe(true);
  });

  it("would be caught where the order of two ways is not drawn", () => {
    expect(measure(NOT_DRAWN, 200).holds).toBe(false);
  });

  it("would be caught as it was before: pooled trials as if they were independent", () => {
    expect(measure(POOLED_AS_INDEPENDENT, 300).holds).toBe(false);
    // Two sides of 120 trials each in sessions that differ by day and side: Fisher's test on all of them together.
    const pooled: Claim = {
      sentence: "Left is weaker, by Fisher's test on pooled trials",
      horses: "equal sides with days of their own",
      asks: "false",
      atMost: 0.05,
      run: (chance) => {
        const sum = { left: 0, right: 0 };
        for (let day = 0; day < 12; day++)
          for (const side of ["left", "right"] as const) {
            const p = 0.3 + 0.5 * chance();
            for (let trial = 0; trial < 10; trial++) if (chance() < p) sum[side]++;
          }
        return fisherExact(sum.left, 120 - sum.left, sum.right, 120 - sum.right) < 0.05;
      },
    };
    expect(measure(pooled, 300).holds).toBe(false);
  });
});

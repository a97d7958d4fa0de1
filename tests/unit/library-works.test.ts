import { describe, expect, it } from "vitest";
import { methodsOf, planFromTemplate } from "@/core/behaviour";
import { LIBRARY } from "@/library";
import { climb } from "@/tests/support/climb";

describe("the learner that makes the demo", () => {
  it.each(
    LIBRARY.flatMap((template) =>
      methodsOf(template)
        .filter((method) => method !== "combined")
        .map((method) => [template.key, method, template] as const),
    ),
  )("works %s by %s from the first rung to the last", (_, method, template) => {
    const plan = planFromTemplate(template, method);
    // A ladder that is long for this learner may keep one horse for a season; that none gets up it is what must not be.
    let result = climb(plan, 7);
    for (const seed of [8, 11]) if (!result.reachedTop) result = climb(plan, seed);
    expect(result.reachedTop).toBe(true);
    expect(result.rungsWorked).toEqual(plan.rungs.map((_rung, i) => i + 1));
  });

  it("gets nowhere on a ladder no horse could climb: the check can fail", () => {
    const [first] = LIBRARY;
    if (first === undefined) throw new Error("the library is empty");
    const plan = planFromTemplate(first, "pressure-release");
    // A rule that wants every phase-1 answer calm within no time at all.
    const impossible = {
      ...plan,
      strands: [
        ...plan.strands,
        {
          id: "latency",
          key: "latency" as const,
          name: "answers within",
          kind: "number" as const,
          unit: "s",
          levels: [],
          harder: "less" as const,
        },
      ],
      rungs: plan.rungs.map(({ values }) => ({ values: { ...values, latency: 0.05 } })),
    };
    expect(climb(impossible, 7, 20).reachedTop).toBe(false);
  });
});

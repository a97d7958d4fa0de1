import { describe, expect, it } from "vitest";
import { inTheWay, methodsOf, planFromTemplate } from "@/core/behaviour";
import { climb } from "@/demo/climb";
import { LIBRARY } from "@/library";

/** Every template by each of its ways. */
const taught = LIBRARY.flatMap((whole) =>
  (whole.ways.length === 0 ? [undefined] : whole.ways.map(({ key }) => key)).map((way) => ({
    name: way === undefined ? whole.key : `${whole.key}, ${way}`,
    ...inTheWay(whole, way),
  })),
);

describe("the horse that makes the demo", () => {
  it.each(
    taught.flatMap(({ name, template, ways }) =>
      methodsOf(template)
        .filter((method) => method !== "combined")
        .map((method, i) => [name, method, (i % 2 === 0 ? "L" : "R") as "L" | "R", { template, ways }] as const),
    ),
  )("works %s by %s from the first rung to the last, weaker on %s", (_, method, weakSide, { template, ways }) => {
    const plan = planFromTemplate(template, method, ways);
    // A ladder that is long for this horse may keep one for a season; that none gets up it is what must not be.
    let result = climb(plan, 7, weakSide);
    for (const seed of [8, 11]) if (!result.reachedTop) result = climb(plan, seed, weakSide);
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
    expect(climb(impossible, 7, "L", 20).reachedTop).toBe(false);
  });
});

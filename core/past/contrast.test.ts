import { describe, expect, it } from "vitest";
import { seededChance } from "@/core/chance";
import { sessionPermutation, stratifiedPermutation } from "@/core/evidence";
import { writePast } from "@/tests/support/past-writer";
import { contrastSets, trialsFor } from ".";

describe("two lots of sessions", () => {
  it("are tested over every way to share them out, as by hand", () => {
    // Shares 0.1, 0.2 against 0.8, 0.9: six ways, only the split seen and its mirror differ as much.
    const test = sessionPermutation(
      [
        { sum: 1, of: 10 },
        { sum: 2, of: 10 },
      ],
      [
        { sum: 8, of: 10 },
        { sum: 9, of: 10 },
      ],
    );
    expect(test).toMatchObject({ ways: 6, first: 2, second: 2 });
    expect(test?.difference).toBeCloseTo(0.7, 12);
    expect(test?.p).toBeCloseTo(2 / 6, 12);
    expect(sessionPermutation([], [{ sum: 1, of: 1 }])).toBeNull();
    expect(sessionPermutation([{ sum: 0, of: 0 }], [{ sum: 1, of: 1 }])).toBeNull();
  });

  it("agree with Pitman's test worked out naively", () => {
    const first = [3, 5, 6].map((sum) => ({ sum, of: 10 }));
    const second = [4, 8, 9, 9].map((sum) => ({ sum, of: 10 }));
    const all = [...first, ...second].map(({ sum }) => sum / 10);
    const seen = Math.abs(7.5 / 10 - 14 / 30);
    let asMuch = 0;
    let ways = 0;
    for (let mask = 0; mask < 2 ** 7; mask++) {
      const a = all.filter((_, i) => mask & (1 << i));
      if (a.length !== 3) continue;
      const b = all.filter((_, i) => !(mask & (1 << i)));
      ways++;
      if (Math.abs(b.reduce((x, y) => x + y) / 4 - a.reduce((x, y) => x + y) / 3) >= seen - 1e-12) asMuch++;
    }
    expect(sessionPermutation(first, second)?.p).toBeCloseTo(asMuch / ways, 12);
    // Many sessions are drawn, roughly where nothing shows, and come to nearly the same.
    const many = Array.from({ length: 14 }, (_, i) => ({ sum: i % 5, of: 8 }));
    const p = sessionPermutation(many.slice(0, 7), many.slice(7))?.p ?? 0;
    const drawn = stratifiedPermutation(many.map((one, i) => ({ ...one, stratum: "", second: i >= 7 })))?.p ?? 0;
    expect(Math.abs(p - drawn)).toBeLessThan(0.06);
  });

  it("change lots only within their stratum", () => {
    const lot = (stratum: string, second: boolean, sum: number) => ({ stratum, second, sum, of: 10 });
    // A hard rung that is mostly of the second lot: pooled it looks worse, within rungs it is not.
    const sums = [
      lot("easy", false, 9),
      lot("easy", false, 9),
      lot("easy", true, 9),
      lot("hard", false, 2),
      lot("hard", true, 2),
      lot("hard", true, 2),
    ];
    const within = stratifiedPermutation(sums);
    expect(within?.difference).toBeCloseTo(0, 12);
    expect(within?.p).toBe(1);
    expect(stratifiedPermutation([lot("a", true, 1), lot("b", false, 1)])).toBeNull();
  });
});

describe("any two sets", () => {
  const sides = (left: string, right: string) => [
    ...[...left].map((letter) => ({ outcome: letter === "m" ? ("met" as const) : ("miss" as const), side: "L" as const })),
    ...[...right].map((letter) => ({ outcome: letter === "m" ? ("met" as const) : ("miss" as const), side: "R" as const })),
  ];
  it("lead with what respects sessions, the plain tests beside", () => {
    const turned = (list: ReturnType<typeof sides>) => [...list.slice(8), ...list.slice(0, 8)];
    const both = sides("mxmxmxmx", "mmmmmmxm");
    const past = writePast(Array.from({ length: 10 }, (_, day) => ({ day, trials: day % 2 === 0 ? both : turned(both) })));
    const of = (side: string) => ({ past, trials: trialsFor(past, { side }) });
    const { share, plain, first, cautions } = contrastSets(of("L"), of("R"));
    expect(share).toMatchObject({ by: "within", sessions: 10, called: true });
    expect(share.sentence).toBe("B is met 38 points more often, compared within sessions 10 times.");
    expect(first.share).toEqual({ met: 40, of: 80 });
    expect(plain.share?.difference).toBeCloseTo(0.375, 12);
    expect(cautions).toEqual([]);
    // The same with the left always first: that it warms up looks the same.
    const always = writePast(Array.from({ length: 10 }, (_, day) => ({ day, trials: both })));
    const set = (side: string) => ({ past: always, trials: trialsFor(always, { side }) });
    expect(contrastSets(set("L"), set("R")).share).toMatchObject({
      called: false,
      sentence:
        "A came first in 10 of 10 sessions, so the difference can't be told apart from warming up or tiring. Take turns in which comes first.",
    });
  });

  it("are worked out with Newcombe's example, two Poisson rates and Freireich's arms", () => {
    // Newcombe 1998, table II: 56 of 70 against 48 of 80 (from memory): 0.2, 0.0524 to 0.3339.
    const past = writePast([
      { day: 0, id: "a", trials: `${"m".repeat(48)}${"x".repeat(32)}`, minutes: 10 },
      { day: 1, id: "b", trials: `${"m".repeat(56)}${"x".repeat(14)}`, minutes: 10 },
    ]);
    const of = (session: string) => ({ past, trials: trialsFor(past, { session }) });
    const { plain, share, latency } = contrastSets(of("a"), of("b"));
    expect(plain.share?.interval[0]).toBeCloseTo(0.0524, 4);
    expect(plain.share?.interval[1]).toBeCloseTo(0.3339, 4);
    expect(plain.rate?.ratio).toBeCloseTo(56 / 48, 12);
    // Two sessions say nothing, whatever their trials do.
    expect(share).toMatchObject({ called: false, interval: null, p: 1 });
    expect(latency.sentence).toBe("No timed answers in one of the two.");
    const times = (list: readonly number[], cut: readonly number[]) => [
      ...list.map((latencySeconds) => ({ outcome: "met" as const, latencySeconds })),
      ...cut.map((waitedSeconds) => ({ outcome: "refused" as const, waitedSeconds })),
    ];
    const arms = writePast([
      { day: 0, id: "a", trials: times([6, 6, 6, 7, 10, 13, 16, 22, 23], [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35]) },
      { day: 1, id: "b", trials: times([1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23], []) },
    ]);
    const arm = (session: string) => ({ past: arms, trials: trialsFor(arms, { session }) });
    expect(contrastSets(arm("a"), arm("b")).plain.latency?.chiSquared).toBeCloseTo(16.8, 1);
  });

  it("say where they differ in more than one thing, lie one before the other or hold the same trials", () => {
    const past = writePast([
      { day: 0, trials: "mmmm", handler: "ana", place: "pen" },
      { day: 1, trials: "mmmm", handler: "ana", place: "pen" },
      { day: 2, trials: "mxmm", handler: "bea", place: "field" },
      { day: 3, trials: "mmmm", handler: "bea", place: "field" },
    ]);
    const of = (handler: string) => ({ past, trials: trialsFor(past, { handler }) });
    const { cautions } = contrastSets(of("ana"), of("bea"));
    expect(cautions).toEqual([
      "A lies mostly before B: what the horse learnt in between counts too.",
      "The two differ in more than one thing: handler, place. Which of them counts cannot be told.",
    ]);
    expect(contrastSets(of("ana"), { past, trials: past.trials }).cautions).toContain(
      "Some trials are in both, which makes them look more alike.",
    );
  });

  it("call a difference where none is at most as often as they say", () => {
    const chance = seededChance(17);
    let called = 0;
    let plain = 0;
    for (let run = 0; run < 200; run++) {
      // Good days and bad days, and no difference between the handlers who share them out.
      const past = writePast(
        Array.from({ length: 16 }, (_, day) => {
          const p = Math.min(0.95, Math.max(0.05, 0.6 + (chance() - 0.5) * 0.7));
          return {
            day,
            handler: chance() < 0.5 ? "ana" : "bea",
            trials: Array.from({ length: 12 }, () => (chance() < p ? "m" : "x")).join(""),
          };
        }),
      );
      const of = (handler: string) => ({ past, trials: trialsFor(past, { handler }) });
      const contrast = contrastSets(of("ana"), of("bea"));
      if (contrast.share.called) called++;
      const interval = contrast.plain.share?.interval;
      if (interval !== undefined && (interval[0] > 0 || interval[1] < 0)) plain++;
    }
    expect(called).toBeLessThanOrEqual(7);
    // What takes trials as independent calls far more: which is why it does not lead.
    expect(plain).toBeGreaterThan(30);
  });
});

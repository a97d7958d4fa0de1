import { describe, expect, it } from "vitest";
import { drawNormal, seededChance } from "@/core/chance";
import { writePast } from "@/tests/support/past-writer";
import {
  type Arm,
  beginnings,
  drawOrder,
  earlierBlockValues,
  ordersOf,
  promiseOf,
  randomisationTest,
  type TriedBlock,
  type TryBoth,
  triedBlocks,
  tryResult,
} from ".";

const arms = (text: string) => [...text] as Arm[];
const all = (blocks: number, alike: number) => beginnings(ordersOf(blocks, alike), blocks);

describe("the orders that can be drawn", () => {
  it("are all that are balanced and hold to the restriction, found again by trying every one", () => {
    for (const [blocks, alike] of [
      [4, 1],
      [4, 2],
      [6, 2],
      [8, 2],
      [8, 3],
      [10, 2],
    ] as const) {
      const naive: string[] = [];
      for (let mask = 0; mask < 2 ** blocks; mask++) {
        const order = Array.from({ length: blocks }, (_, i) => (mask & (1 << i) ? "B" : "A")).join("");
        const half = [...order].filter((one) => one === "A").length === blocks / 2;
        if (half && !order.includes("A".repeat(alike + 1)) && !order.includes("B".repeat(alike + 1))) naive.push(order);
      }
      expect(
        ordersOf(blocks, alike)
          .map((order) => order.join(""))
          .sort(),
      ).toEqual(naive.sort());
    }
    expect(() => ordersOf(5, 2)).toThrow(RangeError);
    expect(() => ordersOf(18, 2)).toThrow(RangeError);
    expect(() => ordersOf(8, 0)).toThrow(RangeError);
  });

  it("are each as likely", () => {
    const chance = seededChance(3);
    const counts = new Map<string, number>();
    for (let i = 0; i < 6000; i++) {
      const order = drawOrder(chance, 4, 2).join("");
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    expect(counts.size).toBe(6);
    for (const count of counts.values()) expect(Math.abs(count - 1000)).toBeLessThan(150);
  });

  it("begin with each other in the weights they could have been drawn", () => {
    const begun = beginnings(ordersOf(6, 2), 3);
    expect(begun.reduce((sum, { weight }) => sum + weight, 0)).toBe(ordersOf(6, 2).length);
    expect(begun.map(({ arms: order }) => order.join(""))).not.toContain("AAA");
  });
});

describe("the randomisation test", () => {
  it("is Edgington and Onghena's worked out over every order by hand", () => {
    // ABBA with 1, 4, 5, 2: mean B 4.5 less mean A 1.5 is 3. The six orders give 0, 1·…; only ABBA and BAAB are as far apart.
    const test = randomisationTest([1, 4, 5, 2], arms("ABBA"), all(4, 2));
    expect(test?.effect).toBe(3);
    expect(test?.p).toBeCloseTo(2 / 6, 12);
    expect(test?.leastP).toBeCloseTo(2 / 6, 12);
    expect(test?.interval).toBeNull();
  });

  it("agrees with full enumeration, and its interval with a search for the last difference not rejected", () => {
    const chance = seededChance(11);
    const orders = all(10, 2);
    for (let run = 0; run < 20; run++) {
      const drawn = drawOrder(chance, 10, 2);
      const values = drawn.map((arm) => Math.round(drawNormal(chance, arm === "B" ? 1 : 0, 1) * 10) / 10);
      const test = randomisationTest(values, drawn, orders);
      const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
      const effect = (list: readonly number[], order: readonly Arm[]) =>
        mean(list.filter((_, i) => order[i] === "B")) - mean(list.filter((_, i) => order[i] === "A"));
      const pAt = (delta: number) => {
        const shifted = values.map((value, i) => value - (drawn[i] === "B" ? delta : 0));
        const seen = Math.abs(effect(shifted, drawn)) - 1e-9;
        return orders.filter(({ arms: order }) => Math.abs(effect(shifted, order)) >= seen).length / orders.length;
      };
      expect(test?.p).toBeCloseTo(pAt(0), 12);
      const [low, high] = test?.interval ?? [0, 0];
      for (const [end, out] of [
        [low, -1],
        [high, 1],
      ] as const) {
        if (!Number.isFinite(end)) continue;
        expect(pAt(end - out * 1e-6)).toBeGreaterThan(0.05);
        expect(pAt(end + out * 1e-6)).toBeLessThanOrEqual(0.05 + 1e-12);
      }
    }
  });

  it("rejects what is not there at most as often as it says, cut short or not, and its interval holds what is", () => {
    const chance = seededChance(23);
    for (const done of [12, 9]) {
      const orders = ordersOf(12, 2);
      const weighed = beginnings(orders, done);
      let rejected = 0;
      let held = 0;
      const runs = 600;
      for (let run = 0; run < runs; run++) {
        const drawn = drawOrder(chance, 12, 2).slice(0, done);
        // The horse gets better from block to block, and each day differs: nothing of it is A or B.
        const noise = drawn.map((_, i) => 0.2 * i + drawNormal(chance, 0, 1));
        if ((randomisationTest(noise, drawn, weighed)?.p ?? 1) < 0.05) rejected++;
        const [low, high] = randomisationTest(
          noise.map((one, i) => one + (drawn[i] === "B" ? 1.5 : 0)),
          drawn,
          weighed,
        )?.interval ?? [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
        if (low <= 1.5 && 1.5 <= high) held++;
      }
      expect(rejected / runs).toBeLessThan(0.07);
      expect(held / runs).toBeGreaterThan(0.93);
    }
  });

  it("passes over blocks that gave no value", () => {
    expect(randomisationTest([1, null, 3, 2], arms("ABBA"), all(4, 2))?.effect).toBe(1.5);
    expect(randomisationTest([null, 1, 3, null], arms("ABBA"), all(4, 2))).toBeNull();
  });
});

describe("what it promises", () => {
  it("says that few blocks can show nothing, and what more of them find", () => {
    expect(promiseOf(6, 2).leastP).toBeCloseTo(2 / ordersOf(6, 2).length, 12);
    expect(promiseOf(6, 2).foundSpreads).toBeNull();
    expect(promiseOf(8, 2).foundSpreads).toBeNull();
    const [ten, twelve, sixteen] = [promiseOf(10, 2), promiseOf(12, 2), promiseOf(16, 2)].map(({ foundSpreads }) => foundSpreads ?? 9);
    expect(twelve).toBeLessThanOrEqual(ten ?? 0);
    expect(sixteen).toBeLessThanOrEqual(twelve ?? 0);
    // Beside the t test of two groups of six, which finds 1.8 spreads eight times in ten (Cohen's tables, from memory).
    expect(twelve).toBeGreaterThanOrEqual(1.5);
    expect(twelve).toBeLessThanOrEqual(2.5);
  });
});

const ONE: TryBoth = {
  id: "t",
  ladder: "ladder",
  version: 1,
  rung: 1,
  question: "What does a right answer earn?",
  a: "food",
  b: "a scratch",
  ways: { A: {}, B: {} },
  counts: "share",
  arms: arms("ABBABAABABBA"),
  mostAlike: 2,
  asksEach: 6,
  createdMs: 0,
  endedMs: null,
  endedWhy: null,
};
const block = (number: number, value: number | null, worked?: Arm): TriedBlock => ({
  number,
  worked: worked ?? (ONE.arms[number - 1] as Arm),
  value,
  session: "s",
  startedMs: 0,
  asks: 6,
});
const worked = (n: number, a: number, b: number) =>
  Array.from({ length: n }, (_, i) => block(i + 1, ONE.arms[i] === "A" ? a + i / 1000 : b + i / 1000));

describe("an experiment", () => {
  it("says what is due and nothing of a difference before its end", () => {
    const half = tryResult(ONE, worked(5, 0.2, 0.9));
    expect(half.due).toEqual({ number: 6, arm: "A" });
    expect(half.test).toBeNull();
    expect(half.sentence).toContain("5 of 12 blocks worked");
  });

  it("says plainly what it showed", () => {
    const shown = tryResult(ONE, worked(12, 0.5, 0.9));
    expect(shown.due).toBeNull();
    expect(shown.sentence).toMatch(
      /^With this horse on this rung, a scratch did better in how often it gets it right: food 51 %, a scratch 91 %, a difference of 40 points/,
    );
    const none = tryResult(ONE, worked(12, 0.7, 0.7));
    expect(none.sentence).toContain("No difference shown");
    const slower = tryResult({ ...ONE, counts: "latency" }, worked(12, 1, 3));
    expect(slower.sentence).toContain("food did better in how soon it answers");
  });

  it("cut short says its counts and nothing of which is better: the end may have been chosen by what was seen", () => {
    for (const done of [4, 10]) {
      const short = tryResult({ ...ONE, endedMs: 1, endedWhy: "lame" }, worked(done, 0.2, 0.9));
      expect(short.sentence).toMatch(
        new RegExp(`^Cut short after ${done} of 12 blocks\\. food \\d+ %.*can be told only where it ends where it was to end`),
      );
      expect(short.sentence).not.toMatch(/better in|No difference/);
      expect(short.test).toBeNull();
    }
    expect(tryResult({ ...ONE, endedMs: 1 }, [block(1, 0.5)]).sentence).toContain("Not enough was worked");
  });

  it("counts a block as what was drawn, takes the first of two of one number, and waits for one left out", () => {
    const swapped = tryResult(ONE, [...worked(11, 0.5, 0.9), block(12, 0.5, "B")]);
    expect(swapped.otherwise).toBe(1);
    expect(swapped.caution).toContain("1 of 12 blocks was not worked as drawn");
    expect(tryResult(ONE, [block(1, 0.1), block(1, 0.9)]).blocks.map(({ value }) => value)).toEqual([0.1]);
    expect(tryResult(ONE, [block(1, 0.1), block(3, 0.9)])).toMatchObject({ done: 1, due: { number: 2, arm: "B" } });
  });

  it("reads its blocks out of sessions, each by what counts", () => {
    const tries = (n: number, arm: Arm) => ({ id: "t", arm, n });
    const past = writePast([
      {
        day: 0,
        facts: {
          endMs: 300_000,
          blocks: [
            { seconds: 100, planned: 6, startMs: 0, endMs: 100_000, tries: tries(1, "A") },
            { seconds: 200, planned: 6, startMs: 100_000, endMs: 300_000, tries: tries(2, "B") },
          ],
          moments: [
            [40_000, "left", ""],
            [50_000, "tension", "head high"],
            [120_000, "danger", "rears"],
            [130_000, "tension", "head high"],
          ],
        },
        trials: [
          { outcome: "met", block: 0, latencySeconds: 1 },
          { outcome: "miss", block: 0, waitedSeconds: 4 },
          { outcome: "met", block: 1, latencySeconds: 2 },
          { outcome: "met", block: 1, latencySeconds: 3 },
          { outcome: "met", block: 1, latencySeconds: 9 },
        ],
      },
    ]);
    const rule = { kind: "run", length: 2 } as const;
    const values = (counts: Parameters<typeof triedBlocks>[2]) => triedBlocks(past, "t", counts, rule).map(({ value }) => value);
    expect(values("share")).toEqual([0.5, 1]);
    expect(values("latency")).toEqual([1, 3]);
    expect(values("leaving")).toEqual([40, 200]);
    expect(values("tension")).toEqual([6, 6]);
    expect(values("asks")).toEqual([2, 2]);
    expect(triedBlocks(past, "another", "share", rule)).toEqual([]);
    expect(earlierBlockValues(past, "share", 1, rule)).toEqual([1]);
  });
});

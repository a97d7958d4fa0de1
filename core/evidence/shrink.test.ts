import { describe, expect, it } from "vitest";
import { drawNormal, seededChance } from "../chance";
import { shrinkByKind } from "./shrink";

describe("means of kinds drawn towards all", () => {
  it("are worked out by hand", () => {
    // a: 1, 3 (mean 2); b: 7, 9 (mean 8). Within: (2 + 2)/2 = 2. Spread 2·9 + 2·9 = 36, less 2, over 4 − 8/4 = 2: between 17.
    const shrunk = shrinkByKind([
      { key: "a", value: 1 },
      { key: "a", value: 3 },
      { key: "b", value: 7 },
      { key: "b", value: 9 },
    ]);
    expect(shrunk?.within).toBeCloseTo(2, 12);
    expect(shrunk?.between).toBeCloseTo(17, 12);
    expect(shrunk?.mean).toBeCloseTo(5, 12);
    const weight = 17 / (17 + 1);
    expect(shrunk?.groups[0]?.weight).toBeCloseTo(weight, 12);
    expect(shrunk?.groups[0]?.shrunk).toBeCloseTo(weight * 2 + (1 - weight) * 5, 12);
  });

  it("are all the mean of all where kinds differ by no more than chance, and nothing under four values", () => {
    const same = shrinkByKind([
      { key: "a", value: 1 },
      { key: "a", value: 5 },
      { key: "b", value: 2 },
      { key: "b", value: 4 },
    ]);
    expect(same?.between).toBe(0);
    for (const { shrunk } of same?.groups ?? []) expect(shrunk).toBeCloseTo(3, 12);
    expect(
      shrinkByKind([
        { key: "a", value: 1 },
        { key: "a", value: 2 },
        { key: "a", value: 2 },
      ]),
    ).toBeNull();
    expect(shrinkByKind(["a", "b", "c", "d"].map((key, value) => ({ key, value })))).toBeNull();
  });

  it("lie nearer to the truth than the kinds' own means", () => {
    const chance = seededChance(5);
    let own = 0;
    let drawn = 0;
    let held = 0;
    let all = 0;
    for (let run = 0; run < 300; run++) {
      const truth = Array.from({ length: 6 }, () => drawNormal(chance, 3, 0.7));
      const values = truth.flatMap((mean, i) =>
        Array.from({ length: 2 + (i % 3) }, () => ({ key: String(i), value: drawNormal(chance, mean, 1.2) })),
      );
      for (const group of shrinkByKind(values)?.groups ?? []) {
        const is = truth[Number(group.key)] ?? 0;
        own += (group.own - is) ** 2;
        drawn += (group.shrunk - is) ** 2;
        all++;
        if (group.interval[0] <= is && is <= group.interval[1]) held++;
      }
    }
    expect(drawn).toBeLessThan(0.75 * own);
    // The spreads are taken as known, so the interval is somewhat narrow; the help line says so.
    expect(held / all).toBeGreaterThan(0.8);
    expect(held / all).toBeLessThanOrEqual(0.97);
  });
});

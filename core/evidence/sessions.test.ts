import { describe, expect, it } from "vitest";
import { seededChance } from "../chance";
import {
  addShares,
  contrastBySessions,
  effectiveLooks,
  leads,
  logRank,
  rightAnswers,
  type SessionCells,
  sessionShare,
  sessionSlope,
  shareOfTrials,
  signFlip,
  student975,
  studentTwoSidedP,
  sumsOfSessions,
  weeklyFactor,
  weeklyTrend,
} from ".";

describe("Student's t", () => {
  it("has the points of the printed tables", () => {
    // Fisher & Yates, Statistical Tables (1938), table III, from memory; more digits by common practice.
    const table: [number, number][] = [
      [1, 12.706205],
      [2, 4.302653],
      [3, 3.182446],
      [5, 2.570582],
      [10, 2.228139],
      [30, 2.042272],
      [120, 1.97993],
    ];
    for (const [degrees, t] of table) expect(student975(degrees)).toBeCloseTo(t, 5);
    expect(studentTwoSidedP(0, 4)).toBeCloseTo(1, 12);
    expect(() => student975(0)).toThrow(RangeError);
    expect(() => student975(1.5)).toThrow(RangeError);
    expect(() => studentTwoSidedP(1, 0)).toThrow(RangeError);
  });
});

describe("a share over sessions", () => {
  it("is Wilson's of one session", () => {
    const one = sessionShare(sumsOfSessions([{ met: 8, of: 10 }]));
    expect(one?.interval[0]).toBeCloseTo(0.490162, 6);
    expect(one?.interval[1]).toBeCloseTo(0.943318, 6);
    expect(sessionShare(sumsOfSessions([{ met: 0, of: 0 }]))).toBeNull();
  });

  it("is as wide as its sessions differ, as yards' days do and as neighbours are alike", () => {
    // The formula written out again from the list of sessions, for some lists.
    const naively = (list: readonly (readonly [met: number, of: number])[]) => {
      const k = list.length;
      const [met, of] = [list.reduce((x, [m]) => x + m, 0), list.reduce((x, [, n]) => x + n, 0)];
      const each = of / k;
      const off = list.map(([m, n]) => (m - (met / of) * n) / each);
      const pq = ((met + 1) / (of + 2)) * (1 - (met + 1) / (of + 2));
      const between = off.reduce((x, one) => x + one * one, 0) / k;
      const next = off.slice(1).reduce((x, one, i) => x + one * (off[i] ?? 0), 0) / (k - 1);
      const seen = Math.max(0, (between * k) / (k - 1) - pq / each);
      const yard = 0.5625 * pq * pq;
      const alike = seen === 0 ? 0.62 : Math.min(1, Math.max(-0.2, (next + between / k) / Math.max(seen, yard / 4)));
      const rho = Math.min(0.92, Math.max(0, (k * alike + 12 * 0.62) / (k + 12) + 0.23));
      // The variance of a mean of k of them: every pair by how far apart they lie.
      let sum = 0;
      for (let i = 0; i < k; i++) for (let j = 0; j < k; j++) sum += rho ** Math.abs(i - j);
      const f = sum / k;
      const days = (k * (seen / Math.max(0.3, 1 - (f - 1) / (k - 1))) + 20 * yard) / (k + 20);
      return { variance: (days * f + pq / each) / k, pq, of, degrees: Math.max(2, Math.round(k / f) + 11) };
    };
    for (const list of [
      [2, 5, 9].map((met) => [met, 10] as const),
      [8, 7, 9, 3, 4, 2, 6, 8].map((met) => [met, 10] as const),
      [[3, 12] as const, [9, 10] as const, [11, 12] as const, [15, 16] as const, [2, 8] as const],
      [10, 10, 10, 10].map((met) => [met, 10] as const),
    ]) {
      const { variance, pq, of, degrees } = naively(list);
      const share = sessionShare(sumsOfSessions(list.map(([met, n]) => ({ met, of: n }))));
      expect(share?.designEffect).toBeCloseTo(Math.max(1, (variance * of) / pq), 9);
      expect(share?.effective).toBeCloseTo((of / (share?.designEffect ?? 0)) * (1.959964 / student975(degrees)) ** 2, 4);
    }
    // The same days in another order: a run of bad ones and a run of good ones say less than good and bad by turns.
    const width = (mets: readonly number[]) => {
      const [low = 0, high = 0] = sessionShare(sumsOfSessions(mets.map((met) => ({ met, of: 10 }))))?.interval ?? [];
      return high - low;
    };
    expect(width([2, 2, 2, 3, 3, 8, 9, 9, 8, 9])).toBeGreaterThan(1.2 * width([2, 9, 2, 8, 3, 9, 2, 8, 3, 9]));
    // Sessions that agree better than chance are no reason for a narrow interval.
    expect(sessionShare(sumsOfSessions([5, 5, 5].map((met) => ({ met, of: 10 }))))?.designEffect).toBeGreaterThan(1.5);
    expect(sessionShare(sumsOfSessions([10, 10].map((met) => ({ met, of: 10 }))))).toMatchObject({ share: 1 });
  });

  it("adds up however it is divided, and takes trials by their session", () => {
    const a = sumsOfSessions([
      { met: 2, of: 5 },
      { met: 4, of: 4 },
    ]);
    const b = sumsOfSessions([{ met: 1, of: 3 }]);
    const trials = [
      ["x", 2, 5],
      ["y", 4, 4],
      ["z", 1, 3],
    ].flatMap(([session, met, of]) =>
      Array.from({ length: of as number }, (_, i) => ({ session: String(session), outcome: i < (met as number) ? "met" : "miss" })),
    );
    // The last of one list and the first of the next are no neighbours.
    expect(addShares([a, b])).toEqual({ ...shareOfTrials(trials), pairs: 1, metNext: 8, ofNext: 20, productsNext: 28 });
    expect(shareOfTrials(trials)).toMatchObject({ pairs: 2, metNext: 12, ofNext: 32, productsNext: 44 });
  });
});

describe("the test of turned signs", () => {
  it("gives what Fisher found for Darwin's maize", () => {
    // Fisher 1935, The Design of Experiments, §21: 15 pairs, 863 of 32 768 arrangements on one side, from memory.
    const inches = [49, -67, 8, 16, 6, 23, 28, 41, 14, 29, 56, 24, 75, 60, -48];
    const test = signFlip(inches.map((difference) => ({ difference, weight: 1 })));
    expect(test?.p).toBeCloseTo((2 * 863) / 32_768, 12);
    expect(test?.mean).toBeCloseTo(314 / 15, 12);
  });

  it("goes through all patterns: two alike in two of four", () => {
    expect(signFlip([1, 1].map((difference) => ({ difference, weight: 1 })))?.p).toBe(0.5);
    expect(signFlip([])).toBeNull();
    expect(signFlip([{ difference: 1, weight: 0 }])).toBeNull();
    // Eight alike: 2 of 256, the first number that can be under 0.01.
    expect(signFlip(Array.from({ length: 8 }, () => ({ difference: 0.1, weight: 3 })))?.p).toBe(2 / 256);
    expect(signFlip(Array.from({ length: 7 }, () => ({ difference: 0.1, weight: 3 })))?.p).toBe(2 / 128);
  });

  it("draws where there are too many patterns, and comes near what Student's t says of plain differences", () => {
    const chance = seededChance(3);
    const differences = Array.from({ length: 30 }, () => ({ difference: chance() - 0.35, weight: 1 }));
    const mean = differences.reduce((sum, one) => sum + one.difference, 0) / 30;
    const deviation = Math.sqrt(differences.reduce((sum, one) => sum + (one.difference - mean) ** 2, 0) / 29);
    const p = signFlip(differences)?.p ?? 1;
    expect(Math.abs(p - studentTwoSidedP(mean / (deviation / Math.sqrt(30)), 29))).toBeLessThan(0.004);
    expect(signFlip(differences)?.p).toBe(p);
  });
});

describe("two conditions by sessions", () => {
  const both = (l: number, r: number, began?: "first" | "second" | "turns"): SessionCells => [
    { stratum: "a", first: { met: l, of: 10 }, second: { met: r, of: 10 }, ...(began === undefined ? {} : { began }) },
  ];
  const byTurns = (n: number, l: number, r: number) => Array.from({ length: n }, (_, i) => both(l, r, i % 2 === 0 ? "first" : "second"));
  const day = (side: "first" | "second", met: number, stratum = "a"): SessionCells => [
    {
      stratum,
      first: side === "first" ? { met, of: 10 } : { met: 0, of: 0 },
      second: side === "second" ? { met, of: 10 } : { met: 0, of: 0 },
    },
  ];

  it("calls nothing before nine sessions, and then what is there", () => {
    expect(contrastBySessions(byTurns(8, 3, 9))).toMatchObject({ behind: null, n: 8, cameFirst: { first: 4, second: 4 } });
    expect(contrastBySessions(byTurns(9, 3, 9))).toMatchObject({ behind: "first", n: 9 });
    expect(contrastBySessions(byTurns(10, 9, 3))).toMatchObject({ behind: "second", sessionsMore: null });
    // Turns within the session: each is one coin, and eight are enough.
    expect(contrastBySessions(Array.from({ length: 7 }, () => both(3, 9, "turns")))).toMatchObject({ behind: null });
    expect(contrastBySessions(Array.from({ length: 8 }, () => both(3, 9, "turns")))).toMatchObject({ behind: "first", p: 2 / 2 ** 8 });
    // Always the same first, or nobody knows which: nothing is left, and it is said.
    for (const began of ["first", undefined] as const)
      expect(contrastBySessions(Array.from({ length: 16 }, () => both(3, 9, began)))).toMatchObject({
        behind: null,
        p: 1,
        orderBehind: true,
      });
    expect(contrastBySessions([])).toMatchObject({ n: 0, p: null, difference: null });
    expect(contrastBySessions([both(5, 6)]).sessionsMore).toBeGreaterThanOrEqual(7);
  });

  it("compares within rungs only: a side that works the harder rung is not behind for it", () => {
    const sessions = Array.from(
      { length: 12 },
      (): SessionCells => [
        { stratum: "easy", first: { met: 9, of: 10 }, second: { met: 2, of: 2 } },
        { stratum: "hard", first: { met: 1, of: 2 }, second: { met: 4, of: 10 } },
      ],
    );
    // Pooled 10 of 12 against 6 of 12; within rungs the right is a little ahead and a little behind.
    expect(contrastBySessions(sessions).difference).toBeCloseTo((0.1 - 0.1) / 2, 12);
    expect(contrastBySessions(sessions).behind).toBeNull();
  });

  it("pairs days of one side, turning about so that getting better favours none", () => {
    // One point better every day, sides by turns: nothing is there.
    const sessions = Array.from({ length: 24 }, (_, i) => day(i % 2 === 0 ? "first" : "second", i % 10));
    const steady = contrastBySessions(Array.from({ length: 24 }, (_, i) => day(i % 2 === 0 ? "first" : "second", Math.floor(i / 3))));
    expect(contrastBySessions(sessions).n).toBe(8);
    expect(Math.abs(steady.difference ?? 1)).toBeLessThan(0.08);
    // On other rungs there is nothing to compare.
    expect(contrastBySessions(Array.from({ length: 8 }, (_, i) => day(i % 2 === 0 ? "first" : "second", 5, `rung ${i}`))).n).toBe(0);
  });
});

describe("half answered after", () => {
  it("counts what a wrong answer rules out", () => {
    // By hand: of 4, right at 1 and 3, wrong at 2, refused at 4: F = 1/4, then 1/4 + (2/4)·(1/2) = 1/2.
    const { steps, halfSeconds } = rightAnswers({ right: [1, 3], wrong: [2], refused: [4] });
    expect(steps).toEqual([
      [1, 0.25],
      [3, 0.5],
    ]);
    expect(halfSeconds).toBe(3);
    expect(rightAnswers({ right: [1], wrong: [2, 3], refused: [] }).halfSeconds).toBeNull();
    expect(rightAnswers({ right: [], wrong: [], refused: [] })).toEqual({ steps: [], halfSeconds: null, n: 0 });
    // One refused before any answer leaves the waiting.
    expect(rightAnswers({ right: [2], wrong: [], refused: [1] }).steps).toEqual([[2, 1]]);
  });

  it("finds the truth of two hazards, where cutting off wrong answers does not", () => {
    // Right at 0.3 a second, wrong at 0.2, asked for 8 s: F(t) = 0.6(1 − e^(−t/2)), half at 2·ln 6 = 3.58 s.
    const chance = seededChance(12);
    const draw = (wrongHazard: number) => {
      const right: number[] = [];
      const wrong: number[] = [];
      const refused: number[] = [];
      for (let i = 0; i < 40_000; i++) {
        const seconds = -Math.log(1 - chance()) / (0.3 + wrongHazard);
        const list = seconds > 8 ? refused : chance() < 0.3 / (0.3 + wrongHazard) ? right : wrong;
        list.push(Math.min(8, seconds));
      }
      return rightAnswers({ right: right.sort((a, b) => a - b), wrong: wrong.sort((a, b) => a - b), refused });
    };
    expect(draw(0.2).halfSeconds).toBeCloseTo(2 * Math.log(6), 0);
    // Half of them wrong: F(8) = 0.5(1 − e^(−4.8)) never reaches half.
    expect(draw(0.3).halfSeconds).toBeNull();
  });
});

describe("a trend with its interval", () => {
  // Anscombe 1973, Graphs in Statistical Analysis, set I: slope 0.5001, standard error 0.1179, 9 degrees of freedom.
  const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
  const y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68];
  const points = x.map((days, i) => ({ days, rate: 10 ** (y[i] as number) }));

  it("has the slope and the error of the published regression", () => {
    const trend = weeklyTrend(points);
    expect(Math.log10(trend?.factor ?? 0) / 7).toBeCloseTo(0.5001, 4);
    expect(sessionSlope(points.map(({ days, rate }) => ({ days, value: Math.log10(rate) })))?.plainError).toBeCloseTo(0.1179, 4);
    // By an implementation of its own in Python, with the matrices written out: ρ 0.374220, tr(MR) 7.286381, 8 degrees.
    const reach = (Math.log10(trend?.interval[1] ?? 0) - Math.log10(trend?.factor ?? 0)) / 7;
    expect(reach).toBeCloseTo(0.392985642, 8);
    expect(trend?.factor).toBe(weeklyFactor(points));
  });

  it("reaches further where neighbouring sessions are alike", () => {
    // In moods of five; by the same in Python: ρ 0.9, tr(MR) 1.308462, 4 degrees.
    const moods = [3, 4, 5, 5, 4, 3, 2, 2, 3, 4].map((value, i) => ({ days: 4 * i, value }));
    const line = sessionSlope(moods);
    expect(line?.perDay).toBeCloseTo(-0.034848485, 9);
    expect(line?.plainError).toBeCloseTo(0.029026127, 9);
    expect(line?.reach).toBeCloseTo(0.237066947, 8);
    // 0.3 of each session's variance is chance within it: ρ 0.9, of the rest 0.959059 is that of days, 5 degrees.
    expect(sessionSlope(moods.map((one) => ({ ...one, drawnVariance: 0.3 })))?.reach).toBeCloseTo(0.19152483, 8);
  });

  it("is not said under five sessions, nor of one day", () => {
    expect(weeklyTrend(points.slice(0, 4))).toBeNull();
    expect(weeklyTrend(points.map(({ rate }) => ({ days: 3, rate })))).toBeNull();
    expect(weeklyTrend([])).toBeNull();
  });
});

describe("looks close together", () => {
  it("are worth fewer than they are where each is like the one before", () => {
    // Fifty of one, then fifty of the other: 98 of 99 neighbours alike, by chance half.
    const runs = [...new Array(50).fill("a"), ...new Array(50).fill("b")];
    const { agreement, effective } = effectiveLooks(runs);
    expect(agreement).toBeCloseTo((98 / 99 - 0.5) / 0.5, 12);
    // Put right for its length the agreement is full: one look.
    expect(effective).toBe(1);
    // Runs of four, 52 and 48: 75 of 99 neighbours agree, 0.5008 by chance, so ρ = 0.514374; with (1 + 3ρ)/100 it is 0.539806.
    const fours = effectiveLooks(Array.from({ length: 100 }, (_, i) => (Math.floor(i / 4) % 2 === 0 ? "a" : "b")));
    expect(fours.agreement).toBeCloseTo((75 / 99 - 0.5008) / 0.4992, 12);
    expect(fours.effective).toBeCloseTo((100 * 0.460194) / 1.539806, 3);
    expect(effectiveLooks(Array.from({ length: 100 }, (_, i) => (i % 2 === 0 ? "a" : "b"))).effective).toBe(100);
    expect(effectiveLooks(new Array(30).fill("a"))).toEqual({ agreement: 1, effective: 1 });
    expect(effectiveLooks([])).toEqual({ agreement: 0, effective: 0 });
  });

  it("lead by the difference within one sample", () => {
    // (0.6 − 0.2)/√((0.8 − 0.16)/30) = 2.739; of 20 looks 2.236.
    expect(leads(0.6, 0.2, 30)).toBe(true);
    expect(leads(0.6, 0.2, 20)).toBe(false);
    expect(leads(0.3, 0.3, 500)).toBe(false);
  });
});

describe("log-rank with a group that was gone before the first answer", () => {
  it("leaves it out instead of finding nothing", () => {
    const waits = (list: [number, boolean][]) => list.map(([seconds, answered]) => ({ seconds, answered }));
    const a = waits([
      [2, true],
      [3, true],
      [5, false],
    ]);
    const b = waits([
      [4, true],
      [6, true],
      [7, true],
    ]);
    const gone = waits([
      [0.5, false],
      [1, false],
    ]);
    expect(logRank([a, b, gone])).toEqual(logRank([a, b]));
    expect(logRank([a, b])).not.toBeNull();
    expect(logRank([a, gone])).toBeNull();
  });
});

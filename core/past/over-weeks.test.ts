import { describe, expect, it } from "vitest";
import { writePast } from "@/tests/support/past-writer";
import { halfTime, onlyWorked, overWeeks, staysOf, weeklyChange } from ".";

const NAMES = new Map([
  ["ana", "Ana"],
  ["bea", "Bea"],
  ["field", "the long field"],
]);
const over = (past: Parameters<typeof overWeeks>[0]) => overWeeks(past, {}, NAMES);

describe("a behaviour over weeks", () => {
  it("has a point for each session with its own numbers, worked out by hand", () => {
    const past = writePast([
      { day: 0, trials: "mmmxxmmmmm", all: { phase: 2 } },
      { day: 7, trials: "mmmmmmmmmm", minutes: 5 },
    ]);
    const { points, share, all } = over(past);
    expect(points.map(({ n, met, days }) => [n, met, days])).toEqual([
      [10, 8, 0],
      [10, 10, 7],
    ]);
    // Per minute of its block: 8 in 10 minutes, 10 in 5.
    expect(points.map(({ responsesPerMinute }) => responsesPerMinute)).toEqual([0.8, 2]);
    expect(points.map(({ lightness }) => lightness.share)).toEqual([0, 1]);
    expect(all.responsesPerMinute).toBeCloseTo(18 / 15, 12);
    expect(share.sentence).toBe("18 of 20 in 2 sessions: too few sessions to tell.");
  });

  it("gives the factor a week of the measures document", () => {
    // Met in ten minutes: 2, 4, 8, 16 on days 0, 7, 14, 21 and once more, doubling each week.
    const past = writePast([2, 4, 8, 16, 32].map((met, i) => ({ day: 7 * i, trials: "m".repeat(met) })));
    const { responseTrend, reinforcedTrend } = over(past);
    expect(responseTrend?.factor).toBeCloseTo(2, 10);
    // On the line, so that chance within sessions is all that is left, s² = (1 − p)/pn·(log e)²: of 62 all met p̃ = 63/64, mean 1/n 0.19375,
    // s² = 5.80054e-4; Σ(days − 14)² = 490, and 3 + 8 degrees, t 2.200985.
    expect(responseTrend?.interval[0]).toBeCloseTo(2 * 10 ** (-7 * 2.200985 * Math.sqrt(5.80054e-4 / 490)), 5);
    expect(reinforcedTrend?.factor).toBeCloseTo(2, 10);
    // A session without a right answer counts as one in its time, and under five nothing is said.
    const none = over(writePast([0, 4, 8, 16, 32].map((met, i) => ({ day: 7 * i, trials: `${"m".repeat(met)}x` }))));
    expect(none.responseTrend?.factor).toBeCloseTo(
      10 ** ((7 * (2 * (Math.log10(32) - Math.log10(1)) + (Math.log10(16) - Math.log10(4)))) / 70),
      10,
    );
    expect(over(writePast([1, 2, 3, 4].map((met, i) => ({ day: i, trials: "m".repeat(met) })))).responseTrend).toBeNull();
  });

  it("draws right answers against working time, breaks taken out, with what was reinforced", () => {
    const past = writePast([
      {
        day: 0,
        minutes: 1,
        facts: { breaks: [[11_000, 21_000]] },
        trials: [{ outcome: "met", reinforced: true }, { outcome: "miss" }, { outcome: "met", answerMs: 25_000, reinforced: false }],
      },
      { day: 1, minutes: 2, trials: "m" },
      { day: 2, minutes: 9, trials: "mm", all: { logged: "late" } },
    ]);
    const { cumulative, seams } = over(past);
    expect(cumulative.map(([minutes, met, paid]) => [Math.round(minutes * 60), met, paid])).toEqual([
      [2, 1, true],
      [15, 2, false],
      [62, 3, true],
    ]);
    expect(seams).toEqual([1]);
  });

  it("holds the first five of today against the last five before, on the same rung alone", () => {
    const past = writePast([
      { day: 0, trials: "xxxxxmmmmm" },
      { day: 1, trials: "xxmmmmmmmm" },
      { day: 2, trials: "mmmmm", all: { rung: 2 } },
      { day: 3, trials: "mmmm", all: { rung: 2 } },
    ]);
    expect(over(past).warmUps).toEqual([{ rung: 1, before: 5, today: 3, ofBefore: 5, ofToday: 5 }]);
  });

  it("says what was special about a session, and nothing of what was not", () => {
    const past = writePast([
      { day: 0, trials: "m", facts: { wind: "gusts", airC: 31 }, place: "pen", kit: ["halter"] },
      { day: 20, trials: "m", handler: "bea", place: "field", kit: ["halter", "roller"], all: { novel: true, version: 2 } },
      { day: 21, trials: "m", handler: "bea", place: "field", kit: ["halter", "roller"], all: { version: 2 } },
    ]);
    expect(over(past).points.map(({ conditions }) => conditions)).toEqual([
      ["gusts", "31 °C"],
      ["after 20 days", "at the long field", "with Bea", "with roller", "plan 2", "new rung"],
      [],
    ]);
  });

  it("takes stays as times to leaving, cut off where they were long enough (Freireich's 6-MP arm)", () => {
    const times = [6, 6, 6, 7, 10, 13, 16, 22, 23].map((value) => ({
      outcome: "miss" as const,
      value,
      unit: "s",
      endedBy: "left" as const,
    }));
    const cut = [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35].map((value) => ({
      outcome: "met" as const,
      value,
      unit: "s",
      endedBy: "criterion" as const,
    }));
    const stays = staysOf(writePast([{ day: 0, trials: [...times, ...cut] }]).trials);
    expect(stays?.medianSeconds).toBe(23);
    expect(stays?.steps.find(([t]) => t === 10)?.[1]).toBeCloseTo(0.753, 3);
  });

  it("leaves out sessions without a trial, trials pointing at what is left", () => {
    const past = writePast([
      { day: 0, trials: "" },
      { day: 1, trials: "mx" },
    ]);
    const left = onlyWorked(past);
    expect(left.sessions.map(({ id }) => id)).toEqual(["session-1"]);
    expect(left.trials.map(({ session }) => session)).toEqual([0, 0]);
  });
});

describe("when half were answered", () => {
  it("has the interval of the times at which one half cannot be ruled out", () => {
    // 100 answers at 1…100 s: F(t) = t/100, ½ ± 1.96·√(¼/100) = 0.402 and 0.598.
    const trials = Array.from({ length: 100 }, (_, i) => ({ outcome: "met" as const, latencySeconds: i + 1 }));
    expect(halfTime(writePast([{ day: 0, trials }]).trials)).toEqual({ seconds: 50, interval: [41, 60], n: 100 });
    expect(halfTime([])).toBeNull();
    const never = halfTime(
      writePast([
        {
          day: 0,
          trials: [
            { outcome: "refused", waitedSeconds: 9 },
            { outcome: "met", latencySeconds: 1 },
            { outcome: "miss", waitedSeconds: 2 },
          ],
        },
      ]).trials,
    );
    expect(never?.seconds).toBeNull();
  });

  it("covers the truth about 95 times in 100", () => {
    let seed = 1;
    const chance = () => {
      seed = (seed * 48271) % 2147483647;
      return seed / 2147483647;
    };
    let held = 0;
    for (let run = 0; run < 1000; run++) {
      const trials = Array.from({ length: 40 }, () => ({ outcome: "met" as const, latencySeconds: -Math.log(1 - chance()) }));
      const [low, high] = halfTime(writePast([{ day: 0, trials }]).trials)?.interval ?? [null, null];
      if ((low ?? 0) <= Math.LN2 && Math.LN2 <= (high ?? Number.POSITIVE_INFINITY)) held++;
    }
    expect(held).toBeGreaterThan(920);
    expect(held).toBeLessThan(985);
  });
});

describe("the change a week", () => {
  it("is the slope of least squares with a t interval for sessions of which neighbours are alike, by hand", () => {
    // y = 1, 2, 2, 4, 5 on days 0…4: slope 1, residuals 0.2, 0.2, −0.8, 0.2, 0.2; s² = 0.8/3, se = √(s²/10).
    // Likeness: −0.24/0.8·5/4 + 2/5 = 0.025, drawn to (5·0.025 + 8·0.6)/13 and 0.28 more, 0.658846. The matrices by an
    // implementation of its own in Python: tr(MR) 1.060060, 3 degrees, t 3.182446.
    const change = weeklyChange([1, 2, 2, 4, 5].map((value, days) => ({ days, value })));
    expect(change?.perWeek).toBeCloseTo(7, 10);
    const reach = 7 * 0.900415713;
    expect(change?.interval[0]).toBeCloseTo(7 - reach, 4);
    expect(change?.interval[1]).toBeCloseTo(7 + reach, 4);
    expect(weeklyChange([1, 2, 3, 4].map((value, days) => ({ days, value })))).toBeNull();
    expect(weeklyChange([1, 2, 3, 4, 5].map((value) => ({ days: 1, value })))).toBeNull();
  });
});

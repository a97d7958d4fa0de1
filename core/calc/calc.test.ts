import { describe, expect, it } from "vitest";
import { CALCULATIONS, CalcInputError } from ".";

const GOOD: Readonly<Record<string, Record<string, unknown>>> = {
  latency: { times: [1, 2, 3], answered: [true, false, true] },
  share: { met: 8, of: 10 },
  agreement: { a: [1], b: [2], tolerance_s: 1, duration_s: 10, interval_s: 5 },
  "rule-check": { rule: { kind: "share", of: 10, met: 9, window: "moving" }, p: [0.8], within: 30 },
  percentile: { values: [1, 2, 3, 4, 5], m: 5, w: 0.5, harder: "less" },
  layout: { strands: [{ id: "a", kind: "number", start: 1, goal: 3 }], order: "in-turn" },
  circle: { radius_m: 8, segments: [{ gait: "walk", speed_mps: 1.6, minutes: 5, side: "L" }] },
  ramp: {
    start: { walk: 5, trot: 2 },
    goal: { walk: 6, trot: 4 },
    sessions_a_week: 3,
    ways: "both",
    caps: { session_minutes: 40, week_minutes: null },
  },
  dprime: { hits: 20, misses: 5, false_alarms: 5, correct_rejections: 20 },
  "sessions-share": {
    sessions: [
      { met: 2, of: 10 },
      { met: 5, of: 10 },
      { met: 9, of: 10 },
    ],
  },
  trend: { points: [0, 1, 2, 3, 4].map((days, i) => ({ days, value: [1, 2, 2, 4, 5][i], drawn_variance: 0 })) },
  sides: { sessions: [{ left: { met: 3, of: 8 }, right: { met: 6, of: 8 }, began: "left" }] },
};
const WRONG: readonly unknown[] = [null, "x", "8", 1.5, -1, true, [], {}, [null], [[]], [{}], Number.NaN, Number.POSITIVE_INFINITY, 1e300];

/** What the schema library says of its own accord, in words no reader of the page knows. */
const ITS_OWN = /must be a|cannot be null|`|final value|typeError|undefined|was cast|is invalid|\bNaN\b|field must/;

describe("calculations by command", () => {
  it("have an input each that is taken", () => {
    for (const [name, calculate] of CALCULATIONS) expect(calculate(GOOD[name]), name).toBeTypeOf("object");
  });

  it.each([...CALCULATIONS.keys()])("%s says of any wrong input which field and why, in its own words", (name) => {
    const calculate = CALCULATIONS.get(name);
    const good = GOOD[name] ?? {};
    const inputs: unknown[] = [...WRONG, ...WRONG.map((wrong) => ({ ...good, another: wrong }))];
    const spoil = (value: unknown, put: (inner: unknown) => unknown): void => {
      for (const wrong of WRONG) inputs.push(put(wrong));
      if (Array.isArray(value)) for (const [i, inner] of value.entries()) spoil(inner, (one) => put(value.with(i, one)));
      else if (typeof value === "object" && value !== null)
        for (const [key, inner] of Object.entries(value)) {
          spoil(inner, (one) => put({ ...value, [key]: one }));
          const { [key]: _, ...without } = value as Record<string, unknown>;
          inputs.push(put(without));
        }
    };
    spoil(good, (one) => one);
    const said: string[] = [];
    for (const input of inputs)
      try {
        calculate?.(input);
      } catch (error) {
        expect(error, JSON.stringify(input)).toBeInstanceOf(CalcInputError);
        said.push((error as Error).message);
      }
    expect(said.length).toBeGreaterThan(0);
    expect(said.filter((words) => ITS_OWN.test(words))).toEqual([]);
  });

  it("gives what the screens say over sessions", () => {
    // The figures of the tests beside each: by implementations of their own.
    expect(CALCULATIONS.get("sessions-share")?.(GOOD["sessions-share"])).toMatchObject({
      interval95: [expect.closeTo(0.139277, 5), expect.closeTo(0.889768, 5)],
      sentence: "16 of 30 in 3 sessions, could be anywhere from 14 to 89 %.",
    });
    expect(CALCULATIONS.get("trend")?.(GOOD.trend)).toEqual({
      a_week: expect.closeTo(7, 10),
      interval95: [expect.closeTo(7 - 7 * 0.900415713, 6), expect.closeTo(7 + 7 * 0.900415713, 6)],
      sessions: 5,
    });
    // Left behind in twelve, begun by turns: two of C(12, 6) = 924 orders are as far apart.
    const sessions = Array.from({ length: 12 }, (_, i) => ({
      left: { met: 3, of: 8 },
      right: { met: 8, of: 8 },
      began: i % 2 === 0 ? "left" : "right",
    }));
    expect(CALCULATIONS.get("sides")?.({ sessions })).toMatchObject({
      weaker: "left",
      p: expect.closeTo(2 / 924, 12),
      sessions_compared: 12,
    });
    expect(CALCULATIONS.get("sides")?.({ sessions: sessions.map((one) => ({ ...one, began: "left" })) })).toMatchObject({
      weaker: null,
      order_behind: true,
    });
    expect(CALCULATIONS.get("trend")?.({ points: [] })).toEqual({ a_week: null, interval95: null, sessions: 0 });
  });

  it("gives d′ of the textbook's even case", () => {
    expect(CALCULATIONS.get("dprime")?.({ hits: 24, misses: 5, false_alarms: 5, correct_rejections: 24 })).toMatchObject({
      dprime: expect.closeTo(1.80547, 5),
      criterion: expect.closeTo(0, 9),
    });
    expect(CALCULATIONS.get("dprime")?.({ hits: 0, misses: 0, false_alarms: 5, correct_rejections: 24 })).toEqual({
      dprime: null,
      dprime95: null,
      criterion: null,
    });
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "../record";
import { DEFAULT_SETTINGS } from "../settings";
import { actCountsOf, actTrend, cameBackWords, ownTimesOf, retreatsOf, wrongChoiceCaution, wrongChoicesOf } from "./index";

const MINUTE = 60;

/** A session of 20 minutes with wrong choices at the given minutes, each met by pressure for five seconds. */
function session(minutes: readonly number[], lasts = 20): SessionWriter {
  const w = new SessionWriter();
  w.block(0);
  for (const at of minutes) w.add(at * MINUTE, "wrong", { did: "left", met: "moved on", seconds: 5 });
  w.add(lasts * MINUTE, "session.end");
  return w;
}
const recordOf = (w: SessionWriter) => reduceSession(w.events);

describe("wrong choices", () => {
  it("are counted and timed, by what it did and what it met", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "wrong", { did: "left", met: "moved on", goes_on: true });
    w.add(18, "wrong.end");
    w.add(30, "wrong", { did: "left", met: "ignored", seconds: 3 });
    w.add(40, "wrong", { did: "crowded", met: "backed away farther", began: "edge" });
    w.add(300, "session.end");
    expect(wrongChoicesOf(recordOf(w))).toMatchObject({
      count: 3,
      perTenMinutes: 6,
      seconds: 11,
      timed: 2,
      pressed: 2,
      pressureSeconds: 8,
      byChoice: [
        { name: "left", count: 2, seconds: 11, timed: 2 },
        { name: "crowded", count: 1, seconds: 0, timed: 0 },
      ],
    });
  });

  it("end at the next ask, a break and the finish, and count no rest", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "wrong", { goes_on: true });
    w.add(14, "ask", { phase: 1 });
    w.add(15, "response", { answer: "met" });
    w.add(15, "release");
    w.add(20, "wrong", { goes_on: true });
    w.add(26, "break.start");
    w.add(60, "break.end");
    w.add(70, "wrong", { goes_on: true });
    w.add(75, "session.end");
    expect(recordOf(w).timeLine.wrongs.map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [10_000, 14_000],
      [20_000, 26_000],
      [70_000, 75_000],
    ]);
    expect(wrongChoicesOf(recordOf(w))?.seconds).toBe(15);
  });

  it("are put right and undone like any tap", () => {
    const w = new SessionWriter();
    w.block(0);
    const one = w.add(10, "wrong", { did: "left" });
    w.add(12, "correct", { event: one, payload: { did: "pulled", met: "ignored" }, reason: "named" });
    const two = w.add(20, "wrong", { did: "left" });
    w.add(21, "undo", { event: two });
    w.add(60, "session.end");
    expect(recordOf(w).timeLine.wrongs).toMatchObject([{ did: "pulled", met: "ignored", timed: false }]);
  });

  it("are counted by halves, and nothing is made of it", () => {
    const less = wrongChoicesOf(recordOf(session([1, 2, 3, 4, 5, 6, 7, 8])))?.halves;
    expect(less && cameBackWords(less)).toBe("8 in the first half of the work, 0 in the second.");
    const same = wrongChoicesOf(recordOf(session([1, 5, 12])))?.halves;
    expect(same && cameBackWords(same)).toBe("2 in the first half of the work, 1 in the second.");
  });

  it("are not there before work, after it, or where there were none", () => {
    const w = new SessionWriter();
    w.add(-5, "wrong", { did: "left" });
    w.block(0);
    w.add(60, "session.end");
    w.add(70, "wrong", { did: "left" });
    expect(wrongChoicesOf(recordOf(w))).toBeNull();
  });
});

describe("pressure on wrong choices", () => {
  const caution = (w: SessionWriter) => wrongChoiceCaution(recordOf(w), null);
  it("is not called no rarer: bouts, and a horse that tires, look the same", () => {
    expect(caution(session([1, 5, 9, 12, 15, 18]))).toBeNull();
    expect(caution(session([1, 2, 3, 14, 15, 16]))).toBeNull();
  });

  it("is to be eased at the most a session may have, whatever their course", () => {
    const falling = Array.from({ length: DEFAULT_SETTINGS.wrongMost }, (_, i) => 0.2 + i * 0.2);
    expect(caution(session(falling))?.kind).toBe("most");
    expect(caution(session(falling.slice(1)))).toBeNull();
  });

  it("does not count those that met none", () => {
    const w = new SessionWriter();
    w.block(0);
    for (let i = 1; i <= 30; i++) w.add(i * 30, "wrong", { did: "left", met: "ignored" });
    w.add(1200, "session.end");
    expect(caution(w)).toBeNull();
  });

  it("is to be eased where tension comes with it", () => {
    const w = new SessionWriter();
    w.block(0);
    for (const at of [60, 90, 120, 150]) {
      w.add(at, "wrong", { did: "left", met: "moved on", seconds: 4 });
      w.add(at + 10, "signal", { name: "braces", class: "tension" });
      w.add(at + 12, "signal", { name: "head high", class: "tension" });
    }
    w.add(1200, "session.end");
    expect(caution(w)?.kind).toBe("tension");
  });
});

describe("the horse's own time", () => {
  it("is ended by the horse, or cut off by an ask, a break or the end of work", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "own.start", { what: "looks", at: "flag" });
    w.add(17, "own.end", { what: "looks", ended_by: "horse" });
    w.add(20, "own.start", { what: "settles" });
    w.add(26, "own.end", { what: "settles", ended_by: "horse" });
    w.add(30, "own.start", { what: "settles" });
    w.add(34, "trial", { outcome: "met" });
    w.add(40, "own.start", { what: "looks" });
    w.add(43, "own.end", { what: "looks", ended_by: "handler" });
    w.add(50, "session.end");
    const [looks, settles] = ownTimesOf(recordOf(w));
    const asked = new SessionWriter();
    asked.block(0);
    asked.add(5, "own.start", { what: "looks" });
    asked.add(9, "ask", { phase: 1 });
    asked.add(30, "own.end", { what: "looks", ended_by: "horse" });
    // Asked while it looked: how long it would have looked is not known.
    expect(ownTimesOf(recordOf(asked))[0]?.times).toEqual([{ seconds: 4, answered: false }]);
    expect(looks?.times).toEqual([
      { seconds: 12, answered: true },
      { seconds: 3, answered: false },
    ]);
    expect(settles?.times).toEqual([
      { seconds: 6, answered: true },
      { seconds: 4, answered: false },
    ]);
    // One of one left at 12 s: the cut at 3 s came before it.
    expect(looks?.curve.medianSeconds).toBe(12);
  });
});

describe("the handler's own acts", () => {
  it("are counted a minute of work, without breaks", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "handler", { act: "steps", n: 3 });
    w.add(20, "break.start");
    w.add(25, "handler", { act: "steps" });
    w.add(80, "break.end");
    w.add(90, "handler", { act: "late" });
    w.add(180, "session.end");
    expect(actCountsOf(recordOf(w))).toEqual({ minutes: 2, counts: { steps: 3, late: 1 } });
  });

  it("limit a rung: within the ask in Timed, since the last answer in Tally", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "Backs.", handler_most: [{ act: "steps", most: 2 }] } });
    w.add(1, "handler", { act: "steps", n: 3 });
    w.add(2, "trial", { outcome: "met" });
    w.add(4, "trial", { outcome: "met" });
    w.add(6, "handler", { act: "steps", n: 5 });
    w.add(7, "ask", { phase: 1 });
    w.add(8, "handler", { act: "steps" });
    w.add(9, "response", { answer: "met" });
    w.add(9, "release");
    const { trials } = recordOf(w);
    expect(trials.map(({ outcome, handlerActs }) => [outcome, handlerActs.steps ?? 0])).toEqual([
      ["try", 3],
      ["met", 0],
      ["met", 1],
    ]);
    expect(trials[0]?.shortfall).toBe("You: steps, 3 times; the rung allows 2.");
  });

  it("have no trend under five sessions, and the factor of a clean halving", () => {
    const day = 86_400_000;
    const sessions = [16, 8, 4, 2, 1].map((n, i) => ({ startedMs: i * 7 * day, minutes: 10, counts: { steps: n } }));
    expect(actTrend(sessions.slice(1), "steps")).toBeNull();
    expect(actTrend(sessions, "steps")?.factor).toBeCloseTo(0.5, 9);
  });
});

describe("a grade of the movement", () => {
  it("counts where the rung asks for it, from the pad or with the trial", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "Trots.", min_movement: 3 } });
    w.add(1, "trial", { outcome: "met" });
    w.add(2, "measure", { strand: "movement", value: 2, unit: "grade" });
    w.add(5, "trial", { outcome: "met", movement: 4 });
    w.add(9, "trial", { outcome: "met" });
    const { trials } = recordOf(w);
    expect(trials.map(({ outcome, movement }) => [outcome, movement])).toEqual([
      ["try", 2],
      ["met", 4],
      ["met", null],
    ]);
    expect(trials[0]?.shortfall).toBe("It moved even; the rung asks for free.");
  });
});

describe("a marker the device heard", () => {
  it("belongs to the tally that is tapped after it, or to the one tapped just before", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "trial", { outcome: "met", reinforced: 0 });
    w.add(1.6, "mark", { heard: 0.9 });
    w.add(10, "mark", { heard: 0.8 });
    w.add(12, "trial", { outcome: "met", reinforced: 0 });
    w.add(20, "mark", { heard: 0.7 });
    w.add(40, "trial", { outcome: "met", reinforced: 0 });
    w.add(45, "mark");
    expect(recordOf(w).trials.map(({ markMs, marked, reinforced }) => [markMs, marked, reinforced])).toEqual([
      [1600, true, true],
      [10_000, true, true],
      // Twenty seconds before is no mark of this one; a pad pressed after it is.
      [45_000, true, true],
    ]);
  });

  it("belongs to the ask that is open in Timed", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(3, "response", { answer: "met" });
    w.add(3.2, "mark", { heard: 0.9 });
    w.add(3.4, "release");
    expect(recordOf(w).trials[0]?.markLagSeconds).toBeCloseTo(0.2, 9);
    w.add(10, "ask", { phase: 1 });
    w.add(12, "response", { answer: "met" });
    w.add(12.1, "release");
    // The hand let go and the marker came with it.
    w.add(12.3, "mark", { heard: 0.9 });
    expect(recordOf(w).trials[1]?.markLagSeconds).toBeCloseTo(0.3, 9);
  });
});

describe("retreats", () => {
  it("reinforce the trial before them, with the nearest distance", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "Nears.", working: { strand: "approach", unit: "m", target: 2, harder: "less" } } });
    w.add(1, "trial", { outcome: "met", logged: "tally" });
    w.add(1, "retreat", { distance_m: 1.5, zone: "gate" });
    w.add(9, "trial", { outcome: "met", logged: "tally" });
    w.add(9, "retreat", { distance_m: 3, zone: "gate" });
    const record = recordOf(w);
    expect(retreatsOf(record)).toEqual({ count: 2, nearestMetres: 1.5, byZone: [{ zone: "gate", count: 2 }] });
    expect(record.trials.map(({ value, outcome, reinforcerKinds }) => [value, outcome, reinforcerKinds])).toEqual([
      [1.5, "met", ["away"]],
      // Three metres is not near enough for this rung.
      [3, "try", ["away"]],
    ]);
  });
});

describe("in whatever order taps arrive", () => {
  it("comes to the same", () => {
    const scene = fc.record({
      at: fc.integer({ min: 1, max: 600 }),
      what: fc.constantFrom(
        "wrong",
        "open wrong",
        "wrong.end",
        "looks",
        "settles",
        "own.end",
        "steps",
        "trial",
        "break.start",
        "break.end",
        "retreat",
      ),
    });
    fc.assert(
      fc.property(fc.array(scene, { maxLength: 40 }), fc.infiniteStream(fc.nat()), (scenes, order) => {
        const w = new SessionWriter();
        w.block(0);
        for (const { at, what } of [...scenes].sort((a, b) => a.at - b.at)) {
          if (what === "wrong") w.add(at, "wrong", { did: "left" });
          else if (what === "open wrong") w.add(at, "wrong", { goes_on: true });
          else if (what === "looks" || what === "settles") w.add(at, "own.start", { what });
          else if (what === "own.end") w.add(at, "own.end", { what: "looks", ended_by: "horse" });
          else if (what === "steps") w.add(at, "handler", { act: "steps" });
          else if (what === "trial") w.add(at, "trial", { outcome: "met" });
          else if (what === "retreat") w.add(at, "retreat", { distance_m: 1 });
          else if (what === "wrong.end" || what === "break.start" || what === "break.end") w.add(at, what);
        }
        const keyed = w.events.map((event) => ({ event, key: order.next().value }));
        const shuffled = keyed.sort((a, b) => Number(a.key) - Number(b.key)).map(({ event }) => event);
        const one = reduceSession(w.events);
        const two = reduceSession([...shuffled, ...shuffled.slice(0, 5)]);
        expect(two.timeLine).toEqual(one.timeLine);
        expect(two.trials).toEqual(one.trials);
        // No two wrong choices overlap, and none lasts into a rest.
        one.timeLine.wrongs.forEach((span, i) => {
          expect(span.endMs ?? Number.POSITIVE_INFINITY).toBeLessThanOrEqual(
            one.timeLine.wrongs[i + 1]?.startMs ?? Number.POSITIVE_INFINITY,
          );
        });
      }),
      { numRuns: 60 },
    );
  });
});

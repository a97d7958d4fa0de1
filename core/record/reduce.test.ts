import { describe, expect, it } from "vitest";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { eventOf, type Fact } from "../schemas";
import { reduceSession } from "./reduce-session";
import { summariseSession } from "./summary";
import { blockSeconds, secondsSinceRest, workSeconds } from "./time";

const only = (writer: SessionWriter) => {
  const record = reduceSession(writer.events);
  expect(record.trials).toHaveLength(1);
  return record.trials[0];
};

describe("a timed trial", () => {
  it("runs from the ask to its release, with latency, lags, highest phase and food delay", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "ask", { phase: 1 });
    w.add(13, "phase", { phase: 2, by: "press" });
    w.add(14.5, "response", { answer: "met", phase: 2 });
    w.add(14.9, "release");
    w.add(15.1, "mark");
    w.add(16.6, "feed", { pieces: 2 });
    w.add(20, "session.end");
    expect(only(w)).toMatchObject({
      askMs: 10_000,
      endMs: 14_900,
      outcome: "met",
      phase: 2,
      side: "L",
      latencySeconds: 4.5,
      waitedSeconds: 4.5,
      releaseLagSeconds: 0.4,
      markLagSeconds: 0.6,
      feedDelaySeconds: 1.5,
      released: true,
      marked: true,
      reinforced: true,
      reinforcers: 2,
      wrongBefore: 0,
      faults: [],
      logged: "timed",
    });
  });

  it("ends on the answer it ended on; wrong ones before are counted", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(2, "response", { answer: "wrong", phase: 1 });
    w.add(3, "response", { answer: "wrong", phase: 1 });
    w.add(5, "response", { answer: "try", phase: 1 });
    w.add(5.3, "release");
    expect(only(w)).toMatchObject({
      outcome: "try",
      wrongBefore: 2,
      latencySeconds: 4,
      firstAnswerSeconds: 1,
      releaseLagSeconds: null,
      reinforced: true,
    });
  });

  it("that ends on a wrong answer is a miss, censored at the miss, and letting go of it is a fault", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(3, "response", { answer: "wrong", phase: 1 });
    w.add(6, "release");
    expect(only(w)).toMatchObject({
      outcome: "miss",
      latencySeconds: null,
      waitedSeconds: 2,
      wrongBefore: 0,
      reinforced: false,
      faults: ["release without a try"],
    });
  });

  it("is ended by the next ask where it was never released", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(4, "response", { answer: "wrong", phase: 1 });
    w.add(7, "ask", { phase: 1 });
    w.add(9, "response", { answer: "met", phase: 1 });
    w.add(9.2, "release");
    const { trials } = reduceSession(w.events);
    expect(trials.map((t) => [t.outcome, t.endMs])).toEqual([
      ["miss", 7000],
      ["met", 9200],
    ]);
    expect(trials[0]?.released).toBe(false);
  });

  it("with no answer at all is refused: at the next ask, or when it is let go", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(11, "ask", { phase: 1 });
    w.add(20, "release");
    const { trials } = reduceSession(w.events);
    expect(trials.map((t) => [t.outcome, t.waitedSeconds])).toEqual([
      ["refused", 10],
      ["refused", 9],
    ]);
    expect(trials[1]?.faults).toEqual(["release without a try"]);
  });

  it("ends at a logged refusal; the help and release after it are neither reinforcement nor fault", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(8, "phase", { phase: 3, by: "press" });
    w.add(21, "response", { answer: "refused", phase: 3 });
    w.add(23, "response", { answer: "try", phase: 3 });
    w.add(23.2, "release");
    w.add(23.4, "mark");
    expect(only(w)).toMatchObject({
      outcome: "refused",
      waitedSeconds: 20,
      phase: 3,
      released: false,
      reinforced: false,
      marked: false,
      helped: "try",
      faults: [],
    });
    expect(reduceSession(w.events).offers).toBe(0);
  });

  it("cut off by a break, a block or the finish before any answer is no trial", () => {
    for (const end of ["break.start", "block.end", "session.end"] as const) {
      const w = new SessionWriter();
      w.block(0);
      w.add(1, "ask", { phase: 1 });
      w.add(4, end);
      const record = reduceSession(w.events);
      expect([record.trials.length, record.cutOffAsks]).toEqual([0, 1]);
    }
  });

  it("still open is shown as open and not counted", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 2 });
    const record = reduceSession(w.events);
    expect([record.trials.length, record.cutOffAsks, record.openAsk?.phase]).toEqual([0, 0, 2]);
  });

  it("takes an answer tapped just after the release: the release came early", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(3, "release");
    w.add(3.2, "response", { answer: "met", phase: 1 });
    expect(only(w)).toMatchObject({ outcome: "met", latencySeconds: 2.2, releaseLagSeconds: -0.2, faults: [] });
  });

  it("leaves a later answer to the offers: nobody had asked", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(2, "response", { answer: "met", phase: 1 });
    w.add(2.3, "release");
    w.add(6, "response", { answer: "met", phase: 1 });
    w.add(7, "offer", { earned: "ignored" });
    expect(reduceSession(w.events).offers).toBe(2);
    expect(only(w)?.outcome).toBe("met");
  });

  it("finds the order faults", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "ask", { phase: 1 });
    w.add(2, "feed", { pieces: 1 });
    w.add(2.5, "mark");
    w.add(3, "response", { answer: "try", phase: 1 });
    w.add(4, "phase", { phase: 2, by: "press" });
    w.add(5, "release");
    expect([...(only(w)?.faults ?? [])].sort()).toEqual(["food before mark", "mark before response", "phase raised during a try"]);
  });
});

describe("a stay", () => {
  const stay = { criterion: { sentence: "Stays 30 s.", stay_s: 30, working: { strand: "stay", unit: "s", target: 30, harder: "more" } } };

  it("has the latency to being in place, the time stayed as value, and its lag from the thirtieth second", () => {
    const w = new SessionWriter();
    w.block(0, stay);
    w.add(10, "ask", { phase: 1 });
    w.add(14, "response", { answer: "met", phase: 1 });
    w.add(44.5, "release");
    expect(only(w)).toMatchObject({
      outcome: "met",
      latencySeconds: 4,
      value: 30.5,
      unit: "s",
      endedBy: "criterion",
      releaseLagSeconds: 0.5,
    });
  });

  it("that the horse ends is an event, and short of the rung", () => {
    const w = new SessionWriter();
    w.block(0, stay);
    w.add(10, "ask", { phase: 1 });
    w.add(14, "response", { answer: "met", phase: 1 });
    w.add(26, "stay", { ended_by: "left" });
    w.add(27, "release");
    expect(only(w)).toMatchObject({
      outcome: "try",
      tapped: "met",
      value: 12,
      endedBy: "left",
      releaseLagSeconds: null,
      shortfall: "It stayed 12 s; the rung asks for 30 s.",
    });
  });

  it("that the handler ends is censored", () => {
    const w = new SessionWriter();
    w.block(0, stay);
    w.add(10, "ask", { phase: 1 });
    w.add(14, "response", { answer: "met", phase: 1 });
    w.add(34, "release");
    expect(only(w)).toMatchObject({ outcome: "try", value: 20, endedBy: "handler" });
  });

  it("reached by a press runs to that press", () => {
    const w = new SessionWriter();
    w.block(0, stay);
    w.add(10, "ask", { phase: 1 });
    w.add(14, "response", { answer: "met", phase: 1 });
    w.add(45, "criterion");
    w.add(45.3, "release");
    expect(only(w)).toMatchObject({ outcome: "met", value: 31, releaseLagSeconds: 0.3 });
  });
});

describe("met against the rung", () => {
  const tally = (criterion: object, payload: object, side = "L") => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "x", phases: ["look", "point", "line"], ...criterion }, side });
    const id = w.add(5, "trial", { outcome: "met", logged: "tally", ...payload });
    return { w, id };
  };

  it.each([
    [{ max_phase: 2 }, { phase: 3 }, "It took line; the rung asks for point or lighter."],
    [{ max_latency_s: 3 }, { latency_s: 3.5 }, "It took 3.5 s; the rung asks for 3 s."],
    [{ min_ease: 3 }, { ease: 1 }, "The horse was tense; the rung asks for soft."],
    [{ side: "right" }, { side: "L" }, "It was on the left; the rung asks for the right."],
    [{ working: { strand: "steps", unit: "", target: 4, harder: "more" } }, { value: 3 }, "It was 3; the rung asks for 4."],
    [
      { working: { strand: "approach", unit: "m", target: 1, harder: "less" } },
      { value: 1.5, unit: "m" },
      "It was 1.5 m; the rung asks for 1 m.",
    ],
  ])("%j with %j counts as a try and says why", (criterion, payload, words) => {
    expect(only(tally(criterion, payload).w)).toMatchObject({ outcome: "try", tapped: "met", shortfall: words });
  });

  it("what was not logged cannot fail", () => {
    expect(
      only(tally({ max_phase: 1, max_latency_s: 1, min_ease: 3, working: { strand: "steps", unit: "", target: 4, harder: "more" } }, {}).w)
        ?.outcome,
    ).toBe("met");
  });

  it("is overridden by one press, kept as an event", () => {
    const { w, id } = tally({ max_phase: 1 }, { phase: 2 });
    w.add(6, "override", { of: id, from: "try", to: "met", reason: "seen" });
    expect(only(w)).toMatchObject({ outcome: "met", overridden: true, shortfall: expect.any(String) });
  });

  it("a grade given after the trial counts too", () => {
    const { w } = tally({ min_ease: 3 }, {});
    w.add(6, "measure", { strand: "ease", value: 2, unit: "grade" });
    expect(only(w)).toMatchObject({ outcome: "try", ease: 2 });
  });
});

describe("a tally", () => {
  it("is reinforced as the rung's schedule says, unless told otherwise", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "x", schedule: { kind: "fixed", ratio: 2 } } });
    for (const at of [1, 2, 3, 4]) w.add(at, "trial", { outcome: "met" });
    w.add(5, "trial", { outcome: "try" });
    w.add(6, "trial", { outcome: "miss" });
    w.add(7, "trial", { outcome: "met", reinforced: 1 });
    expect(reduceSession(w.events).trials.map((t) => t.reinforced)).toEqual([false, true, false, true, null, false, true]);
  });

  it("takes marks, food and scratches that come after it", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "trial", { outcome: "try", reinforcers: 1 });
    w.add(2, "mark");
    w.add(3, "feed", { pieces: 2 });
    w.add(4, "reinforce", { what: "scratch" });
    expect(only(w)).toMatchObject({ marked: true, reinforcers: 3, reinforced: true, reinforcerKinds: ["scratch"] });
  });

  it("leaves food before any trial outside", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "feed", { pieces: 3 });
    w.add(2, "trial", { outcome: "met" });
    expect(reduceSession(w.events).foodPiecesOutside).toBe(3);
  });
});

describe("undo and correct", () => {
  it("an undo takes one event out, an undo of the undo brings it back", () => {
    const w = new SessionWriter();
    w.block(0);
    const trial = w.add(1, "trial", { outcome: "met" });
    const undo = w.add(2, "undo", { event: trial });
    expect(reduceSession(w.events).trials).toHaveLength(0);
    w.add(3, "undo", { event: undo });
    expect(reduceSession(w.events).trials).toHaveLength(1);
  });

  it("each recorder undoes its own", () => {
    const w = new SessionWriter();
    w.block(0);
    const trial = w.add(1, "trial", { outcome: "met" });
    w.add(2, "undo", { event: trial }, "tablet:b", testId(2));
    expect(reduceSession(w.events).trials).toHaveLength(1);
  });

  it("a correction lays its payload over, strikes, and the last one stands", () => {
    const w = new SessionWriter();
    w.block(0);
    const trial = w.add(1, "trial", { outcome: "met", phase: 1 });
    w.add(2, "correct", { event: trial, payload: { outcome: "miss" }, reason: "slip" }, "tablet:b", testId(2));
    expect(only(w)).toMatchObject({ outcome: "miss", phase: 1 });
    w.add(3, "correct", { event: trial, payload: { outcome: "nonsense" } });
    expect(only(w)?.outcome).toBe("miss");
    w.add(4, "correct", { event: trial, strike: true, reason: "other horse" });
    expect(reduceSession(w.events)).toMatchObject({ trials: [], struck: 1 });
  });

  it("undoing a block start gives its trials to the block before", () => {
    const w = new SessionWriter();
    w.block(0);
    const second = w.block(5, { block: 2, rung: 2 });
    w.add(6, "trial", { outcome: "met" });
    w.add(7, "undo", { event: second });
    const record = reduceSession(w.events);
    expect(record.blocks).toHaveLength(1);
    expect(record.trials[0]?.blockIndex).toBe(0);
  });
});

describe("time", () => {
  it("counts work from the first block to the finish, less breaks, notes aside", () => {
    const w = new SessionWriter();
    w.add(0, "session.start", { horse: "h", method: "combined" });
    w.block(30);
    w.add(40, "trial", { outcome: "met" });
    w.add(60, "break.start");
    w.add(90, "break.end");
    w.block(100, { block: 2 });
    w.add(120, "trial", { outcome: "met" });
    w.add(130, "session.end");
    w.add(400, "note", { text: "later" });
    const record = reduceSession(w.events);
    expect(workSeconds(record)).toBe(70);
    expect([blockSeconds(record, 0), blockSeconds(record, 1)]).toEqual([40, 30]);
    expect(record.trials.map((t) => t.askMs)).toEqual([10_000, 90_000]);
    expect(secondsSinceRest(record)).toBe(40);
    expect(summariseSession(record).measures.responsesPerMinute).toBeCloseTo(2 / (70 / 60), 12);
  });

  it("joins breaks that two recorders began", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "break.start");
    w.add(12, "break.start", {}, "tablet:b", testId(2));
    w.add(20, "break.end");
    w.add(22, "break.end", {}, "tablet:b", testId(2));
    w.add(30, "session.end");
    expect(workSeconds(reduceSession(w.events))).toBe(20);
  });

  it("leaves the time between met answers free of breaks and of other blocks", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "trial", { outcome: "met" });
    w.add(12, "break.start");
    w.add(22, "break.end");
    w.add(30, "trial", { outcome: "met" });
    w.block(40, { block: 2 });
    w.add(45, "trial", { outcome: "met" });
    w.add(50, "session.end");
    expect(summariseSession(reduceSession(w.events)).medianInterResponseSeconds).toBe(10);
  });

  it("ignores what is tapped after the finish", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "session.end");
    w.add(20, "trial", { outcome: "met" });
    expect(reduceSession(w.events).trials).toHaveLength(0);
  });

  it("is not bent by a wrong device clock, a reload or a sleeping phone", () => {
    const base = Date.UTC(2026, 4, 4, 9, 0, 0);
    const event = (n: number, load: number, mono: number, wall: number, fact: Fact) =>
      eventOf(
        {
          id: testId(n),
          session: testId(9),
          recorder: "phone:a",
          load: testId(load),
          seq: n,
          mono_ms: mono,
          wall_ms: wall,
        },
        fact,
      );
    const events = [
      event(1, 1, 1000, base - 3_600_000, { type: "block.start", payload: { block: 1, behaviour: "b", rung: 1 } }),
      // The phone slept for a minute: its monotonic clock stood still.
      event(2, 1, 2000, base - 3_600_000 + 61_000, { type: "trial", payload: { outcome: "met" } }),
      // The wall clock was set back ten seconds while the page ran on.
      event(3, 1, 5000, base - 3_600_000 + 54_000, { type: "trial", payload: { outcome: "met" } }),
      // A reload: a new monotonic clock from nothing.
      event(4, 2, 100, base + 70_000, { type: "session.end" }),
    ];
    const record = reduceSession(events, { offsetMsByLoad: new Map([[testId(1), 3_600_000]]) });
    expect(record.startWallMs).toBe(base);
    expect(record.trials.map((t) => t.askMs)).toEqual([61_000, 64_000]);
    expect(record.finishMs).toBe(70_000);
  });
});

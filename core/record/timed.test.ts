import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "./index";

/** A timed ask at 3 s that the horse answered at 5 s and was released at 6 s. */
function answered() {
  const w = new SessionWriter();
  w.block(0);
  w.add(3, "ask", { phase: 1 });
  w.add(5, "response", { answer: "met", phase: 1 });
  w.add(6, "release");
  return w;
}

describe("a timed ask", () => {
  it("counts every piece of food it was given, the second as the first, and times the first", () => {
    const w = answered();
    w.add(6.5, "mark");
    w.add(8, "feed", { pieces: 1 });
    w.add(9, "feed", { pieces: 2 });
    w.add(10, "feed", { pieces: 1 });
    expect(reduceSession(w.events).trials).toMatchObject([{ reinforcers: 4, feedDelaySeconds: 1.5 }]);
  });

  it("took the phase it was answered at: one raised after the answer is a fault of the hand and no heavier cue", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(3, "ask", { phase: 1 });
    w.add(5, "response", { answer: "met", phase: 1 });
    w.add(5.5, "phase", { phase: 3 });
    w.add(6, "release");
    expect(reduceSession(w.events).trials).toMatchObject([{ phase: 1, outcome: "met", faults: ["phase raised during a try"] }]);
  });

  it("took the heaviest of the phases before its answer", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(3, "ask", { phase: 1 });
    w.add(4, "phase", { phase: 3 });
    w.add(4.5, "phase", { phase: 2 });
    w.add(5, "response", { answer: "met", phase: 2 });
    w.add(6, "release");
    expect(reduceSession(w.events).trials[0]?.phase).toBe(3);
  });

  it.each([
    [1.9, 1, 0, "met"],
    [2.1, 1, 1, "refused"],
    [20, 1, 1, "refused"],
  ])(
    "released before its answer takes one that comes %s s later only within two seconds: after that it is an offer",
    (late, trials, offers, outcome) => {
      const w = new SessionWriter();
      w.block(0);
      w.add(3, "ask", { phase: 1 });
      w.add(6, "release");
      w.add(6 + late, "response", { answer: "met", phase: 1 });
      const record = reduceSession(w.events);
      expect(record.trials).toHaveLength(trials);
      expect([record.trials[0]?.outcome, record.offers]).toEqual([outcome, offers]);
    },
  );
});

describe("what the handler does", () => {
  it("before a timed ask stays out of the tally that comes after it", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "handler", { act: "steps", n: 3 });
    w.add(3, "ask", { phase: 1 });
    w.add(4, "handler", { act: "steps" });
    w.add(5, "response", { answer: "met", phase: 1 });
    w.add(6, "release");
    w.add(9, "handler", { act: "steps", n: 2 });
    w.add(10, "trial", { outcome: "met", logged: "tally" });
    w.add(14, "trial", { outcome: "met", logged: "tally" });
    expect(reduceSession(w.events).trials.map(({ handlerActs }) => handlerActs)).toEqual([{ steps: 1 }, { steps: 2 }, {}]);
  });
});

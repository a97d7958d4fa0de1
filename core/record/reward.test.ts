import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "./index";

const TALLY = { outcome: "met", phase: 2, logged: "tally", reinforced: 1, released: 1, marked: 1, reinforcers: 1 };

/** A rung that asks for the lightest cue, and a tally of met that took the second. */
function fellShort() {
  const writer = new SessionWriter();
  writer.block(0, { criterion: { sentence: "At the lightest cue.", max_phase: 1 } });
  return { writer, id: writer.add(3, "trial", TALLY) };
}

describe("what a tally of met earned that fell short of its rung", () => {
  it("is nothing where no other pad gave it: the pad of met stood for a reward not due", () => {
    const [trial] = reduceSession(fellShort().writer.events).trials;
    expect(trial).toMatchObject({ outcome: "try", reinforced: false, marked: false, reinforcers: 0, faults: [] });
    expect(trial?.released).toBe(true);
  });

  it("is what a pad gave, and a slip", () => {
    const { writer } = fellShort();
    writer.add(4, "mark");
    writer.add(5, "feed", { pieces: 2 });
    const [trial] = reduceSession(writer.events).trials;
    expect(trial).toMatchObject({ outcome: "try", reinforced: true, marked: true, reinforcers: 2, faults: ["rewarded below the rung"] });
  });

  it("comes back where the trainer counts it as met, or puts right what fell short", () => {
    const counted = fellShort();
    counted.writer.add(4, "override", { of: counted.id, from: "try", to: "met" });
    expect(reduceSession(counted.writer.events).trials[0]).toMatchObject({ outcome: "met", reinforced: true, reinforcers: 1, faults: [] });
    const right = fellShort();
    right.writer.add(4, "correct", { event: right.id, payload: { right: { phase: 1 } }, reason: "put right" });
    expect(reduceSession(right.writer.events).trials[0]).toMatchObject({ outcome: "met", reinforced: true, reinforcers: 1 });
  });

  it("leaves what a timed answer was given as it was seen", () => {
    const writer = new SessionWriter();
    writer.block(0, { criterion: { sentence: "At the lightest cue.", max_phase: 1 } });
    writer.add(3, "ask", { phase: 2 });
    writer.add(5, "response", { answer: "met", phase: 2 });
    writer.add(6, "release");
    expect(reduceSession(writer.events).trials[0]).toMatchObject({ outcome: "try", reinforced: true, released: true, faults: [] });
  });

  it("does not stand for one of the answers a schedule counts", () => {
    const writer = new SessionWriter();
    writer.block(0, { criterion: { sentence: "At the lightest cue.", max_phase: 1, schedule: { kind: "fixed", ratio: 2 } } });
    for (const phase of [1, 2, 1]) writer.add(3 + 4 * writer.events.length, "trial", { outcome: "met", phase, logged: "tally" });
    expect(reduceSession(writer.events).trials.map(({ reinforced }) => reinforced)).toEqual([false, false, true]);
  });
});

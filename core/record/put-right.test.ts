import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "./reduce-session";

const LIGHT = { sentence: "Body, at the most.", max_phase: 1, phases: ["body", "point", "line"] };

describe("putting right", () => {
  it("checks a tap of met anew with what changed, and keeps the original as an event", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: LIGHT });
    const tally = w.add(10, "trial", { outcome: "met", phase: 3 });
    expect(reduceSession(w.events).trials[0]).toMatchObject({ outcome: "try", shortfall: "It took line; the rung asks for body." });
    w.add(4000, "correct", { event: tally, payload: { right: { phase: 1 } }, reason: "tapped wrong" });
    const record = reduceSession(w.events);
    expect(record.trials[0]).toMatchObject({ outcome: "met", shortfall: null, phase: 1, overridden: false });
    expect(w.events.find(({ id }) => id === tally)?.payload).toEqual({ outcome: "met", phase: 3 });
  });

  it("does the same for a timed trial: outcome, side, value, ease, zone and note, and the trainer's outcome is the last word", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: { ...LIGHT, working: { strand: "steps", unit: "steps", target: 3, harder: "more" } } });
    const ask = w.add(10, "ask", { phase: 1 });
    w.add(12, "response", { answer: "met", phase: 1 });
    w.add(12.4, "release");
    const right = { outcome: "miss", side: "R", value: 2, ease: 1, zone: "gate", note: "it was the fly" };
    w.add(900, "correct", { event: ask, payload: { right }, reason: "seen on film" });
    expect(reduceSession(w.events).trials[0]).toMatchObject({
      ...right,
      tapped: "miss",
      unit: "steps",
      latencySeconds: null,
      reinforced: false,
    });
    w.add(950, "correct", { event: ask, payload: { right: { outcome: "met", phase: 3 } }, reason: "after all" });
    expect(reduceSession(w.events).trials[0]).toMatchObject({ outcome: "met", shortfall: null, overridden: true, phase: 3 });
  });

  it("passes over a correction of the wrong shape", () => {
    const w = new SessionWriter();
    w.block(0);
    const id = w.add(10, "trial", { outcome: "met" });
    w.add(20, "correct", { event: id, payload: { right: { outcome: "splendid" } } });
    expect(reduceSession(w.events).trials[0]?.outcome).toBe("met");
  });

  it("strikes and brings back, whoever asks for it, and the last one stands", () => {
    const w = new SessionWriter();
    w.block(0);
    const id = w.add(10, "trial", { outcome: "met" });
    w.add(20, "trial", { outcome: "miss" });
    w.add(30, "correct", { event: id, strike: true, reason: "no trial" }, "laptop:b");
    expect(reduceSession(w.events)).toMatchObject({ struck: 1, trials: [{ outcome: "miss" }] });
    w.add(40, "correct", { event: id, strike: false, reason: "it was one" }, "phone:a");
    expect(reduceSession(w.events)).toMatchObject({ struck: 0 });
    expect(reduceSession(w.events).trials.map(({ outcome }) => outcome)).toEqual(["met", "miss"]);
  });

  it("moves a whole session in time, and nothing inside it", () => {
    const w = new SessionWriter();
    const start = w.add(0, "session.start", { horse: "Mallow", method: "combined" });
    w.block(5);
    w.add(20, "trial", { outcome: "met" });
    w.add(65, "session.end");
    const before = reduceSession(w.events);
    w.add(9000, "correct", { event: start, payload: { shift_s: -86_400, place: "Far pen" }, reason: "the phone's date was wrong" });
    const after = reduceSession(w.events);
    expect(after.startWallMs).toBe((before.startWallMs ?? 0) - 86_400_000);
    expect(after.header?.place).toBe("Far pen");
    expect(after.trials).toEqual(before.trials);
    expect(after.finishMs).toBe(before.finishMs);
  });
});

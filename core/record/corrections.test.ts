import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from ".";
import { correctionsOf } from "./corrections";

describe("correctionsOf", () => {
  it("lists what was put right under Review with its reason, and what is still struck", () => {
    const w = new SessionWriter();
    w.block(0);
    const first = w.add(10, "trial", { outcome: "met" });
    const second = w.add(20, "trial", { outcome: "miss" });
    // The recorder's own second tap, that names a sign, is no putting right.
    w.add(21, "correct", { event: second, payload: { note: "x" }, reason: "named" }, "phone:Ada");
    w.add(100, "correct", { event: first, payload: { right: { phase: 2 } }, reason: "tapped wrong" }, "laptop:review");
    w.add(200, "correct", { event: second, strike: true, reason: "no ask" }, "laptop:review");
    const seen = () => correctionsOf(w.events).map(({ of, type, reason, struck }) => [of, type, reason, struck]);
    expect(seen()).toEqual([
      [first, "trial", "tapped wrong", false],
      [second, "trial", "no ask", true],
    ]);
    w.add(300, "correct", { event: second, strike: false, reason: "brought back" }, "phone:review");
    expect(seen().map(([, , , struck]) => struck)).toEqual([false, false, false]);
    const again = w.add(400, "correct", { event: second, strike: true, reason: "after all" }, "laptop:review");
    expect(seen().at(-1)).toEqual([second, "trial", "after all", true]);
    w.add(500, "undo", { event: again }, "laptop:review");
    expect(seen().map(([, , , struck]) => struck)).toEqual([false, false, false]);
  });

  it("reads what is taken back as the session's own reducer does: an undo that was undone, and one by another recorder, take nothing back", () => {
    const w = new SessionWriter();
    w.block(0);
    const trial = w.add(10, "trial", { outcome: "met" });
    const strike = w.add(100, "correct", { event: trial, strike: true, reason: "no ask" }, "laptop:review");
    const struck = () => ({ listed: correctionsOf(w.events).map((one) => one.struck), counts: reduceSession(w.events).trials.length });
    expect(struck()).toEqual({ listed: [true], counts: 0 });
    w.add(110, "undo", { event: strike }, "phone:a");
    expect(struck()).toEqual({ listed: [true], counts: 0 });
    const undo = w.add(120, "undo", { event: strike }, "laptop:review");
    expect(struck()).toEqual({ listed: [], counts: 1 });
    w.add(130, "undo", { event: undo }, "laptop:review");
    expect(struck()).toEqual({ listed: [true], counts: 0 });
  });

  it("lists the session's own, put right by the server, and nothing of what is not there", () => {
    const w = new SessionWriter();
    const start = w.add(0, "session.start", { horse: "Bo", method: "combined" });
    w.add(100, "correct", { event: start, payload: { shift_s: 60 }, reason: "clock" }, "review:");
    w.add(100, "correct", { event: "00000000-0000-4000-8000-00000000dead", strike: true, reason: "gone" }, "review:");
    expect(correctionsOf(w.events)).toMatchObject([{ of: start, type: "session.start", reason: "clock", struck: false }]);
  });
});

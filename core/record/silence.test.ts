import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import type { SessionEvent } from "../events";
import { reduceSession } from "./reduce-session";
import { summariseSession } from "./summary";
import { blockSeconds, isSilent, workSeconds } from "./time";

const MINUTE = 60;
const HOUR = 3600;

const met = { outcome: "met" };

describe("a silence", () => {
  it("of a night is no work: Monday's session gone on with on Tuesday has the minutes of both, and none of the night", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5 * MINUTE, "trial", met);
    const tuesday = 24 * HOUR;
    w.add(tuesday, "block.end");
    w.block(tuesday, { block: 2 });
    w.add(tuesday + 3 * MINUTE, "trial", met);
    w.add(tuesday + 4 * MINUTE, "session.end");
    const record = reduceSession(w.events);
    expect(workSeconds(record)).toBe(9 * MINUTE);
    expect(blockSeconds(record, 0)).toBe(5 * MINUTE);
    expect(record.timeLine.breaks).toEqual([{ startMs: 5 * MINUTE * 1000, endMs: tuesday * 1000, silent: true, after: w.events[1]?.id }]);
    // Two met answers in nine minutes of work.
    expect(summariseSession(record).measures.responsesPerMinute).toBeCloseTo(2 / 9, 12);
  });

  it("left open overnight ends at its last tap, also when it is finished the day after", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(6 * MINUTE, "trial", met);
    const open = reduceSession(w.events);
    expect(workSeconds(open, 14 * HOUR * 1000)).toBe(6 * MINUTE);
    expect(isSilent(open, 14 * HOUR * 1000)).toBe(true);
    // The recorder ends the block with the session.
    w.add(14 * HOUR, "block.end");
    w.add(14 * HOUR, "session.end");
    const ended = reduceSession(w.events);
    expect(ended.finishMs).toBe(6 * MINUTE * 1000);
    expect(workSeconds(ended)).toBe(6 * MINUTE);
    expect(ended.timeLine.breaks).toEqual([]);
  });

  it.each([
    [19, 20],
    [20, 20],
    [4, 5],
  ])("of %s minutes where the setting is %s stays work: a phone in a pocket is silent too", (silence, silenceMinutes) => {
    const w = new SessionWriter();
    w.block(0);
    w.add(MINUTE, "trial", met);
    w.add((1 + silence) * MINUTE, "trial", met);
    w.add((2 + silence) * MINUTE, "session.end");
    expect(workSeconds(reduceSession(w.events, { silenceMinutes }))).toBe((2 + silence) * MINUTE);
    expect(workSeconds(reduceSession(w.events, { silenceMinutes: silence - 1 }))).toBe(2 * MINUTE);
  });

  it.each([
    ["an ask held", (w: SessionWriter) => w.add(MINUTE, "ask", { phase: 1 })],
    ["the horse away", (w: SessionWriter) => w.add(MINUTE, "depart")],
    ["a gait on the circle", (w: SessionWriter) => w.add(MINUTE, "gait", { gait: "walk" })],
  ])("with %s stays work for an hour, and a night is none all the same", (_, open) => {
    const hour = new SessionWriter();
    hour.block(0);
    open(hour);
    hour.add(HOUR, "signal", { name: "ease", class: "ease" });
    expect(workSeconds(reduceSession(hour.events))).toBe(HOUR);
    const night = new SessionWriter();
    night.block(0);
    open(night);
    night.add(12 * HOUR, "signal", { name: "ease", class: "ease" });
    expect(workSeconds(reduceSession(night.events))).toBe(MINUTE);
  });

  it("with the horse standing is silent as any other, and a break that was tapped is one already", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(MINUTE, "gait", { gait: "stand" });
    w.add(40 * MINUTE, "trial", met);
    expect(reduceSession(w.events).timeLine.breaks).toHaveLength(1);
    const rest = new SessionWriter();
    rest.block(0);
    rest.add(MINUTE, "break.start");
    rest.add(90 * MINUTE, "break.end");
    rest.add(91 * MINUTE, "session.end");
    expect(reduceSession(rest.events).timeLine.breaks).toEqual([{ startMs: 60_000, endMs: 90 * MINUTE * 1000 }]);
  });

  it("is work again once the trainer says that they went on, for what came before as for what goes on now", () => {
    const w = new SessionWriter();
    w.block(0);
    const last = w.add(MINUTE, "trial", met);
    w.add(31 * MINUTE, "trial", met);
    const went: SessionEvent["payload"] = { event: last, payload: { went_on: true }, reason: "we went on" };
    expect(workSeconds(reduceSession(w.events))).toBe(MINUTE);
    w.add(9 * HOUR, "correct", went);
    const record = reduceSession(w.events);
    expect(workSeconds(record)).toBe(31 * MINUTE);
    // The saying itself is no tap of the work, and the trial keeps its outcome.
    expect(record.lastMs).toBe(31 * MINUTE * 1000);
    expect(record.trials.map(({ outcome }) => outcome)).toEqual(["met", "met"]);
    const open = new SessionWriter();
    open.block(0);
    const tap = open.add(MINUTE, "trial", met);
    open.add(45 * MINUTE, "correct", { event: tap, payload: { went_on: true } });
    expect(isSilent(reduceSession(open.events), 46 * MINUTE * 1000)).toBe(false);
    expect(workSeconds(reduceSession(open.events), 46 * MINUTE * 1000)).toBe(46 * MINUTE);
  });

  it("is not heard in what was written from memory", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(30 * MINUTE, "trial", { outcome: "met", logged: "late" });
    w.add(60 * MINUTE, "block.end");
    w.add(60 * MINUTE, "session.end");
    expect(workSeconds(reduceSession(w.events))).toBe(HOUR);
  });
});

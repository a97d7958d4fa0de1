import { describe, expect, it } from "vitest";
import { planToLog } from "@/core/events/circle-log";
import { PLAN } from "@/tests/support/circle-plan";
import { SessionWriter } from "@/tests/support/session-writer";
import type { CirclePlan } from "../events/circle-plan";
import { reduceSession } from "../record";
import type { CircleCaps } from "./caps";
import { type CircleLimits, circleNow } from "./now";
import { circleWorkOf } from "./work";

const CAPS: CircleCaps = {
  sessionMinutes: { value: 20, why: "The yard's cap." },
  penMinutes: { value: 10, why: "A pen turns tighter." },
  weekMinutes: null,
  weekVisits: null,
} as CircleCaps;
const LIMITS: CircleLimits = { caps: CAPS, use: { todayMinutes: 0, weekMinutes: 0 }, against: new Set(), heat: null };

/** A session on the circle from 0 s on, as far as it is written. */
function running(write: (w: SessionWriter) => void = () => undefined, plan: CirclePlan = PLAN) {
  const w = new SessionWriter();
  w.block(0, { behaviour: "Circle work", ladder: undefined, side: "" });
  w.add(0, "circle.start", { plan: planToLog(plan), overrides: [] });
  write(w);
  return { w, record: () => reduceSession(w.events, { offsetMsByLoad: new Map() }) };
}

const at = (
  seconds: number,
  { write, plan = PLAN, limits = {} }: { write?: (w: SessionWriter) => void; plan?: CirclePlan; limits?: Partial<CircleLimits> } = {},
) => circleNow(running(write, plan).record(), plan, { ...LIMITS, ...limits }, seconds * 1000);

describe("a session on the circle at a moment", () => {
  it("stands where the plan has it, before its change is called and after", () => {
    expect(at(90)).toMatchObject({ side: "L", gait: "walk", target: "walk", clockSeconds: 90, circledMinutes: 1.5, asking: null });
    expect(at(90).face.leftSeconds).toBe(30);
    expect(at(111)).toMatchObject({ target: "trot", segment: { gait: "walk" }, next: { gait: "trot" } });
    expect(at(125)).toMatchObject({ segment: { gait: "trot" }, target: "trot" });
    expect(at(400)).toMatchObject({ segment: null, side: "R" });
  });

  it("stands at its beginning before anybody begins", () => {
    const w = new SessionWriter();
    w.block(0);
    const before = circleNow(reduceSession(w.events, { offsetMsByLoad: new Map() }), PLAN, LIMITS, null);
    expect(before).toMatchObject({ clockSeconds: 0, circledMinutes: 0, overCap: null, segment: { gait: "walk" }, lastAsk: null });
  });

  it("knows the ask that goes on, until a gait is tapped: the one asked for or another", () => {
    const asked = (w: SessionWriter) => {
      w.add(100, "aid", { aid: "voice", to: "trot" });
      w.add(103, "aid", { aid: "whip", to: "trot" });
    };
    expect(at(105, { write: asked }).asking).toEqual({ from: "walk", to: "trot", aids: ["voice", "whip"], seconds: 5 });
    expect(at(105, { write: asked }).target).toBe("trot");
    for (const gait of ["trot", "walk"]) {
      const now = at(110, {
        write: (w) => {
          asked(w);
          w.add(106, "gait", { gait, direction: "left" });
        },
      });
      expect(now.asking, gait).toBeNull();
      expect(now.lastAsk?.cameAfterSeconds, gait).toBe(gait === "trot" ? 6 : null);
    }
  });

  it("ends where the day's minutes or the week's are used up, and says which", () => {
    expect(at(59, { limits: { use: { todayMinutes: 19, weekMinutes: 19 } } }).overCap).toBeNull();
    expect(at(61, { limits: { use: { todayMinutes: 19, weekMinutes: 19 } } }).overCap).toBe(
      "20 min of circling today, the most. The yard's cap.",
    );
    const week = { caps: { ...CAPS, weekMinutes: { value: 40, why: "Young." } }, use: { todayMinutes: 0, weekMinutes: 39 } };
    expect(at(61, { limits: week }).overCap).toBe("40 min of circling in seven days, the most. Young.");
    expect(at(61, { limits: { ...week, against: new Set(["week"]) } }).overCap).toBeNull();
    // Straight lines are no circling.
    const lines = { ...PLAN, form: "lines" as const, radiusMetres: null };
    expect(at(61, { plan: lines, limits: { use: { todayMinutes: 30, weekMinutes: 30 } } }).overCap).toBeNull();
  });

  it("holds the cap of a pen whatever was said against it", () => {
    const used = { use: { todayMinutes: 9, weekMinutes: 9 }, against: new Set(["too-long", "week"]) };
    expect(at(61, { limits: used }).overCap).toBeNull();
    expect(at(61, { plan: { ...PLAN, form: "pen", radiusMetres: null }, limits: used }).overCap).toContain("10 min of circling today");
  });

  it("ends in the heat, after the minutes at walk that a reason gives", () => {
    expect(at(1, { limits: { heat: { sentence: "Too hot.", minutes: 0 } } }).overCap).toBe("Too hot.");
    expect(at(299, { limits: { heat: { sentence: "Too hot.", minutes: 5 } } }).overCap).toBeNull();
    expect(at(300, { limits: { heat: { sentence: "Too hot.", minutes: 5 } } }).overCap).toBe("Too hot.");
  });

  it("calls the cap later by what the horse stood where the plan has it move", () => {
    const cap = { use: { todayMinutes: 18, weekMinutes: 18 } };
    expect(at(60, { limits: cap }).capSeconds).toBe(120);
    const stood = (w: SessionWriter) => {
      w.add(20, "gait", { gait: "stand", direction: "left" });
      w.add(50, "gait", { gait: "walk", direction: "left" });
    };
    expect(at(60, { limits: cap, write: stood }).capSeconds).toBe(150);
  });

  it("gives the same schedule as long as it says the same, also after a tap that does not move it", () => {
    const { w, record } = running();
    const first = circleNow(record(), PLAN, LIMITS, 30_000).stretches;
    w.add(31, "lap");
    expect(circleNow(record(), PLAN, LIMITS, 32_000).stretches).toBe(first);
    w.add(40, "circle.more", { seconds: 60 });
    const longer = circleNow(record(), PLAN, LIMITS, 41_000).stretches;
    expect(longer[0]?.endSeconds).toBe(180);
    expect(circleNow(record(), PLAN, LIMITS, 50_000).stretches).toBe(longer);
  });

  it("is what the session comes to when it ends there", () => {
    const { w, record } = running((w) => {
      w.add(20, "break.start");
      w.add(50, "break.end");
      w.add(70, "gait", { gait: "trot", direction: "left" });
      w.add(90, "circle.go", { segment: 2 });
    });
    const now = circleNow(record(), PLAN, LIMITS, 120_000);
    w.add(120, "session.end");
    const work = circleWorkOf(record());
    expect([now.clockSeconds, now.circledMinutes * 60, now.stretches]).toEqual([work?.clockSeconds, work?.movingSeconds, work?.stretches]);
  });
});

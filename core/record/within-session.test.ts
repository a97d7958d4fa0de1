import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { againstPlan, firstAndSecondPass, reduceSession, sessionThirds } from ".";

function session(outcomes: string, more: Record<string, unknown> = {}) {
  const writer = new SessionWriter();
  writer.block(0, { planned: 8 });
  [...outcomes].forEach((one, i) => {
    writer.add(1 + i, "trial", {
      outcome: one === "m" ? "met" : "miss",
      phase: i % 2 === 0 ? 1 : 2,
      ease: i % 5,
      logged: "tally",
      ...more,
    });
  });
  return writer;
}

describe("parts of a session", () => {
  it("are thirds by asks, what is over in the middle", () => {
    const thirds = sessionThirds(reduceSession(session("mmmxxxxmmmx").events));
    expect(thirds?.map(({ n, met }) => [n, met])).toEqual([
      [3, 3],
      [5, 1],
      [3, 2],
    ]);
    expect(thirds?.[0]).toMatchObject({ metAtLightest: 2, metWithPhase: 3, meanEase: 1 });
    expect(sessionThirds(reduceSession(session("mmmmmmmm").events))).toBeNull();
    expect(sessionThirds(reduceSession(session("mmmmmmmmmm", { logged: "late" }).events))).toBeNull();
  });

  it("leave out warm-up and the easy one at the end", () => {
    const writer = session("mmmmmmmmm");
    writer.block(20, { block: 2, kind: "sure" });
    writer.add(21, "trial", { outcome: "miss", logged: "tally" });
    expect(sessionThirds(reduceSession(writer.events))?.reduce((sum, { n }) => sum + n, 0)).toBe(9);
  });

  it("hold the first block on a rung and side against the next on it", () => {
    const writer = session("mxx");
    writer.block(20, { block: 2, side: "R" });
    writer.add(21, "trial", { outcome: "miss", logged: "tally" });
    writer.block(30, { block: 3 });
    for (const at of [31, 32]) writer.add(at, "trial", { outcome: "met", logged: "tally" });
    const record = reduceSession(writer.events);
    expect(firstAndSecondPass(record)?.map(({ n, met }) => [n, met])).toEqual([
      [3, 1],
      [2, 2],
    ]);
    expect(firstAndSecondPass(reduceSession(session("mmm").events))).toBeNull();
  });

  it("say how the asks lie beside the plan", () => {
    // On no ladder nobody planned how many: a first look allows one to three asks.
    const look = new SessionWriter();
    look.block(0, { behaviour: "First look", rung: "poll", ladder: undefined, planned: 2 });
    look.add(5, "trial", { outcome: "met", logged: "tally" });
    expect(againstPlan(reduceSession(look.events))).toBeNull();
    expect(againstPlan(reduceSession(session("mmm").events))).toEqual({ planned: 8, made: 3, over: 0, under: 1 });
    expect(againstPlan({ blocks: [], trials: [] })).toBeNull();
  });
});

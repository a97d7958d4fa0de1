import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { reduceSession } from "@/core/record";
import { randomSession } from "@/tests/support/random-session";
import { SessionWriter } from "@/tests/support/session-writer";
import { layOutRibbon, trialWords } from "./geometry";

const VIEW = { fromMs: 0, toMs: 60_000, width: 600, height: 100 };

function timedSession() {
  const w = new SessionWriter();
  w.block(0, { criterion: { sentence: "x", phases: ["look", "point", "line"] } });
  w.add(10, "ask", { phase: 1 });
  w.add(13, "phase", { phase: 3, by: "press" });
  w.add(15, "response", { answer: "met", phase: 3 });
  w.add(15.5, "release");
  w.add(15.7, "mark");
  w.add(17, "feed", { pieces: 2 });
  w.add(20, "signal", { name: "paws", class: "tension" });
  w.add(25, "depart", { to: "gate" });
  w.add(30, "return");
  w.add(40, "break.start");
  w.add(50, "break.end");
  return w;
}

describe("layOutRibbon", () => {
  it("puts time to the right and pressure upwards", () => {
    const drawing = layOutRibbon(reduceSession(timedSession().events), VIEW);
    const [answer] = drawing.answers;
    expect(answer).toMatchObject({ x: 150, outcome: "met", side: "L", title: "1: got it, left, line, after 5.0 s" });
    // The third of three phases lies as high as pressure goes: from 68 to 20 of 100 px.
    expect(drawing.slackY - (answer?.y ?? 0)).toBeCloseTo(100 * (0.68 - 0.2), 6);
    expect(drawing.signs.map(({ kind, x }) => [kind, x])).toEqual([
      ["mark", 157],
      ["food", 170],
      ["tension", 200],
    ]);
    expect(drawing.signs.find((s) => s.kind === "food")?.title).toBe("food, 2 pieces");
    expect(drawing.dotted).toContain("M250");
    expect(drawing.breaks).toEqual([{ key: "b0", x: 400, width: 100, label: "rest 10 s" }]);
  });

  it("stands higher for a clearer phase", () => {
    const heights = [1, 2, 3].map((phase) => {
      const w = new SessionWriter();
      w.block(0);
      w.add(10, "trial", { outcome: "met", phase });
      w.add(20, "trial", { outcome: "met", phase: 3 });
      return layOutRibbon(reduceSession(w.events), VIEW).answers[0]?.y ?? 0;
    });
    expect(heights[0]).toBeGreaterThan(heights[1] ?? 0);
    expect(heights[1]).toBeGreaterThan(heights[2] ?? 0);
  });

  it("ends a refusal in a bar, and shows an open ask up to the present", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "ask", { phase: 1 });
    w.add(20, "response", { answer: "refused", phase: 1 });
    w.add(30, "ask", { phase: 2 });
    const drawing = layOutRibbon(reduceSession(w.events), { ...VIEW, presentMs: 45_000 });
    expect(drawing.bars).toHaveLength(1);
    expect(drawing.line).toContain("H450");
    expect(drawing.line).not.toContain("H600");
  });

  it("never draws a number that is none, whatever the session and the window", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.nat(400), fc.integer({ min: 1, max: 400 }), (seed, from, length) => {
        const record = reduceSession(randomSession(seed, undefined, 30).events);
        const drawing = layOutRibbon(record, { fromMs: from * 1000, toMs: (from + length) * 1000, width: 400, height: 80 });
        expect(JSON.stringify(drawing)).not.toMatch(/NaN|null,null|Infinity/);
        for (const path of [drawing.line, drawing.pressure, drawing.dotted]) expect(path).not.toMatch(/NaN|Infinity/);
      }),
      { numRuns: 40 },
    );
  });
});

describe("trialWords", () => {
  it("says what fell short", () => {
    const w = new SessionWriter();
    w.block(0, { criterion: { sentence: "x", max_phase: 1, phases: ["look", "point"] } });
    w.add(1, "trial", { outcome: "met", phase: 2, side: "R" });
    const [trial] = reduceSession(w.events).trials;
    expect(trial && trialWords(trial, ["look", "point"])).toBe("1: try, right, point, It took point; the rung asks for look.");
  });
});

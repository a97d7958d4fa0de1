import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addDays } from "../day";
import { daysBetween } from "../welfare";
import { type RampDone, type RampInput, rampCalendar, rampPlace, rampProblem, rampSteps, sessionMinutesOf } from "./ramp";

const caps = { sessionMinutes: 30, weekMinutes: null, weekVisits: null, canter: true };
const input: RampInput = {
  start: { walk: 8, trot: 2, canter: 0, obstacles: false },
  goal: { walk: 6, trot: 6, canter: 2, obstacles: true },
  sessionsAWeek: 3,
  ways: "both",
  caps,
};

describe("a ramp", () => {
  it("shifts a minute, then adds to the total, then obstacles, then canter", () => {
    expect(rampSteps(input).map(({ walk, trot, canter, obstacles, change }) => [change, walk, trot, canter, obstacles])).toEqual([
      ["start", 8, 2, 0, false],
      ["shift", 7, 3, 0, false],
      ["shift", 6, 4, 0, false],
      ["total", 6, 5, 0, false],
      ["total", 6, 6, 0, false],
      ["total", 6, 7, 0, false],
      ["total", 6, 8, 0, false],
      ["obstacles", 6, 8, 0, true],
      ["canter", 6, 7, 1, true],
      ["canter", 6, 6, 2, true],
    ]);
  });
  it("says why a goal cannot be had", () => {
    const problem = (change: Partial<RampInput>) => rampProblem({ ...input, ...change });
    expect(problem({ goal: { ...input.goal, walk: 20 } })).toBe("The goal is 56 min a session, over the cap of 30 min.");
    expect(problem({ caps: { ...caps, weekMinutes: 70 } })).toBe("The goal is 84 min a week, over the cap of 70 min.");
    expect(problem({ caps: { ...caps, canter: false } })).toBe("The goal has canter; the circle is too small for it.");
    expect(problem({ caps: { ...caps, weekVisits: 1 } })).toBe("3 sessions a week, over the cap of 1.");
    expect(problem({ sessionsAWeek: 2.5 })).toBe("From 1 to 7 sessions a week.");
    expect(problem({ goal: { walk: 0, trot: 0, canter: 0, obstacles: false } })).toBe("The goal has no minutes.");
    expect(() => rampSteps({ ...input, sessionsAWeek: 0 })).toThrow(RangeError);
  });

  const minutes = fc.integer({ min: 0, max: 24 }).map((quarters) => quarters / 2);
  const load = fc.record({ walk: minutes, trot: minutes, canter: minutes, obstacles: fc.boolean() });
  const any = fc.record({
    start: load,
    goal: load,
    sessionsAWeek: fc.integer({ min: 1, max: 6 }),
    ways: fc.constantFrom("both" as const, "turn" as const),
    caps: fc.record({
      sessionMinutes: fc.integer({ min: 10, max: 60 }),
      weekMinutes: fc.option(fc.integer({ min: 20, max: 240 })),
      weekVisits: fc.constant(null),
      canter: fc.boolean(),
    }),
  });
  it("never passes a cap, changes one thing by a minute at most, and ends at its goal", () => {
    let tried = 0;
    fc.assert(
      fc.property(any, (asked) => {
        if (rampProblem(asked) !== null) return;
        tried++;
        const steps = rampSteps(asked);
        expect(steps[0]).toMatchObject(asked.start);
        expect(steps.at(-1)).toMatchObject(asked.goal);
        for (const [i, step] of steps.entries()) {
          for (const part of [step.walk, step.trot, step.canter]) expect(part).toBeGreaterThanOrEqual(-1e-9);
          expect(sessionMinutesOf(step, asked.ways)).toBeLessThanOrEqual(asked.caps.sessionMinutes + 1e-9);
          if (!asked.caps.canter) expect(step.canter).toBe(0);
          const before = steps[i - 1];
          if (before === undefined) continue;
          const moved = ([before.walk - step.walk, before.trot - step.trot, before.canter - step.canter] as const)
            .map((by) => Math.abs(by))
            .filter((by) => by > 1e-9);
          expect(Math.max(0, ...moved)).toBeLessThanOrEqual(1 + 1e-9);
          const total = Math.abs(step.walk + step.trot + step.canter - before.walk - before.trot - before.canter) > 1e-9;
          const changes = [moved.length === 2 && !total, moved.length === 1 && total, step.obstacles !== before.obstacles].filter(
            Boolean,
          ).length;
          expect(changes).toBe(1);
          expect(moved.length === 0 || step.obstacles === before.obstacles).toBe(true);
        }
        // The calendar keeps the week's cap in every seven days, not only in calendar weeks.
        const planned = rampCalendar(
          steps,
          asked.ways,
          { step: 0, side: asked.ways === "turn" ? "L" : null },
          "2026-03-02",
          asked.sessionsAWeek,
        );
        for (const { day } of planned) {
          const week = planned.filter((one) => one.day >= day && daysBetween(day, one.day) < 7);
          expect(week.length).toBeLessThanOrEqual(asked.sessionsAWeek);
          if (asked.caps.weekMinutes !== null)
            expect(week.reduce((sum, one) => sum + one.minutes, 0)).toBeLessThanOrEqual(asked.caps.weekMinutes + 1e-9);
        }
        if (asked.ways === "turn") {
          const balance = planned.reduce((sum, { side, minutes: own }) => sum + (side === "L" ? own : -own), 0);
          expect(Math.abs(balance)).toBeLessThanOrEqual(Math.max(...planned.map((one) => one.minutes)) + 1e-9);
        }
      }),
      { numRuns: 2000 },
    );
    expect(tried).toBeGreaterThan(100);
  });
});

describe("where a ramp stands", () => {
  const steps = rampSteps(input);
  const on = (day: string, minutes: number, more: Partial<RampDone> = {}): RampDone => ({
    day,
    minutes,
    side: "both",
    poor: false,
    easy: true,
    ...more,
  });
  it("goes on after a good one, repeats after a poor or a short one, goes back after a break", () => {
    expect(rampPlace(steps, "both", [], "2026-03-02")).toMatchObject({ step: 0, reason: "The first step." });
    expect(rampPlace(steps, "both", [on("2026-03-02", 20)], "2026-03-04")).toMatchObject({ step: 1, side: null });
    expect(rampPlace(steps, "both", [on("2026-03-02", 20), on("2026-03-04", 20, { poor: true })], "2026-03-05").step).toBe(1);
    expect(rampPlace(steps, "both", [on("2026-03-02", 20), on("2026-03-04", 12)], "2026-03-05")).toMatchObject({
      step: 1,
      reason: "The last one was shorter than its step: the same step again.",
    });
    expect(rampPlace(steps, "both", [on("2026-03-02", 20, { easy: null })], "2026-03-05")).toMatchObject({
      step: 0,
      reason: "Nobody said whether the walk at the end was easy: the same step again.",
    });
    const three = [on("2026-03-02", 20), on("2026-03-04", 20), on("2026-03-06", 20)];
    expect(rampPlace(steps, "both", three, "2026-03-07").step).toBe(3);
    expect(rampPlace(steps, "both", three, "2026-03-20")).toMatchObject({ step: 2, reason: "14 days without circling: 1 back." });
    expect(rampPlace(steps, "both", three, "2026-04-03").step).toBe(1);
    expect(rampPlace(steps, "both", [...three, on("2026-03-20", 22)], "2026-03-21").step).toBe(3);
  });
  it("takes both ways for a step where they go in turn, and sends the next the other way", () => {
    const turn = { ...input, ways: "turn" as const };
    const own = rampSteps(turn);
    expect(rampPlace(own, "turn", [], "2026-03-02", { first: "R" }).side).toBe("R");
    const left = on("2026-03-02", 10, { side: "L" });
    expect(rampPlace(own, "turn", [left], "2026-03-03")).toMatchObject({ step: 0, side: "R" });
    expect(rampPlace(own, "turn", [left, on("2026-03-03", 10, { side: "R" })], "2026-03-04")).toMatchObject({ step: 1, side: "L" });
    expect(rampPlace(own, "turn", [left, on("2026-03-03", 10, { side: "L" })], "2026-03-04")).toMatchObject({ step: 0, side: "R" });
  });
  it("stays at its goal", () => {
    const days = Array.from({ length: 20 }, (_, i) => on(addDays("2026-03-02", 2 * i), 28));
    expect(rampPlace(steps, "both", days, "2026-04-11")).toMatchObject({ step: steps.length - 1, reason: "At the goal." });
  });
});

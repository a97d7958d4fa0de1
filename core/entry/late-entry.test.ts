import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testId } from "@/tests/support/session-writer";
import { reduceSession } from "../record/reduce-session";
import { summariseSession } from "../record/summary";
import { checkEvent } from "../schemas";
import { type LateBlock, type LateSession, lateBlockProblem, lateEvents, spreadEvenly } from "./late-entry";

const block = (change: Partial<LateBlock> = {}): LateBlock => ({
  behaviour: "plate",
  ladder: "l",
  version: 1,
  rung: 2,
  criterion: { sentence: "Any." },
  side: "L",
  kind: "work",
  planned: 8,
  minutes: 6,
  met: 5,
  try: 2,
  miss: 1,
  refused: 0,
  metAtLightest: 2,
  phase: 3,
  ...change,
});
const late = (blocks: LateBlock[]): LateSession => ({
  session: testId(1),
  recorder: "paper",
  load: testId(2),
  startWallMs: Date.UTC(2026, 4, 3, 16),
  horse: "Bo",
  handler: "An",
  place: "pen",
  method: "combined",
  blocks,
  better: "Softer.",
  next: "",
});
const ids = () => {
  let n = 100;
  return () => testId(n++);
};

describe("a session entered late", () => {
  it("keeps its counts, phases and minutes, marked late and without a single timing", () => {
    const events = lateEvents(late([block(), block({ side: "R", met: 3, metAtLightest: null, phase: null, minutes: 4 })]), ids());
    for (const event of events) expect(checkEvent(event).ok).toBe(true);
    const record = reduceSession(events);
    expect(record.trials).toHaveLength(14);
    expect(record.trials.filter(({ outcome }) => outcome === "met")).toHaveLength(8);
    expect(record.trials.filter(({ outcome, phase }) => outcome === "met" && phase === 1)).toHaveLength(2);
    expect(new Set(record.trials.map(({ logged }) => logged))).toEqual(new Set(["late"]));
    const summary = summariseSession(record);
    expect(summary).toMatchObject({ workSeconds: 600, late: true, medianInterResponseSeconds: null, dwell: { n: 0 } });
    expect(summary.measures.latency).toMatchObject({ answered: 0, censored: 0 });
    expect(summary.measures.releaseLag.median).toBeNull();
    expect(record.facts.find(({ type }) => type === "note")?.payload).toEqual({ text: "Softer.", about: "better" });
  });

  it("refuses what cannot be, with the reason", () => {
    expect(lateBlockProblem(block())).toBeNull();
    expect(lateBlockProblem(block({ met: 1.5 }))).toContain("whole numbers");
    expect(lateBlockProblem(block({ miss: -1 }))).toContain("whole numbers");
    expect(lateBlockProblem(block({ met: 0, metAtLightest: 0, try: 0, miss: 0 }))).toContain("Nothing is counted");
    expect(lateBlockProblem(block({ metAtLightest: 6 }))).toContain("lightest");
    expect(lateBlockProblem(block({ minutes: 0 }))).toContain("Minutes");
    expect(lateBlockProblem(block({ minutes: Number.NaN }))).toContain("Minutes");
    expect(lateBlockProblem(block({ met: 600 }))).toContain("At most");
    expect(() => lateEvents(late([block({ minutes: 0 })]), ids())).toThrow(RangeError);
  });

  it("takes nothing that would come out as something else than was written", () => {
    const criterion = {
      sentence: "On the left, at hand or lighter.",
      side: "left" as const,
      max_phase: 2,
      phases: ["look", "hand", "line"],
    };
    const onRung = (change: Partial<LateBlock>) => block({ criterion, side: "L", phase: 2, ...change });
    expect(lateBlockProblem(onRung({}))).toBeNull();
    expect(lateBlockProblem(onRung({ side: "R" }))).toBe("Rung 2 asks for the left. Choose that side, or the rung that was asked.");
    expect(lateBlockProblem(onRung({ phase: 3 }))).toBe("Rung 2 asks for hand or lighter: answers at a clearer cue are tries.");
    expect(lateBlockProblem(onRung({ phase: null }))).toMatch(/^At which cue were the others\?/);
    expect(lateBlockProblem(onRung({ phase: 1 }))).toBe("The others cannot be at the lightest cue too.");
    expect(lateBlockProblem(onRung({ phase: null, metAtLightest: null }))).toBeNull();
    expect(lateBlockProblem(onRung({ phase: 3, met: 2, metAtLightest: 2 }))).toBeNull();
    // Whatever is taken: counts and those at the lightest cue are on the record as they were typed.
    const count = fc.nat(9);
    fc.assert(
      fc.property(
        count,
        count,
        count,
        count,
        fc.option(count),
        fc.option(fc.integer({ min: 1, max: 3 })),
        (met, tries, miss, refused, light, phase) => {
          const typed = onRung({ met, try: tries, miss, refused, metAtLightest: light, phase });
          fc.pre(lateBlockProblem(typed) === null);
          const { measures } = summariseSession(reduceSession(lateEvents(late([typed]), ids())));
          expect(measures).toMatchObject({ met, try: tries, miss, refused });
          if (light !== null && met > 0) expect([measures.metAtLightest, measures.metWithPhase]).toEqual([light, met]);
        },
      ),
    );
  });

  it("spreads the outcomes evenly, making no run up", () => {
    expect(
      spreadEvenly({ met: 8, try: 0, miss: 2, refused: 0 })
        .map((o) => (o === "met" ? "+" : "."))
        .join(""),
    ).toBe("++.++++.++");
    fc.assert(
      fc.property(fc.nat(30), fc.nat(10), fc.nat(10), fc.nat(5), (met, tries, miss, refused) => {
        const list = spreadEvenly({ met, try: tries, miss, refused });
        expect(list).toHaveLength(met + tries + miss + refused);
        expect(list.filter((o) => o === "met")).toHaveLength(met);
        // The share met of the first half is that of the whole, to within one.
        const half = list.slice(0, Math.floor(list.length / 2)).filter((o) => o === "met").length;
        expect(Math.abs(half - met / 2)).toBeLessThanOrEqual(2);
      }),
    );
  });
});

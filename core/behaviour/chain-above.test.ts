import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import type { LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record/evidence-scope";
import { strandFromCatalogue } from "../strands";
import { chainState } from "./chain";

const NOW = Date.UTC(2026, 8, 1);
const PLAN = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3, 4].map((steps) => ({ values: { steps } })),
  mastery: { kind: "run", length: 3 },
} as const satisfies LadderPlan;

const on = (rung: number, text: string): EvidenceTrial[] =>
  [...text].map((one, i) => ({
    session: "s",
    handler: null,
    wallMs: NOW - 86_400_000 + i * 1000,
    ladder: "x",
    version: 1,
    rung,
    kind: "work",
    blockKey: "s:0",
    side: null,
    outcome: one === "+" ? "met" : "miss",
    phase: 1,
    ease: null,
    value: null,
    clean: true,
    comparable: true,
  }));

describe("a link of a chain", () => {
  const link = (rung: number, trials: readonly EvidenceTrial[]) =>
    chainState([{ ladder: "x", rung, plan: PLAN, version: 1, trials, name: "steps" }], "forward", { nowWallMs: NOW, maxAgeDays: 21 });

  it("that is held two rungs higher holds, and is not next to train", () => {
    const state = link(1, on(3, "+++"));
    expect(state.next).toBeNull();
    expect(state.links[0]).toMatchObject({ holds: true, of: 0, sentence: "Held: the ladder stands on rung 3." });
  });

  it("above where the ladder stands does not hold", () => {
    expect(link(4, on(3, "+++")).next).toBe(0);
    expect(link(3, on(3, "+..")).next).toBe(0);
    expect(link(2, []).next).toBe(0);
  });
});

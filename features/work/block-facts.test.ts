import { describe, expect, it } from "vitest";
import { type EvidenceTrial, reduceSession } from "@/core/record";
import { strandFromCatalogue } from "@/core/strands";
import { allowanceOn } from "@/core/welfare";
import { emptyDraft } from "@/tests/support/plan";
import { recorderStart } from "@/tests/support/recorder-start";
import { SessionWriter } from "@/tests/support/session-writer";
import { touchFacts } from "../touch/touch-facts";
import { asideFacts, blockFacts, isAside, planBlock, rungNumber, tallyReinforcement } from "./block-facts";

describe("touching in a session of work", () => {
  it("stands in a block of its own beside the plan, so that it counts for no rung", () => {
    const w = new SessionWriter();
    w.block(0, { rung: 2 });
    w.add(3, "trial", { outcome: "met" });
    const facts = [...asideFacts(recorderStart(), reduceSession(w.events)), ...touchFacts("neck", "L", "rope", 3)];
    expect(facts.map(({ type }) => type)).toEqual(["block.end", "block.start", "touch", "trial"]);
    for (const { type, payload } of facts) w.add(5, type, payload);
    const record = reduceSession(w.events);
    expect(isAside(recorderStart(), record)).toBe(true);
    expect(asideFacts(recorderStart(), record)).toEqual([]);
    expect(record.trials.map(({ blockIndex }) => blockIndex)).toEqual([0, 1]);
    expect(record.blocks[1]).toMatchObject({ ladder: null, number: 2, kind: "probe" });
    const plan = planBlock(recorderStart(), record);
    expect(plan === null ? null : rungNumber(recorderStart(), plan)).toBe(2);
  });

  it("stays in the ladder's own block where the ladder is about touch", () => {
    const strands = [strandFromCatalogue("touch-zone", "zone")];
    const touchy = recorderStart({ plan: { ...emptyDraft().plan, strands } });
    const w = new SessionWriter();
    w.block(0);
    expect(asideFacts(touchy, reduceSession(w.events))).toEqual([]);
  });
});

describe("tallyReinforcement", () => {
  it("gives no food where food is off, and keeps the rest", () => {
    const noFood = allowanceOn(
      [{ kind: "no-food", amount: null, detail: null, reason: "", givenBy: "", from: null, until: null }],
      "2026-06-01",
      null,
    );
    expect(tallyReinforcement(recorderStart(), null, 0, "met")).toEqual({ reinforced: 1, released: 1, marked: 1, reinforcers: 1 });
    expect(tallyReinforcement(recorderStart({ today: { allowance: noFood } }), null, 0, "met")).toEqual({
      reinforced: 1,
      released: 1,
      marked: 1,
      reinforcers: 0,
    });
  });

  it("follows the rung's own method and the list its block was opened with", () => {
    const { plan } = emptyDraft();
    const thinned = recorderStart({
      plan: { ...plan, rungs: plan.rungs.map((rung) => ({ ...rung, schedule: { kind: "variable", ratio: 3 }, method: "marker-food" })) },
    });
    const w = new SessionWriter();
    for (const { type, payload } of blockFacts(thinned, reduceSession([]), { rung: 1, side: "L", kind: "work" })) w.add(0, type, payload);
    const block = reduceSession(w.events).blocks[0] ?? null;
    const list = block?.criterion?.schedule?.list ?? [];
    const round = list.reduce((sum, ratio) => sum + ratio, 0);
    expect(round).toBe(36);
    const earned = Array.from({ length: round }, (_, before) => tallyReinforcement(thinned, block, before, "met"));
    expect(earned.filter(({ reinforced }) => reinforced === 1)).toHaveLength(list.length);
    expect(earned.every(({ released }) => released === 0)).toBe(true);
    expect(earned.findIndex(({ reinforced }) => reinforced === 1)).toBe((list[0] ?? 0) - 1);
  });

  it("counts no pieces where something else takes the place of food", () => {
    const { plan } = emptyDraft();
    const scratched = recorderStart({ plan: { ...plan, feeding: { ...plan.feeding, reinforcer: "rest" } } });
    expect(tallyReinforcement(scratched, null, 0, "met")).toMatchObject({ reinforced: 1, reinforcers: 0 });
  });
});

describe("blockFacts", () => {
  it("opens a rung whose bar follows the horse with its earlier values, of this version and rung only", () => {
    const { plan } = emptyDraft();
    const steps = strandFromCatalogue("steps", "steps");
    const trial = (value: number | null, rung = 1, version = 1) => ({
      ladder: "ladder-1",
      version,
      rung,
      kind: "work" as const,
      outcome: "met" as const,
      side: null,
      phase: 1,
      wallMs: 0,
      session: "earlier",
      blockKey: "earlier:0",
      value,
    });
    const following = recorderStart({
      plan: {
        ...plan,
        strands: [steps],
        workingStrandId: "steps",
        rungs: [{ values: { steps: 4 }, percentile: { lookBack: 4, wantedShare: 0.5 } }, { values: { steps: 5 } }],
      },
      earlier: [trial(1), trial(2), trial(9, 2), trial(8, 1, 2), trial(null), trial(3)] as unknown as EvidenceTrial[],
    });
    const facts = blockFacts(following, reduceSession([]), { rung: 1, side: null, kind: "work" });
    expect(facts.at(-1)?.payload).toMatchObject({
      criterion: { working: { percentile: { look_back: 4, wanted_share: 0.5, earlier: [1, 2, 3] } } },
    });
  });
});

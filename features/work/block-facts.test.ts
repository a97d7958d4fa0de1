import { describe, expect, it } from "vitest";
import { reduceSession } from "@/core/session";
import { strandFromCatalogue } from "@/core/strands";
import { allowanceOn } from "@/core/welfare";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter } from "@/tests/support/session-writer";
import { touchFacts } from "../touch/touch-facts";
import { asideFacts, isAside, planBlock, rungNumber, tallyReinforcement } from "./block-facts";
import type { RecorderStart } from "./types";

const start = (change: Partial<RecorderStart> = {}): RecorderStart => ({
  storeId: "s",
  sessionId: "s",
  horse: { id: "h", name: "Bo" },
  handler: "",
  place: "",
  battery: false,
  ladderId: "ladder-1",
  version: 1,
  behaviour: "plate",
  plan: emptyDraft().plan,
  next: { rung: 1, kind: "work", headline: "", reason: "", barred: null },
  earlier: [],
  allowance: allowanceOn([], "2026-06-01", null),
  cautions: [],
  zones: [],
  touches: [],
  events: [],
  clocks: {},
  position: 0,
  ...change,
});

describe("touching in a session of work", () => {
  it("stands in a block of its own beside the plan, so that it counts for no rung", () => {
    const w = new SessionWriter();
    w.block(0, { rung: 2 });
    w.add(3, "trial", { outcome: "met" });
    const facts = [...asideFacts(start(), reduceSession(w.events)), ...touchFacts("neck", "L", "rope", 3)];
    expect(facts.map(({ type }) => type)).toEqual(["block.end", "block.start", "touch", "trial"]);
    for (const { type, payload } of facts) w.add(5, type, payload);
    const record = reduceSession(w.events);
    expect(isAside(start(), record)).toBe(true);
    expect(asideFacts(start(), record)).toEqual([]);
    expect(record.trials.map(({ blockIndex }) => blockIndex)).toEqual([0, 1]);
    expect(record.blocks[1]).toMatchObject({ ladder: null, number: 2, kind: "probe" });
    const plan = planBlock(start(), record);
    expect(plan === null ? null : rungNumber(start(), plan)).toBe(2);
  });

  it("stays in the ladder's own block where the ladder is about touch", () => {
    const strands = [strandFromCatalogue("touch-zone", "zone")];
    const touchy = start({ plan: { ...emptyDraft().plan, strands } });
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
    expect(tallyReinforcement(start(), 0, "met")).toEqual({ reinforced: 1, released: 1, marked: 1, reinforcers: 1 });
    expect(tallyReinforcement(start({ allowance: noFood }), 0, "met")).toEqual({ reinforced: 1, released: 1, marked: 1, reinforcers: 0 });
  });
});

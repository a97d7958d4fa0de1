import { describe, expect, it } from "vitest";
import { type Chance, seededChance } from "@/core/chance";
import { barOf, type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { strandFromCatalogue } from "@/core/strands";
import { emptyDraft } from "@/tests/support/plan";
import { recorderStart } from "@/tests/support/recorder-start";
import { SessionWriter } from "@/tests/support/session-writer";
import { blockFacts } from "./block-facts";
import type { AtWork } from "./types";

/** Where the bar stands before the ask, as the recorder says it, held against what is derived after it. */

const VALUES: Readonly<Record<string, (chance: Chance) => number>> = {
  continuous: (chance) => chance() * 10,
  "steps of 1 to 4": (chance) => 1 + Math.floor(chance() * 4),
  "mostly equal": (chance) => (chance() < 0.9 ? 3 : 4),
  "all equal": () => 3,
};
const LOOK_BACKS = [3, 5, 10];
const SHARES = [0.2, 0.5, 0.6, 0.85];
const BLOCKS = 60;
const TRIALS = 10;

/** A ladder of one rung whose bar follows the horse's reach. */
const start = (lookBack: number, wantedShare: number, session: string, earlier: readonly EvidenceTrial[]): AtWork =>
  recorderStart({
    session: { id: session },
    behaviourInput: { ...EMPTY_BEHAVIOUR, name: "reach" },
    plan: {
      ...emptyDraft().plan,
      strands: [strandFromCatalogue("reach", "reach")],
      rungs: [{ values: { reach: 50 }, percentile: { lookBack, wantedShare } }],
      workingStrandId: "reach",
    },
    earlier,
  });

/** Many short blocks, each in a session of its own, that hand their values on: how many answers were met, of those that had a value before them. */
function work(lookBack: number, wantedShare: number, draw: (chance: Chance) => number, seed: number, draws?: number) {
  const chance = seededChance(seed);
  for (let i = 0; i < 20; i++) chance();
  let earlier: readonly EvidenceTrial[] = [];
  let met = 0;
  let told = 0;
  let of = 0;
  for (let block = 0; block < BLOCKS; block++) {
    const writer = new SessionWriter(`session-${seed}-${block}`);
    const now = start(lookBack, wantedShare, writer.session, earlier);
    for (const { type, payload } of blockFacts(now, reduceSession([]), { rung: 1, kind: "work", side: "L" })) {
      const plain = structuredClone(payload) as { criterion: { working: { percentile: { draw?: number } } } };
      if (draws !== undefined) plain.criterion.working.percentile.draw = draws;
      writer.add(0, type, plain as unknown as Record<string, unknown>);
    }
    for (let n = 0; n < TRIALS; n++) {
      const before = reduceSession(writer.events);
      const running = before.blocks.at(-1);
      if (running?.criterion == null) throw new Error("no block runs");
      const bar = barOf(running.criterion, running, before.trials);
      const value = draw(chance);
      // The recorder's two taps: got it, then how much it was.
      writer.add(5 + 10 * n, "trial", { outcome: "met", phase: 1, logged: "tally", reinforced: 1, released: 1, marked: 1, reinforcers: 1 });
      writer.add(6 + 10 * n, "measure", { strand: "reach", value, unit: "m" });
      if (bar === null) throw new Error("no bar");
      if (block === 0 && n === 0) continue;
      of++;
      if (bar.criterion === null ? bar.letsAll : value > bar.criterion || (value === bar.criterion && bar.equalCounts)) told++;
      const last = reduceSession(writer.events).trials.at(-1);
      if (last?.outcome === "met") met++;
      expect(last?.reinforced).toBe(last?.outcome === "met");
    }
    earlier = [...earlier, ...evidenceOfSession(writer.session, reduceSession(writer.events), null)];
  }
  return { met, told, of };
}

describe("the bar of the recorder over many short blocks", () => {
  let seed = 100;
  for (const [kind, draw] of Object.entries(VALUES))
    for (const lookBack of LOOK_BACKS)
      for (const share of SHARES) {
        const own = seed++;
        it(`reinforces ${share} of ${kind} values by the last ${lookBack}`, () => {
          const { met, told, of } = work(lookBack, share, draw, own);
          expect(met).toBe(told);
          // Four standard errors: one false alarm in some 16 000 settings.
          expect(Math.abs(met / of - share)).toBeLessThan(4 * Math.sqrt((share * (1 - share)) / of));
        });
      }

  it("leaves blocks of the first draw what they were told, wrong as it was", () => {
    // All equal: the first draw of a small seed is near 1, so no tie was ever given.
    const { met, told } = work(5, 0.5, () => 3, 7, 1);
    expect(met).toBe(told);
    expect(met).toBeLessThanOrEqual(1);
  });
});

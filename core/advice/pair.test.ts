import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter } from "@/tests/support/session-writer";
import type { LadderPlan } from "../ladder";
import { type EvidenceTrial, evidenceOfSession, packEvidence, reduceSession, unpackEvidence } from "../record";
import { DEFAULT_SETTINGS } from "../settings";
import { strandFromCatalogue } from "../strands";
import { lastHandler, nextStart, othersOf, trialsOfPair } from "./index";

/** Six rungs, one step more each; moves on at eight of ten. */
const PLAN = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3, 4, 5, 6].map((steps) => ({ values: { steps } })),
  mastery: { kind: "share", met: 8, of: 10, window: "moving" },
} as const satisfies LadderPlan;

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 8, 1);
const pooled = { ...DEFAULT_SETTINGS, poolHandlers: 1 };

const trials = (text: string, rung: number, handler: string | null, daysAgo: number): EvidenceTrial[] =>
  [...text].map((one, i) => ({
    session: `${handler}-${daysAgo}`,
    handler,
    wallMs: NOW - daysAgo * DAY + i * 1000,
    ladder: "x",
    version: 1,
    rung,
    kind: "work",
    blockKey: `${handler}-${daysAgo}:0`,
    side: null,
    outcome: one === "+" ? "met" : "miss",
    phase: 1,
    ease: null,
    value: null,
    clean: false,
    comparable: true,
  }));

const start = (list: readonly EvidenceTrial[], handler: string | null, settings = DEFAULT_SETTINGS) =>
  nextStart(
    {
      plan: PLAN,
      ladder: "x",
      version: 1,
      trials: [...list].sort((a, b) => a.wallMs - b.wallMs),
      nowWallMs: NOW,
      handler,
      names: new Map([["ana-id", "Ana"]]),
    },
    settings,
  );

describe("whose evidence it is", () => {
  const ana = trials("++++++++++", 4, "ana-id", 2);
  const bo = trials("+.+..", 2, "bo-id", 1);

  it("moves a pair on by its own asks alone", () => {
    expect(start([...ana, ...bo], "ana-id")).toMatchObject({ rung: 5, headline: "Start on rung 5" });
    expect(start([...ana, ...bo], "bo-id").rung).toBe(2);
    expect(start([...ana, ...bo], "bo-id").beside).toBe("Not counted here: with Ana rung 4, 10 of 10 last time.");
  });

  it("takes whoever worked it last where nobody is said", () => {
    expect(start([...ana, ...bo], null).rung).toBe(2);
    expect(lastHandler([...ana, ...bo])).toBe("bo-id");
  });

  it("starts a new pair a rung lower, or with a test of the first one, and says why", () => {
    expect(start(ana, "carla")).toMatchObject({
      rung: 4,
      kind: "work",
      reason: "First time together: with Ana it stands at rung 5. A rung lower, until it answers you too.",
    });
    expect(start(trials("+..", 1, "ana-id", 2), "carla")).toMatchObject({ rung: 1, kind: "probe" });
  });

  it("pools where the yard says so", () => {
    expect(start([...ana, ...trials("++++++++++", 5, "bo-id", 1)], "ana-id", pooled).rung).toBe(6);
    expect(start(ana, "carla", pooled)).toMatchObject({ rung: 5 });
    expect(start(ana, "carla", pooled).beside).toBeUndefined();
  });

  it("counts asks of nobody in particular for everybody", () => {
    expect(start(trials("++++++++++", 4, null, 2), "carla").rung).toBe(5);
  });

  it("names others by their last session, the newest first", () => {
    expect(othersOf([...trials("+", 1, "b", 9), ...trials("+.", 2, "b", 5), ...trials("..", 3, "c", 4)], "a")).toEqual([
      { handler: "c", rung: 3, met: 0, of: 2 },
      { handler: "b", rung: 2, met: 1, of: 2 },
    ]);
  });

  // A second way to the same: who handled is read off the log tap by tap.
  it("is told from a session in which people take turns, on random logs", () => {
    const step = fc.record({
      what: fc.constantFrom("trial", "trial", "trial", "ana", "bo", "watch", "ask"),
      met: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), fc.constantFrom("owner-id", null), (steps, whose) => {
        const w = new SessionWriter();
        w.block(0);
        let handler: string | null = whose;
        const naive: [string | null, string][] = [];
        steps.forEach(({ what, met }, i) => {
          const at = i * 5 + 1;
          if (what === "trial") {
            w.add(at, "trial", { outcome: met ? "met" : "miss" });
            naive.push([handler, met ? "met" : "miss"]);
          } else if (what === "ask") {
            w.add(at, "ask", { phase: 1 });
            w.add(at + 1, "response", { answer: "met" });
            w.add(at + 2, "release");
            naive.push([handler, "met"]);
          } else if (what === "watch") w.add(at, "with", { who: "Dee", person: "dee-id", part: "watches" });
          else {
            w.add(at, "with", what === "ana" ? { who: "Ana", person: "ana-id", part: "handles" } : { who: "Bo", part: "handles" });
            handler = what === "ana" ? "ana-id" : "Bo";
          }
        });
        const evidence = evidenceOfSession("s", reduceSession([...w.events].reverse()), whose);
        expect(evidence.map((trial) => [trial.handler, trial.outcome])).toEqual(naive);
        const mine = trialsOfPair(evidence, "ana-id", DEFAULT_SETTINGS).map((trial) => trial.outcome);
        expect(mine).toEqual(naive.filter(([who]) => who === "ana-id" || who === null).map(([, outcome]) => outcome));
        expect(unpackEvidence(packEvidence(evidence))).toEqual(evidence);
      }),
      { numRuns: 80 },
    );
  });
});

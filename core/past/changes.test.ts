import { describe, expect, it } from "vitest";
import { seededChance } from "@/core/chance";
import { type LadderPlan, PLAN_DEFAULTS } from "@/core/ladder";
import type { Strand } from "@/core/strands";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";
import { beforeARung, changeCosts, harderStrands, raisesOf, type StallFacts, savingsOf, stallOf } from ".";

const strand = (id: string, more: Partial<Strand>): Strand => ({
  id,
  key: "stay",
  name: id,
  kind: "number",
  unit: "s",
  levels: [],
  harder: "more",
  ...more,
});
const PLAN: LadderPlan = {
  ...PLAN_DEFAULTS,
  method: "combined",
  strands: [
    strand("stay", {}),
    strand("reach", { key: "reach", unit: "m" }),
    strand("cue", { key: "lightness", unit: "", harder: "less" }),
  ],
  rungs: [
    { values: { stay: 1, reach: 1, cue: 3 } },
    { values: { stay: 2, reach: 1, cue: 3 } },
    { values: { stay: 2, reach: 2, cue: 3 } },
    { values: { stay: 4, reach: 3, cue: 2 } },
  ],
  phases: [
    { label: "looks", kind: "body", profile: "steady", dwellSeconds: 2 },
    { label: "points", kind: "point", profile: "steady", dwellSeconds: 2 },
    { label: "touches", kind: "touch", profile: "steady", dwellSeconds: 2 },
  ] as never,
  maximumSeconds: 10,
  mastery: { kind: "share", met: 4, of: 5, window: "moving" },
  schedule: { kind: "every" },
  offers: "reinforce",
  workingStrandId: "stay",
  plannedRepetitions: 10,
};
const planOf = () => PLAN;
const on = (rung: number, trials: string, day: number, more: Partial<WrittenSession> = {}): WrittenSession => ({
  day,
  trials,
  all: { rung },
  ...more,
});

describe("a step up", () => {
  it("names the strands that got harder, eased ones aside", () => {
    expect(harderStrands(PLAN, 1, 2).map(({ key }) => key)).toEqual(["stay"]);
    expect(harderStrands(PLAN, 3, 4).map(({ key }) => key)).toEqual(["stay", "reach", "lightness"]);
    expect(harderStrands(PLAN, 4, 3)).toEqual([]);
    expect(harderStrands(PLAN, 4, 9)).toEqual([]);
  });

  it("costs the asks before as many in a row as good as the ones before, counted by hand", () => {
    // Before: 8 of the last 10. After: x x x x then right ones; the first ten with 8 right begin after 2 asks.
    const past = writePast([on(1, "xxmmmmmmmm", 0), on(2, "xxxxmmmmmmmmmm", 1)]);
    const [raise] = raisesOf(past, planOf);
    expect(raise).toMatchObject({
      from: 1,
      to: 2,
      before: { met: 8, of: 10 },
      after: { met: 6, of: 10 },
      asks: 14,
      cost: 2,
      wentBack: false,
    });
    expect(raise?.harder.map(({ key }) => key)).toEqual(["stay"]);
  });

  it("is none where either hand holds under five, or where the rung was known already", () => {
    expect(raisesOf(writePast([on(1, "mmmm", 0), on(2, "mmmmmm", 1)]), planOf)).toEqual([]);
    const back = writePast([on(1, "mmmmmm", 0), on(2, "xxxxxx", 1), on(1, "mmmmmm", 2), on(2, "mmmmmm", 3)]);
    expect(raisesOf(back, planOf).map(({ from, to, wentBack, cost }) => [from, to, wentBack, cost])).toEqual([[1, 2, true, null]]);
  });

  it("passes over the easy one a session ends on, and keeps sides apart", () => {
    const past = writePast([on(1, "mmmmmm", 0), on(2, "xxx", 1), on(1, "m", 1.1), on(2, "mmmmmmm", 2)]);
    expect(raisesOf(past, planOf)).toMatchObject([{ to: 2, asks: 10, wentBack: false, cost: 3 }]);
    const sides = writePast([on(1, "mmmmmm", 0, { all: { rung: 1, side: "L" } }), on(2, "mmmmmm", 1, { all: { rung: 2, side: "R" } })]);
    expect(raisesOf(sides, planOf)).toEqual([]);
  });

  it("knows whether it went against the word", () => {
    const said = (word: string, taken: boolean) =>
      raisesOf(writePast([on(1, "mmmmmm", 0), on(2, "mmmmmm", 1, { facts: { words: [{ ms: 0, word, taken }] } })]), planOf)[0];
    expect(said("Stay", false)).toMatchObject({ againstWord: true, word: { word: "Stay" } });
    expect(said("Raise", true)).toMatchObject({ againstWord: false });
    expect(said("Raise", false)).toMatchObject({ againstWord: false });
    expect(raisesOf(writePast([on(1, "mmmmmm", 0), on(2, "mmmmmm", 1)]), planOf)[0]).toMatchObject({ word: null, againstWord: false });
  });
});

describe("what a change costs", () => {
  const raise = (kind: "stay" | "reach", cost: number | null, asks = 40) =>
    ({ harder: [{ key: kind, name: kind, from: 1, to: 2, unit: "", kind }], cost, asks }) as never;
  it("is drawn towards all raises, and said before a rung with a split where it is dear", () => {
    const costs = changeCosts(
      [1, 0, 2, 1, 1, 2].map((cost) => raise("reach", cost)).concat([60, 50, 70, 55, 64].map((cost) => raise("stay", cost))),
    );
    const stay = costs?.kinds.find(({ kind }) => kind === "stay");
    const reach = costs?.kinds.find(({ kind }) => kind === "reach");
    expect(stay?.asks).toBeGreaterThan(45);
    expect(stay?.asks).toBeLessThan(stay?.ownAsks ?? 0);
    expect(reach?.asks).toBeGreaterThan(reach?.ownAsks ?? 9);
    expect(beforeARung(PLAN, 2, costs)).toMatch(/^A step in stay cost this horse about \d\d asks \(\d+ to \d+, from 5\)\. Split it\.$/);
    expect(beforeARung(PLAN, 3, costs)).toMatch(/^A step in reach cost this horse about \d asks? \(\d to \d, from 6\)\.$/);
    expect(beforeARung(PLAN, 1, costs)).toBeNull();
    expect(beforeARung(PLAN, 2, null)).toBeNull();
  });

  it("counts a step never as good again with what was asked, and leaves steps of two strands out", () => {
    const two = { ...(raise("stay", 3) as object), harder: [{ kind: "stay" }, { kind: "reach" }] } as never;
    const costs = changeCosts([raise("stay", null, 31), raise("stay", 31), raise("reach", 31), raise("reach", 31), two]);
    expect(costs?.raises).toBe(4);
    expect(costs?.kinds.find(({ kind }) => kind === "stay")).toMatchObject({ open: 1, raises: 2 });
    expect(costs?.asks).toBeCloseTo(31, 9);
    expect(changeCosts([raise("stay", 3), raise("reach", 3), raise("stay", 3)])).toBeNull();
  });
});

describe("savings", () => {
  const both = (rungs: readonly number[], left: string, right: string) =>
    writePast(
      rungs.flatMap((rung, i) => [
        on(rung, left, 2 * i, { all: { rung, side: "L" } }),
        on(rung, right, 2 * i + 1, { all: { rung, side: "R" } }),
      ]),
    );
  it("are one less the ratio of asks to the rule, worked out by hand", () => {
    // Four of the last five after 8 asks first and after 5 then: ln(5/8) thrice and no spread.
    const savings = savingsOf("side", both([1, 2, 3], "xxxxmmmm", "mmmmm"), planOf);
    expect(savings.rungs.map(({ firstAsks, secondAsks, first, second }) => [firstAsks, secondAsks, first, second])).toEqual(
      [1, 2, 3].map(() => [8, 5, "L", "R"]),
    );
    expect(savings.saving).toBeCloseTo(1 - 5 / 8, 12);
    // Three rungs alike are still three coins: p = 2/8.
    expect(savings.p).toBeCloseTo(0.25, 12);
    expect(savings.sentence).toBe("The second side: no saving shown yet over 3 rungs.");
    const more = savingsOf("side", both([1, 2, 3, 4, 5, 6, 7], "xxxxxmmmm", "mmmmm"), () => PLAN);
    expect(more.sentence).toMatch(/^The second side takes 44 % fewer asks, over 7 rungs\./);
    const worse = savingsOf("side", both([1, 2, 3, 4, 5, 6, 7], "mmmmm", "xxxxxmmmm"), () => PLAN);
    expect(worse.sentence).toMatch(/more asks, over 7 rungs\. Begin a rung lower\.$/);
  });

  it("look at a second person and at rest likewise, and say where there is none", () => {
    const people = writePast([on(1, "xxmmmm", 0, { handler: "ana" }), on(1, "mmmmm", 1, { handler: "bea" })]);
    expect(savingsOf("person", people, planOf)).toMatchObject({ rungs: [{ first: "ana", second: "bea", firstAsks: 6, secondAsks: 5 }] });
    const rest = writePast([on(1, "xxmmmm", 0), on(1, "mmmmm", 20)]);
    expect(savingsOf("rest", rest, planOf)).toMatchObject({ rungs: [{ second: "20", firstAsks: 6, secondAsks: 5 }] });
    expect(savingsOf("rest", writePast([on(1, "xxmmmm", 0), on(1, "mmmmm", 13)]), planOf).rungs).toEqual([]);
    expect(savingsOf("person", rest, planOf).sentence).toBe("No rung was learned with two people in this span.");
    // What was only begun the second time says nothing; what went on as long counts, as open.
    expect(savingsOf("rest", writePast([on(1, "xxmmmm", 0), on(1, "xxx", 20)]), planOf).rungs).toEqual([]);
    expect(savingsOf("rest", writePast([on(1, "xxmmmm", 0), on(1, "xxxxxxx", 20)]), planOf).rungs).toMatchObject([
      { open: true, secondAsks: 7 },
    ]);
  });

  it("are shown where there are none at most as often as they say", () => {
    const chance = seededChance(7);
    let shown = 0;
    for (let run = 0; run < 200; run++) {
      const row = () => Array.from({ length: 30 }, () => (chance() < 0.7 ? "m" : "x")).join("");
      const past = writePast(
        [1, 2, 3, 4, 5, 6, 7].flatMap((rung, i) => [
          on(rung, row(), 2 * i, { all: { rung, side: "L" } }),
          on(rung, row(), 2 * i + 1, { all: { rung, side: "R" } }),
        ]),
      );
      if (!/no saving shown|too few/.test(savingsOf("side", past, planOf).sentence)) shown++;
    }
    expect(shown).toBeLessThanOrEqual(20);
  });
});

describe("a stall", () => {
  const FACTS: StallFacts = {
    plan: PLAN,
    foundations: ["steps back: shown in March, check"],
    sameCue: ["send"],
    care: ["farrier due"],
    lateReleaseSeconds: 0.5,
  };
  const six = (rungs: readonly number[], phases: readonly number[], more: Partial<WrittenSession> = {}) =>
    writePast(
      rungs.map((rung, i) => ({
        day: i * 2,
        trials: "mmxmxxxmmm",
        all: { rung, phase: phases[i] ?? 1, latencySeconds: 2, releaseLagSeconds: 0.9 },
        ...more,
      })),
    );
  it("is said where rung, lightness and time gained nothing, with the checks in order", () => {
    const stall = stallOf(six([1, 2, 3, 3, 3, 3], [1, 1, 1, 1, 1, 1]), FACTS);
    expect(stall?.sentence).toBe(
      "No gain over the last 3 sessions beside the 3 before: rung 3, reached before; at the lightest cue 100 %, was 100 %; half answered after 2.0 s, was 2.0 s.",
    );
    expect(stall?.checks.map(({ what, finding }) => [what, finding])).toEqual([
      ["pain and kit", "look here"],
      ["what it rests on", "look here"],
      ["rung too big", "look here"],
      ["cue clash", "look here"],
      ["reinforcer", "not seen"],
      ["release late", "look here"],
      ["length and distance", "not seen"],
    ]);
  });

  it("is none where any of them gained, at the held end of a ladder, or over fewer than six", () => {
    expect(stallOf(six([1, 1, 1, 1, 1, 2], [1, 1, 1, 1, 1, 1]), FACTS)).toBeNull();
    expect(stallOf(six([1, 1, 1, 1, 1, 1], [2, 2, 2, 2, 1, 1]), FACTS)).toBeNull();
    expect(stallOf(six([1, 1, 1, 1, 1], [1, 1, 1, 1, 1]), FACTS)).toBeNull();
    const end = (trials: string) => stallOf(writePast(Array.from({ length: 6 }, (_, day) => ({ day, trials, all: { rung: 4 } }))), FACTS);
    expect(end("mmmmmm")).toBeNull();
    expect(end("mxmxmx")).not.toBeNull();
  });

  it("says what was not recorded rather than that it is well", () => {
    const bare = { ...FACTS, foundations: null, care: [] };
    const past = writePast(Array.from({ length: 6 }, (_, day) => ({ day, trials: "mxmxmx", all: { reinforced: null } })));
    const found = Object.fromEntries((stallOf(past, bare)?.checks ?? []).map(({ what, finding }) => [what, finding]));
    expect(found).toMatchObject({
      "pain and kit": "not recorded",
      "what it rests on": "not recorded",
      reinforcer: "not recorded",
      "release late": "not recorded",
    });
  });
});

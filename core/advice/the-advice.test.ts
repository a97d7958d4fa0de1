import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { PLAN_DEFAULTS } from "../ladder";
import type { MasteryRule } from "../mastery";
import { type EvidenceTrial, evidenceForRung } from "../record/evidence-scope";
import { DEFAULT_SETTINGS } from "../settings";
import { strandFromCatalogue } from "../strands";
import { allowanceOn, type Restriction } from "../welfare";
import { type AdviceInput, likelyShareWords, theAdvice } from ".";
import { nextStart } from "./next-start";

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 5, 20);

/** "+" met, "~" try, "." miss, "!" refused; lower-case l and r before a sign set the side. */
function trials(text: string, change: Partial<EvidenceTrial> = {}): EvidenceTrial[] {
  const outcome = { "+": "met", "*": "met", "~": "try", ".": "miss", "!": "refused" } as const;
  const list: EvidenceTrial[] = [];
  let side: "L" | "R" | null = null;
  for (const c of text) {
    if (c === "l" || c === "r") {
      side = c === "l" ? "L" : "R";
      continue;
    }
    list.push({
      session: "s",
      handler: null,
      wallMs: NOW - DAY + list.length * 1000,
      ladder: "x",
      version: 1,
      rung: 3,
      kind: "work",
      blockKey: "s:0",
      side,
      outcome: outcome[c as keyof typeof outcome],
      phase: c === "*" ? 1 : 2,
      value: null,
      ease: null,
      clean: c === "*",
      comparable: true,
      ...change,
    });
  }
  return list;
}

const EIGHT_OF_TEN: MasteryRule = { kind: "share", met: 8, of: 10, window: "moving" };

const input = (block: string, change: Partial<AdviceInput> = {}): AdviceInput => ({
  rule: EIGHT_OF_TEN,
  bothSides: false,
  rung: 3,
  rungCount: 8,
  earlier: [],
  block: trials(block),
  counts: true,
  minutesSinceRest: 2,
  trialsSinceRest: 5,
  workMinutes: 5,
  ...change,
});

describe("theAdvice", () => {
  it("tells a trainer on the right the right's own numbers, and on the left the left's", () => {
    // Left: two of five; right: four of six.
    const both = "l+..+.r++.++.";
    expect(theAdvice(input(both, { bothSides: true, running: "R" })).reason).toMatch(/^4 of the last 6 on the right\./);
    expect(theAdvice(input(both, { bothSides: true, running: "L" })).reason).toMatch(/^2 of the last 5 on the left\./);
  });

  it.each<[string, string, Partial<AdviceInput>, string]>([
    ["nothing yet", "", {}, "Start"],
    ["a good start", "++++", {}, "Repeat"],
    ["nine met, too few", "+++++++++", {}, "Repeat"],
    ["the rule met", "++++++++++", {}, "Up"],
    ["the rule met with a miss and a try", "+.+++~++++", {}, "Up"],
    ["seven of ten", "+.+.+~++++", {}, "Repeat"],
    ["met together with earlier evidence", "++", { earlier: trials("++++++++") }, "Up"],
    ["a warm-up block does not count", "++++++++++", { counts: false }, "Repeat"],
    ["the top rung met", "++++++++++", { rung: 8 }, "Finish"],
    ["three misses running", "++...", {}, "Go back"],
    ["three refusals running", "++!!!", {}, "Go back"],
    ["a miss, a refusal, a miss", "++.!.", {}, "Go back"],
    ["two misses running", "++..", {}, "Repeat"],
    ["four of the last seven", ".+.+.+.", {}, "Go back"],
    ["tries are not misses", "~~~~~~", {}, "Repeat"],
    ["both sides, one lacking", `l${"+".repeat(10)}r++++`, { bothSides: true }, "Repeat"],
    ["both sides, both there", `l${"+".repeat(10)}r${"+".repeat(10)}`, { bothSides: true }, "Up"],
    ["five in a row", "+++++", { rule: { kind: "run", length: 5 } }, "Up"],
    ["four in a row", "++++", { rule: { kind: "run", length: 5 } }, "Repeat"],
    ["sure enough", "+++++", { rule: { kind: "posterior", target: 0.8, confidence: 0.85, least: 5 } }, "Up"],
    ["not sure enough", "+++++", { rule: { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 } }, "Repeat"],
    ["the first clean one", ".+*", { rule: { kind: "first-clean" } }, "Finish"],
    ["met but not clean", ".++", { rule: { kind: "first-clean" } }, "Repeat"],
    ["eight minutes without a break", "++", { minutesSinceRest: 8.4 }, "Break"],
    ["thirty asks without a break", "++", { trialsSinceRest: 30 }, "Break"],
    ["twenty minutes of work", "++", { workMinutes: 20 }, "Finish"],
    ["rest goes before finish", "++", { workMinutes: 25, minutesSinceRest: 9 }, "Break"],
    ["rest goes before ease", "...", { minutesSinceRest: 9 }, "Break"],
    ["ease goes before raise", "...", { earlier: trials("+".repeat(30)) }, "Go back"],
  ])("%s", (_, block, change, word) => {
    expect(theAdvice(input(block, change)).word).toBe(word);
  });

  it("stands for three trials before a lower word takes its place", () => {
    expect(theAdvice(input("...")).word).toBe("Go back");
    expect(theAdvice(input("...+")).word).toBe("Go back");
    expect(theAdvice(input("...++")).word).toBe("Go back");
    expect(theAdvice(input("...+++")).word).toBe("Repeat");
  });

  it("gives way at once to a higher one", () => {
    expect(theAdvice(input("...", { earlier: trials("++++++++++") })).word).toBe("Go back");
  });

  it("gives its reason with its numbers", () => {
    expect(theAdvice(input("++++++.+")).reason).toBe("7 of the last 8. Two more right in a row would get you there.");
    expect(theAdvice(input("++++++++++"))).toEqual({
      word: "Up",
      why: "rule",
      reason: "10 of 10 met, the rule is 8 of the last 10; its true share is likelier 8 to 10 in 10. Go to rung 4.",
      numbers: { met: 10, of: 10 },
      rung: 4,
    });
    expect(theAdvice(input("...")).reason).toBe("Three in a row went wrong. Go back to rung 2.");
    expect(theAdvice(input("...", { rung: 1 })).reason).toContain("Ask for less");
    expect(theAdvice(input(`l${"+".repeat(10)}r+.`, { bothSides: true })).reason).toContain("on the right");
  });

  it("asks for grades of the movement where the rung does, and goes by them", () => {
    const movement = { least: 2, words: ["stiff", "short", "even", "free", "fluid"] };
    const graded = (grade: number) => trials("++++++++++", { movement: grade });
    expect(theAdvice(input("++++++++++", { movement })).reason).toBe(
      "10 of 10 met. Say how the next ones move: 0 of 3 said so far. They should be at least even.",
    );
    expect(theAdvice({ ...input("", { movement }), block: graded(1) }).reason).toContain("Not even yet on each of the last 3.");
    expect(theAdvice({ ...input("", { movement }), block: graded(2) }).word).toBe("Up");
  });

  it("cries Ease in at most one ten-trial block in ten at a true success of 0.8", () => {
    // Every sequence of ten, weighed exactly: what is not met is a miss, the worst case for the rule.
    let cried = 0;
    for (let mask = 0; mask < 1024; mask++) {
      let chance = 1;
      let text = "";
      for (let i = 0; i < 10; i++) {
        const miss = ((mask >> i) & 1) === 1;
        chance *= miss ? 0.2 : 0.8;
        text += miss ? "." : "+";
      }
      const ever = Array.from(
        { length: 10 },
        (_, n) => theAdvice(input(text.slice(0, n + 1), { rung: 3 }), DEFAULT_SETTINGS).word,
      ).includes("Go back");
      if (ever) cried += chance;
    }
    expect(cried).toBeGreaterThan(0.05);
    expect(cried).toBeLessThanOrEqual(0.1);
    expect(cried).toBeCloseTo(0.0888, 4);
  });
});

describe("what a rule that was met says of the share", () => {
  it("is the middle of what the last twenty leave open", () => {
    // Quantiles of Beta(9, 3), from memory of standard tables: 10 % at 0.583, 90 % at 0.895.
    expect(likelyShareWords(trials("++.+++.+++").map(({ outcome }) => outcome === "met"))).toBe("its true share is likelier 6 to 9 in 10");
    expect(likelyShareWords(new Array(40).fill(true))).toBe("its true share is likelier 9 to 10 in 10");
  });
});

describe("evidenceForRung", () => {
  const scope = { ladder: "x", version: 1, rung: 3, nowWallMs: NOW, maxAgeDays: 21 };

  it("joins sessions on the same rung and version", () => {
    expect(evidenceForRung([...trials("++", { session: "a" }), ...trials("+", { session: "b" })], scope)).toHaveLength(3);
  });

  it("starts again after leaving the rung", () => {
    expect(evidenceForRung([...trials("+++"), ...trials("+", { rung: 4 }), ...trials("++")], scope)).toHaveLength(2);
    expect(evidenceForRung([...trials("+++"), ...trials("+", { rung: 4 })], scope)).toHaveLength(0);
    expect(evidenceForRung([...trials("+++"), ...trials("+", { rung: 2 }), ...trials("+")], scope)).toHaveLength(1);
  });

  it("goes on where a session only ended on an easier rung, and not past a session spent there", () => {
    const end = [...trials("+++"), ...trials("+", { rung: 2 })];
    expect(evidenceForRung(end, scope)).toHaveLength(3);
    expect(evidenceForRung([...end, ...trials("++", { session: "t" })], scope)).toHaveLength(5);
    expect(evidenceForRung([...end, ...trials("++", { session: "t", rung: 2 }), ...trials("+", { session: "u" })], scope)).toHaveLength(1);
  });

  it("passes over warm-up, sure and probe blocks, which neither count nor interrupt", () => {
    const list = [
      ...trials("++"),
      ...trials("+", { kind: "probe", rung: 4 }),
      ...trials("+", { kind: "sure", rung: 1 }),
      ...trials("+", { kind: "warm-up" }),
      ...trials("+"),
    ];
    expect(evidenceForRung(list, scope)).toHaveLength(3);
  });

  it("leaves out what is too old, another version and another ladder", () => {
    expect(evidenceForRung([...trials("++", { wallMs: NOW - 22 * DAY }), ...trials("+")], scope)).toHaveLength(1);
    expect(evidenceForRung([...trials("++"), ...trials("+", { version: 2 })], scope)).toHaveLength(0);
    expect(evidenceForRung([...trials("++"), ...trials("+++", { ladder: "y", rung: 9 })], scope)).toHaveLength(2);
  });
});

describe("nextStart", () => {
  const strands = [strandFromCatalogue("steps", "steps"), strandFromCatalogue("side", "side")];
  const plan = {
    method: "combined" as const,
    strands,
    rungs: [1, 2, 3, 4].map((steps) => ({ values: { steps, side: steps > 2 ? "both" : "left" } })),
    phases: [],
    maximumSeconds: 20,
    mastery: EIGHT_OF_TEN,
    schedule: { kind: "every" as const },
    ...PLAN_DEFAULTS,
    offers: "ignore" as const,
    workingStrandId: null,
    plannedRepetitions: 8,
  };
  const next = (list: EvidenceTrial[], version = 1) => nextStart({ plan, ladder: "x", version, trials: list, nowWallMs: NOW });

  it.each<[string, EvidenceTrial[], number, string]>([
    ["nothing worked", [], 1, "Start on rung 1"],
    ["the rule not met", trials("+.+", { rung: 2 }), 2, "Stay on rung 2"],
    ["the rule met", trials("++++++++++", { rung: 2 }), 3, "Start on rung 3"],
    ["met on one side only", trials("l++++++++++r+", {}), 3, "Stay on rung 3"],
    ["met on both sides", trials("l++++++++++r++++++++++", {}), 4, "Start on rung 4"],
    ["the top met", trials("l++++++++++r++++++++++", { rung: 4 }), 4, "Keep rung 4"],
    ["failing at the end", trials("+++....", { rung: 2 }), 1, "Go back to rung 1"],
    ["three weeks ago and more", trials("++++++++++", { rung: 2, wallMs: NOW - 30 * DAY }), 2, "Test rung 2 first"],
  ])("%s", (_, list, rung, headline) => {
    expect(next(list)).toMatchObject({ rung, headline });
  });

  it("says that a changed ladder has no trials yet", () => {
    expect(next(trials("++++++++++", { rung: 2 }), 2)).toMatchObject({
      rung: 2,
      reason: expect.stringContaining("version 2 has no trials yet"),
    });
  });

  it("names the weaker side only where one is known to be weaker", () => {
    const side = (weakerSide: "L" | "R" | null) =>
      nextStart({ plan, ladder: "x", version: 1, trials: trials("l+.+.r++++++"), nowWallMs: NOW, weakerSide }).reason;
    expect(side("L")).toContain("The left is the weaker side: give it more, and take turns in which side begins.");
    expect(side("R")).toContain("The right is the weaker side");
    expect(side(null)).not.toContain("side");
  });

  describe("judges as the recorder did", () => {
    const block = (text: string, rung: number, n: number, session = "s") => trials(text, { rung, session, blockKey: `${session}:${n}` });

    it("goes back where Ease stood when the rung was left, also where an easier one ended the session", () => {
      // 3 of 15 on rung 3, then rung 2 to end on: leaving the rung does not wipe what was seen there.
      expect(next([...block("+.+..+.........", 3, 0), ...block("++++", 2, 1)])).toMatchObject({
        rung: 2,
        reason: expect.stringContaining("Rung 3 went 3 of 15 last time."),
      });
      expect(next(block("+.+..+.........", 3, 0))).toMatchObject({ rung: 2, headline: "Go back to rung 2" });
    });

    it("comes back to the rung it was going well on, whatever easier one the session ended on", () => {
      expect(next([...block("++.++~+", 3, 0), ...block("++", 1, 1)])).toMatchObject({ rung: 3, headline: "Stay on rung 3" });
    });

    it("says Split where the session said it, though the rung below was met after it", () => {
      const twice = [...block("++...", 3, 0), ...block("+++", 2, 1), ...block("+....", 3, 2)];
      expect(next(twice).headline).toBe("Stay on rung 2");
      expect(next([...twice, ...block("++++++++++", 2, 3)])).toMatchObject({ rung: 2, headline: "Add a step below rung 3" });
      expect(next([...block("++...", 3, 0), ...block("+....", 3, 2)])).toMatchObject({ rung: 2, headline: "Add a step below rung 3" });
    });

    it("says no Raise where the ease the rung asks for was not shown", () => {
      const eased = {
        ...plan,
        strands: [...plan.strands, strandFromCatalogue("ease", "ease")],
        rungs: plan.rungs.map((rung) => ({ ...rung, values: { ...rung.values, ease: "soft" } })),
      };
      const list = trials("++++++++++", { rung: 2 });
      expect(nextStart({ plan: eased, ladder: "x", version: 1, trials: list, nowWallMs: NOW }).headline).toBe("Stay on rung 2");
      expect(next(list).headline).toBe("Start on rung 3");
    });
  });
});

describe("limits of advice and age", () => {
  const cap = (value: number) => ({ value, why: "Advice of the veterinarian." });
  it("stop the session before a rest is due, with where they come from", () => {
    const limits = { minutes: cap(5), trials: null, sessionTrials: 3 };
    expect(theAdvice(input("+++", { workMinutes: 5, minutesSinceRest: 9, limits }))).toMatchObject({
      word: "Stop",
      reason: "5 minutes of work, the most for today. Advice of the veterinarian. End here.",
    });
    expect(theAdvice(input("+++", { workMinutes: 2.9, limits })).word).toBe("Repeat");
    expect(theAdvice(input("+++", { limits: { minutes: null, trials: cap(12), sessionTrials: 12 } }))).toMatchObject({ word: "Stop" });
    expect(theAdvice(input("+++", { limits: { minutes: null, trials: cap(12), sessionTrials: 11 } })).word).toBe("Repeat");
  });
});

describe("a next rung that is closed today", () => {
  it("is never raised to: the word is Finish, with the advice it rests on", () => {
    const nextBarred = "No faster gait than walk: stiff.";
    expect(theAdvice(input("++++++++++")).word).toBe("Up");
    const closed = theAdvice(input("++++++++++", { nextBarred }));
    expect(closed.word).toBe("Finish");
    expect(closed.reason).toContain(nextBarred);
    expect(theAdvice(input("++++", { nextBarred })).word).toBe("Repeat");
  });
});

describe("the cap on circling", () => {
  it("brings Stop with the minutes of the ladders that circle, and says where it comes from", () => {
    const circling = (minutes: number) => ({
      minutes: null,
      trials: null,
      sessionTrials: 3,
      circling: { left: { value: 8, why: "A setting of this yard." }, minutes },
    });
    expect(theAdvice(input("+++", { limits: circling(8.2) }))).toMatchObject({
      word: "Stop",
      reason: "8 minutes of circling, the most for now. A setting of this yard. End here.",
    });
    expect(theAdvice(input("+++", { limits: circling(7.9) })).word).toBe("Repeat");
    expect(theAdvice(input("+++", { limits: { ...circling(0), circling: null } })).word).toBe("Repeat");
  });
});

describe("where the next session starts, under restrictions", () => {
  const draft = emptyDraft().plan;
  const gaits = {
    ...draft,
    strands: [strandFromCatalogue("gait", "gait")],
    rungs: ["stand", "walk", "trot"].map((gait) => ({ values: { gait } })),
  };
  const start = (restrictions: Partial<Restriction>[], rung: number, change: Partial<Parameters<typeof nextStart>[0]> = {}) =>
    nextStart({
      plan: gaits,
      ladder: "x",
      version: 1,
      trials: trials("+~+", { rung }),
      nowWallMs: NOW,
      allowance: allowanceOn(
        restrictions.map((one) => ({
          kind: "other",
          amount: null,
          detail: null,
          reason: "",
          givenBy: "",
          from: null,
          until: null,
          ...one,
        })),
        "2026-06-20",
        null,
      ),
      ...change,
    });

  it("goes no higher than they allow, with the reason first", () => {
    expect(start([], 3)).toMatchObject({ rung: 3, barred: null });
    expect(start([{ kind: "highest-gait", detail: "walk", reason: "stiff" }], 3)).toMatchObject({
      rung: 2,
      headline: "Work on rung 2 for now",
      barred: null,
    });
    expect(start([{ kind: "highest-gait", detail: "walk", reason: "stiff" }], 3).reason).toMatch(/^No faster gait than walk: stiff\./);
  });

  it("says not today where the whole ladder is closed", () => {
    expect(start([{ kind: "no-work", reason: "lame" }], 2)).toMatchObject({ headline: "Not today", barred: "No work at all: lame." });
    expect(start([{ kind: "no-circling" }], 2, { involves: ["circling"] }).barred).toBe("No circling.");
    expect(start([{ kind: "no-food" }], 2, { plan: { ...gaits, method: "marker-food" } }).barred).toBe("No food.");
    const side = {
      ...draft,
      strands: [strandFromCatalogue("side", "side")],
      rungs: ["right", "right"].map((s) => ({ values: { side: s } })),
    };
    expect(start([{ kind: "one-side", detail: "left" }], 1, { plan: side })).toMatchObject({ headline: "Not today" });
  });
});

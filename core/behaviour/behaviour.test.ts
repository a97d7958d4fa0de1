import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import type { LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record";
import { strandFromCatalogue } from "../strands";
import { chainState, findCycle, prerequisiteReadiness, prerequisiteWords, readinessWarning, restsOn, rungReaching } from "./index";

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 4, 1);
const plan: LadderPlan = {
  ...emptyDraft().plan,
  strands: [{ ...strandFromCatalogue("steps", "steps"), name: "crossing steps" }, strandFromCatalogue("side", "side")],
  rungs: [
    { values: { steps: 1, side: "left" } },
    { values: { steps: 2, side: "left" } },
    { values: { steps: 2, side: "both" } },
    { values: { steps: 3, side: "both" } },
  ],
  mastery: { kind: "share", met: 4, of: 5, window: "moving" },
};
/** "+" met, "." missed; l and r turn to a side; digits set the phase of what follows. */
function trials(text: string, rung: number, change: Partial<EvidenceTrial> = {}): EvidenceTrial[] {
  const out: EvidenceTrial[] = [];
  let side: "L" | "R" = "L";
  let phase = 1;
  for (const one of text) {
    if (one === "l" || one === "r") side = one === "l" ? "L" : "R";
    else if (/\d/.test(one)) phase = Number(one);
    else
      out.push({
        session: "s",
        handler: null,
        wallMs: NOW - DAY + out.length,
        ladder: "hind",
        version: 1,
        rung,
        kind: "work",
        blockKey: "s:0",
        side,
        outcome: one === "+" ? "met" : "miss",
        phase,
        ease: null,
        value: null,
        clean: false,
        comparable: true,
        ...change,
      });
  }
  return out;
}
const need = { behaviour: "hind-yield", values: { "crossing steps": 2, side: "both" }, maxPhase: 2 };
const time = { nowWallMs: NOW, staleDays: 90 };
const ready = (list: readonly EvidenceTrial[], wanted = need) =>
  prerequisiteReadiness(wanted, "Hind yield", { id: "hind", name: "Hind yield", plan, version: 1, trials: list }, time);

describe("a prerequisite", () => {
  it("finds the lowest rung that reaches it, by the strand's name or key", () => {
    expect(rungReaching(plan, need)).toEqual({ rung: 3, unknown: [] });
    expect(rungReaching(plan, { ...need, values: { steps: 2 } })).toEqual({ rung: 2, unknown: [] });
    expect(rungReaching(plan, { ...need, values: { steps: 9 } })).toEqual({ rung: null, unknown: [] });
    expect(rungReaching(plan, { ...need, values: { stay: 4, steps: 2 } })).toEqual({ rung: 2, unknown: ["stay"] });
    expect(prerequisiteWords(need)).toBe("crossing steps 2, both sides, at phase 2 or lighter");
  });

  it.each<[string, EvidenceTrial[], string]>([
    ["nothing worked", [], "unknown"],
    ["one side alone", trials("l+++++", 3), "not-yet"],
    ["both sides", trials("l+++++r+++++", 3), "shown"],
    ["shown once and forgotten since", trials("l+++++r+++++l.....r.....", 3), "shown"],
    ["on a later rung", trials("l+++++r+++++", 4), "shown"],
    ["only at a clearer cue", trials("3l+++++r+++++", 3), "not-yet"],
    ["never enough on one rung", [...trials("l++r++", 3), ...trials("l++r++", 4)], "not-yet"],
    ["another ladder's", trials("l+++++r+++++", 3, { ladder: "other" }), "unknown"],
    ["a probe", trials("l+++++r+++++", 3, { kind: "probe" }), "unknown"],
  ])("%s", (_, list, state) => {
    expect(ready(list).state).toBe(state);
  });

  it("says of what was shown long ago that it is to be checked; the side shown longer ago decides", () => {
    const at = (text: string, daysAgo: number) => trials(text, 3, { wallMs: NOW - daysAgo * DAY });
    const both = (left: number, right: number) =>
      ready([...at("l+++++", left), ...at("r+++++", right)].sort((a, b) => a.wallMs - b.wallMs));
    expect(both(80, 80).state).toBe("shown");
    const old = both(10, 120);
    expect(old.state).toBe("stale");
    expect(old.sentence).toContain(
      `Shown in ${new Date(NOW - 120 * DAY).toLocaleString("en-GB", { month: "long", timeZone: "UTC" })}, check`,
    );
    expect(readinessWarning([old])).toContain("Shown long ago, check first: Hind yield");
    // Worked since on a later rung, it is fresh.
    expect(ready([...at("l+++++r+++++", 120), ...trials("l+r+", 4)]).state).toBe("shown");
  });

  it("warns and never forbids", () => {
    const lacking = [ready(trials("l++.r+", 3)), prerequisiteReadiness(need, "Front yield", null, time)];
    expect(lacking[0]?.sentence).toContain("Rung 3: 3 of 4 so far: too few to tell. Its rule is not passed yet.");
    expect(readinessWarning(lacking)).toContain("Hind yield (crossing steps 2, both sides, at phase 2 or lighter); Front yield");
    expect(readinessWarning(lacking)).toContain("You may go on");
    expect(readinessWarning([ready(trials("l+++++r+++++", 3))])).toBeNull();
  });
});

describe("the graph", () => {
  const node = (key: string, ...needs: string[]) => ({ key, needs });
  it("finds a cycle and its members, and none where there is none", () => {
    expect(findCycle([node("a", "b"), node("b", "c"), node("c")])).toBeNull();
    expect(findCycle([node("a", "b"), node("b", "c"), node("c", "b")])).toEqual(["b", "c", "b"]);
    expect(findCycle([node("a", "a")])).toEqual(["a", "a"]);
    expect(findCycle([node("a", "elsewhere")])).toBeNull();
    expect([...restsOn([node("a", "b", "c"), node("b", "d"), node("c"), node("d"), node("e")], "a")].sort()).toEqual(["a", "b", "c", "d"]);
  });

  it("needs that only point to earlier ones never form a cycle; one edge back along a path does (property)", () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(), { maxLength: 3 }), { minLength: 2, maxLength: 12 }), (lists) => {
        const nodes = lists.map((picks, i) =>
          node(`n${i}`, ...(i === 0 ? [] : picks.map((pick) => `n${pick % i}`)), ...(i === 0 ? [] : [`n${i - 1}`])),
        );
        expect(findCycle(nodes)).toBeNull();
        const closed = nodes.map((one, i) => (i === 0 ? node("n0", `n${nodes.length - 1}`) : one));
        const cycle = findCycle(closed);
        expect(cycle?.[0]).toBe(cycle?.at(-1));
      }),
    );
  });
});

describe("a chain", () => {
  const link = (ladder: string, rung: number, text: string) => ({
    ladder,
    rung,
    name: ladder,
    plan,
    version: 1,
    trials: trials(text, rung, { ladder }),
  });
  const when = { nowWallMs: NOW, maxAgeDays: 21 };

  it("finds the weak link and the next one, forward and backward", () => {
    const links = [link("walk up", 1, "+++++"), link("on", 1, "+..+..+"), link("stand", 1, "+.+.++"), link("come out", 1, "++++.")];
    const forward = chainState(links, "forward", when);
    expect(forward.links.map(({ holds }) => holds)).toEqual([true, false, false, true]);
    expect(forward).toMatchObject({ next: 1, weakest: 1 });
    expect(forward.sentence).toContain("also the weak link, 3 of 7");
    const backward = chainState(links, "backward", when);
    expect(backward).toMatchObject({ next: 2, weakest: 1 });
    expect(backward.sentence).toBe("Next: stand. The weak link is on, 3 of 7.");
    expect(forward.wholeChance).toBeCloseTo((1 * 3 * 4 * 4) / (7 * 6 * 5), 12);
  });

  it("says when nothing is known, and when all hold", () => {
    const none = chainState([link("a", 1, ""), link("b", 1, "+.")], "forward", when);
    expect(none).toMatchObject({ next: 0, weakest: null, wholeChance: null });
    expect(none.sentence).toContain("Too few trials");
    expect(chainState([link("a", 1, "+++++"), link("b", 2, "+++++")], "backward", when)).toMatchObject({
      next: null,
      weakest: null,
      wholeChance: 1,
    });
  });

  it("counts nothing older than the setting, and no other rung", () => {
    const old = { ...link("a", 2, "+++++"), trials: trials("+++++", 2, { ladder: "a", wallMs: NOW - 40 * DAY }) };
    const other = { ...link("b", 2, "+++++"), trials: trials("+++++", 1, { ladder: "b" }) };
    expect(chainState([old, other], "forward", when).links.map(({ of }) => of)).toEqual([0, 0]);
  });

  it("judges a link whose bar follows the horse by its values, as its ladder does", () => {
    const following: LadderPlan = {
      ...plan,
      workingStrandId: "steps",
      rungs: [{ values: { steps: 4, side: "left" }, percentile: { lookBack: 4, wantedShare: 0.5 } }, ...plan.rungs.slice(1)],
    };
    const valued = (text: string, values: readonly number[]) => ({
      ...link("a", 1, text),
      plan: following,
      trials: trials(text, 1, { ladder: "a" }).map((trial, i) => ({ ...trial, value: values[i] ?? null })),
    });
    const holds = (text: string, values: readonly number[]) =>
      chainState([valued(text, values), link("b", 1, "+++++")], "forward", when).links[0]?.holds;
    // The share met is held by design; only the values tell.
    expect(holds("+.+.", [4, 5, 4, 6])).toBe(true);
    expect(holds("++++++", [1, 1, 2, 1, 2, 1])).toBe(false);
    const shown = (values: readonly number[]) =>
      prerequisiteReadiness(
        { behaviour: "a", values: { "crossing steps": 4, side: "left" } },
        "A",
        {
          id: "a",
          name: "A",
          version: 1,
          plan: following,
          trials: trials("+.+.", 1, { ladder: "a" }).map((trial, i) => ({ ...trial, value: values[i] ?? null })),
        },
        time,
      ).state;
    expect(shown([4, 5, 4, 6])).toBe("shown");
    expect(shown([1, 1, 1, 1])).toBe("not-yet");
  });
});

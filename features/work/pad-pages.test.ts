import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { betweenPads, LOWER_PADS, padNeeds, padPages } from "./pad-pages";

describe("padPages", () => {
  it.each([
    ["tally", false],
    ["tally", true],
    ["timed", false],
    ["timed", true],
  ] as const)("%s, marks %s: every pad once, on a short screen too, and danger always on the first page", (way, marks) => {
    const wanted = LOWER_PADS.filter((pad) => pad !== (way === "timed" ? "not this one" : "mark")).sort();
    for (const short of [false, true]) {
      const { first, second } = padPages({ way, marks }, short);
      expect([...first.flat(), ...(second ?? []).flat()].sort()).toEqual(wanted);
      expect(first.flat()).toContain("danger");
      expect(second === null).toBe(!short);
    }
  });

  it("adds no row and no page for what a ladder logs between the asks, and nothing for a ladder that logs none", () => {
    const { plan } = emptyDraft();
    expect(betweenPads(plan)).toEqual([]);
    expect(betweenPads({ offers: "settle" })).toEqual(["settles"]);
    const conversation = { whenWrong: { did: "", met: "", plan: "" }, ownTimes: ["looks", "settles"], retreats: true } as const;
    const between = betweenPads({ conversation, offers: "ignore" });
    expect(between).toEqual(["wrong", "looks", "settles", "retreat"]);
    for (const way of ["tally", "timed"] as const)
      for (const short of [false, true]) {
        const plain = padPages({ way, marks: true }, short);
        const more = padPages({ way, marks: true, between }, short);
        expect(more.first).toHaveLength(plain.first.length);
        expect(more.second?.length).toBe(plain.second?.length);
        const all = [...more.first.flat(), ...(more.second ?? []).flat()];
        expect(new Set(all).size).toBe(all.length);
        for (const pad of between) expect(all).toContain(pad);
        // The wrong choice is one tap on every screen, and no row is narrower than six pads.
        expect(more.first.flat()).toContain("wrong");
        expect(Math.max(...more.first.map((row) => row.length))).toBeLessThanOrEqual(6);
      }
  });

  it("keeps on a short first page what is tapped with every ask", () => {
    expect(padPages({ way: "timed", marks: true }, true).first).toEqual([["mark", "food", "danger"]]);
    expect(padPages({ way: "timed", marks: false }, true).first).toEqual([["ease", "tense", "danger"]]);
    expect(padPages({ way: "tally", marks: true }, true).first).toEqual([["ease", "tense", "danger"]]);
  });

  it("looks at every rung, so that going to another one moves no pad", () => {
    const { plan } = emptyDraft();
    const mixed = {
      ...plan,
      method: "pressure-release" as const,
      rungs: [...plan.rungs.slice(0, -1), { values: plan.rungs.at(-1)?.values ?? {}, method: "combined" as const }],
    };
    expect(padNeeds(mixed, "timed").marks).toBe(true);
    expect(padNeeds({ ...mixed, rungs: mixed.rungs.map(({ values }) => ({ values })) }, "timed").marks).toBe(false);
  });
});

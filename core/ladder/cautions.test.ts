import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { goBackSentence } from "../advice";
import { seedFromText } from "../chance";
import { DEFAULT_SETTINGS } from "../settings";
import { strandFromCatalogue } from "../strands";
import { chosenWays, type LadderPlan, METHOD_GUIDES, methodCautions, wayCautions } from "./index";

const plan: LadderPlan = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("tether", "tether")],
  rungs: [{ values: { tether: "short lead" } }, { values: { tether: "long line" }, method: "marker-food" }],
  ways: { "turning-in": "circle", begins: "free" },
};

describe("what a ladder has to be careful of", () => {
  it("names heat, corners and footing where a loose horse is circled, and only where it is worked free", () => {
    const words = wayCautions(plan, true).join(" ");
    for (const one of ["Heat", "Corners", "Footing"]) expect(words).toContain(one);
    expect(wayCautions(plan, false)).toEqual([]);
    expect(wayCautions({ ...plan, ways: { "turning-in": "invite" } }, true)).toEqual([]);
  });

  it("holds the cautions of every method its rungs use, each once", () => {
    const cautions = methodCautions(plan);
    expect(cautions).toEqual(expect.arrayContaining([...METHOD_GUIDES.combined.cautions, ...METHOD_GUIDES["marker-food"].cautions]));
    expect(new Set(cautions).size).toBe(cautions.length);
    expect(methodCautions({ ...plan, rungs: plan.rungs.slice(0, 1) })).toEqual([...METHOD_GUIDES.combined.cautions]);
  });

  it("tells what was chosen on the questions that are its own", () => {
    expect(chosenWays(plan, true).map(({ key, choice }) => [key, choice])).toContainEqual(["begins", "start free, add the line last"]);
    expect(chosenWays(plan, false).map(({ key }) => key)).not.toContain("turning-in");
    expect(chosenWays({ ...plan, strands: [] }, false).map(({ key }) => key)).toEqual(["pressure"]);
  });
});

describe("goBackSentence", () => {
  it("says the thresholds that are set", () => {
    expect(goBackSentence()).toBe(
      "Three in a row wrong or unanswered, or 4 of the last 7, or 2 of the last 5 unanswered: go one rung back.",
    );
    expect(goBackSentence(undefined, { ...DEFAULT_SETTINGS, easeRun: 2, easeMisses: 3, easeWindow: 5 })).toContain("Two in a row");
  });
});

describe("seedFromText", () => {
  it("is FNV-1a: its published values for the empty text and for a", () => {
    // Fowler, Noll and Vo; test vectors of draft-eastlake-fnv, from memory.
    expect(seedFromText("")).toBe(0x811c9dc5);
    expect(seedFromText("a")).toBe(0xe40c292c);
    expect(seedFromText("foobar")).toBe(0xbf9cf968);
  });
});

import { describe, expect, it } from "vitest";
import {
  criterionParts,
  criterionSentence,
  difficulty,
  relativeHeights,
  STRAND_CATALOGUE,
  STRAND_KEYS,
  type Strand,
  stepAllowed,
  stepFaults,
  strandFromCatalogue,
  templateOf,
} from "./index";

const strand = (key: Strand["key"], change: Partial<Strand> = {}): Strand => ({ ...strandFromCatalogue(key, key), ...change });
const PHASES = ["body", "point", "lead touch"];

describe("the catalogue", () => {
  it("holds every strand of the domain once", () => {
    expect(STRAND_CATALOGUE.map((t) => t.key).sort()).toEqual([...STRAND_KEYS].sort());
  });

  it("gives copies that do not share their levels", () => {
    expect(strand("gait").levels).not.toBe(templateOf("gait").levels);
  });
});

describe("criterionSentence", () => {
  it("tells what, how much, how, where and how calm", () => {
    const strands = [strand("ease"), strand("side"), strand("steps"), strand("lightness"), strand("latency")];
    const values = { ease: "soft", side: "both", steps: 2, lightness: 3, latency: 3 };
    expect(criterionSentence(strands, values, PHASES)).toBe(
      "Takes 2 steps within 3 s, on both sides, soft. Use no more than “lead touch”.",
    );
  });

  it("spells out the weighing plate", () => {
    const strands = [
      strand("form", { levels: ["two feet on", "all four feet on"] }),
      strand("stay"),
      strand("handler-place"),
      strand("tether"),
    ];
    expect(
      criterionSentence(strands, { form: "all four feet on", stay: 4, "handler-place": "at the head", tether: "short lead" }, PHASES),
    ).toBe("All four feet on, stays 4 s, on the short lead, you at the head.");
  });

  it.each([
    ["steps", 1, "Takes 1 step."],
    ["stay", 0, "Any answer."],
    ["reach", 2.5, "Works 2.5 m from you."],
    ["approach", 1, "Comes within 1 m."],
    ["gait", "trot", "Goes at trot."],
    ["gait", "stand", "Standing still."],
    ["circle", 4, "Goes on a circle of 4 m radius."],
    ["side", "left", "On the left."],
    ["handler-motion", "walking", "While you walk."],
    ["handler-motion", "still", "While you stand still."],
    ["tether", "free in the arena", "Free in the arena."],
    ["tool", "brush", "With the brush."],
    ["touch-zone", "neck", "Touched on the neck."],
    ["company", "companion in sight", "Companion in sight."],
    ["surroundings", "wind", "In wind."],
    ["build", "whole", "Whole."],
    ["ease", "frantic", "Any answer."],
    ["ease", "deeply relaxed", "Deeply relaxed."],
    ["lightness", 1, "Any answer. Use only “body”."],
    ["load", 10, "With 10 kg."],
    ["own", 3, "Own strand 3."],
  ] as const)("says %s %s as “%s”", (key, value, sentence) => {
    expect(criterionSentence([strand(key)], { [key]: value }, PHASES)).toBe(sentence);
  });
});

describe("a strand's own words", () => {
  const gap = strand("own", {
    id: "gap",
    name: "gap",
    kind: "levels",
    levels: ["three metres", "a gate"],
    phrases: { "{}": "at a gap of {}", "a gate": "at a gate" },
  });
  const said = (value: string) => criterionSentence([strand("form"), gap], { form: "one foot", gap: value }, PHASES);

  it("stand in the sentence: the value's own, else the pattern; a level that has none of either stands with its strand's name", () => {
    expect(said("a gate")).toBe("One foot at a gate.");
    expect(said("three metres")).toBe("One foot at a gap of three metres.");
    const bare: Strand = { ...gap, phrases: { "a gate": "at a gate" } };
    expect(criterionSentence([strand("form"), bare], { form: "one foot", gap: "three metres" }, PHASES)).toBe(
      "One foot, three metres (gap).",
    );
  });

  it("are only its own: a level may be called what every object has, and a count keeps the name it was given", () => {
    const odd = strand("tool", { levels: ["constructor"], phrases: { "{}": "takes the {}" } });
    expect(criterionSentence([odd], { tool: "constructor" }, PHASES)).toBe("Takes the constructor.");
    expect(criterionSentence([strand("tool")], { tool: "constructor" }, PHASES)).toBe("With the constructor.");
    expect(criterionSentence([strand("steps", { name: "strides" })], { steps: 4 }, PHASES)).toBe("Takes 4 strides.");
  });

  it("count one as one, and keep the number that decides apart from its words", () => {
    const matched = strand("steps", { phrases: { "{}": "matches {} steps" } });
    expect(criterionSentence([matched], { steps: 1 }, PHASES)).toBe("Matches 1 step.");
    expect(criterionParts([matched], { steps: 4 }, PHASES)).toEqual([
      { text: "Matches ", strong: false },
      { text: "4", strong: true },
      { text: " steps", strong: false },
      { text: ".", strong: false },
    ]);
  });
});

describe("what leans on what", () => {
  it.each([
    [
      "how soon stands with the answer, before how long",
      ["form", "stay", "latency"],
      { form: "one foot", stay: 4, latency: 10 },
      "One foot within 10 s, stays 4 s.",
    ],
    ["with no answer how soon opens", ["stay", "latency"], { stay: 4, latency: 10 }, "Answers within 10 s, stays 4 s."],
    [
      "gait and how soon lean on the answer",
      ["form", "gait", "latency", "side"],
      { form: "one foot", gait: "walk", latency: 10, side: "left" },
      "One foot at walk within 10 s, on the left.",
    ],
    ["one step of an answer is that answer", ["form", "steps"], { form: "one foot", steps: 1 }, "One foot."],
    ["more than one is counted", ["form", "steps"], { form: "one foot", steps: 3 }, "One foot, 3 steps."],
    ["minutes are minutes", ["stay"], { stay: 120 }, "Stays 2 min."],
    ["and ninety seconds are no minutes", ["stay"], { stay: 90 }, "Stays 90 s."],
  ] as const)("%s", (_, keys, values, sentence) => {
    expect(
      criterionSentence(
        keys.map((key) => strand(key)),
        values,
        PHASES,
      ),
    ).toBe(sentence);
  });
});

describe("difficulty and heights", () => {
  it("turns the sign where less is harder and counts levels", () => {
    expect(difficulty(strand("approach"), 2)).toBeLessThan(difficulty(strand("approach"), 1));
    expect(difficulty(strand("gait"), "trot")).toBe(2);
  });

  it("refuses a value of the wrong kind", () => {
    expect(() => difficulty(strand("gait"), "piaffe")).toThrow(RangeError);
    expect(() => difficulty(strand("stay"), "long")).toThrow(RangeError);
  });

  it("puts the hardest of a row at 1 and a level row at 0", () => {
    expect(relativeHeights(strand("stay"), [1, 2, 5])).toEqual([0, 0.25, 1]);
    expect(relativeHeights(strand("latency"), [10, 5])).toEqual([0, 1]);
    expect(relativeHeights(strand("stay"), [3, 3])).toEqual([0, 0]);
  });
});

describe("stepAllowed", () => {
  it.each([
    ["stay", 4, 8, true],
    ["stay", 4, 8.5, false],
    ["stay", 0, 1, true],
    ["stay", 0, 2, false],
    ["stay", 8, 2, true],
    ["latency", 10, 5, true],
    ["latency", 10, 4, false],
    ["approach", 1, 0.5, true],
    ["approach", 0.5, 0, true],
    ["approach", 2, 0, false],
    ["steps", 1, 2, true],
    ["steps", 1, 3, false],
    ["steps", 3, 4, true],
    ["steps", 3, 5, false],
    ["steps", 4, 8, true],
    ["steps", 5, 11, false],
    ["lightness", 4, 3, true],
    ["lightness", 3, 1, false],
  ] as const)("%s from %d to %d: %s", (key, from, to, allowed) => {
    expect(stepAllowed(strand(key), from, to)).toBe(allowed);
  });
});

describe("stepFaults", () => {
  const strands = [strand("stay"), strand("handler-place")];
  const rung = (stay: number, place: string) => ({ stay, "handler-place": place });

  it("passes a ladder that changes one thing at a time", () => {
    expect(stepFaults(strands, [rung(2, "at the head"), rung(4, "at the head"), rung(4, "at the shoulder")])).toEqual([]);
  });

  it("finds two harder strands, a large step and a skipped level", () => {
    const faults = stepFaults(strands, [
      rung(2, "at the head"),
      rung(4, "at the shoulder"),
      rung(10, "at the shoulder"),
      rung(5, "2 m off"),
    ]);
    expect(faults.map(({ rung, kind }) => [rung, kind])).toEqual([
      [2, "several-harder"],
      [3, "step-too-large"],
      [4, "level-skipped"],
    ]);
    expect(faults[0]?.sentence).toBe("Rung 2 asks 2 new things: stay and handler.");
  });

  it("lets one strand ease while another gets harder", () => {
    expect(stepFaults(strands, [rung(4, "at the head"), rung(2, "at the shoulder")])).toEqual([]);
  });
});

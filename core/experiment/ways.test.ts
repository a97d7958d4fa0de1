import { describe, expect, it } from "vitest";
import { check } from "../schemas";
import { tryBothSchema } from "./form";
import { tryWaysOf, waysFrom } from "./ways";

const input = {
  ladder: "l",
  rung: 1,
  way_a: "food",
  way_b: "a scratch",
  counts: "share",
  blocks: 10,
  most_alike: 2,
  asks_each: 6,
};
const problems = (more: object) => {
  const checked = check(tryBothSchema, { ...input, ...more });
  return checked.ok ? [] : checked.problems.map(({ message }) => message);
};

describe("what two ways differ in", () => {
  it("is asked for where the pads are to follow, one value each, never the same", () => {
    expect(problems({})).toEqual([]);
    expect(problems({ differ: "reinforcer", value_a: "food", value_b: "scratch" })).toEqual([]);
    expect(problems({ differ: "reinforcer", value_a: "food", value_b: "food" })).toEqual(["B: another than A."]);
    expect(problems({ differ: "reinforcer", value_a: "sugar", value_b: "" })).toEqual(["A: choose one.", "B: choose one."]);
    expect(problems({ differ: "zone", value_a: "gate", value_b: "" })).toEqual(["B: choose one."]);
    expect(problems({ differ: "constructor", value_a: "a", value_b: "b" })[0]).toBe("What they differ in: choose one.");
  });
  it("is read as it was kept, and what cannot be read changes nothing", () => {
    const ways = waysFrom("cue", "wave", "lead");
    expect(tryWaysOf(JSON.stringify(ways), "sent", "led")).toEqual({ A: { cue: "wave" }, B: { cue: "lead" } });
    for (const bad of [
      "",
      "{",
      "[]",
      "null",
      '{"A":{},"B":{"reinforcer":"sugar"}}',
      '{"A":{},"B":{"__proto__":{},"rungs":[]}}',
      '{"A":{}}',
    ])
      expect(tryWaysOf(bad, "food", "a scratch"), bad).toEqual({ A: {}, B: {} });
  });
  it("follows from the words of a question where it was begun before that was kept", () => {
    expect(tryWaysOf(null, "food", "a scratch")).toEqual({ A: { reinforcer: "food" }, B: { reinforcer: "scratch" } });
    expect(tryWaysOf(null, "food", "sugar")).toEqual({ A: {}, B: {} });
  });
});

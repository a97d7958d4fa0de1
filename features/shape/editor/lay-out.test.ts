import { describe, expect, it } from "vitest";
import { type Strand, stepFaults, strandFromCatalogue } from "@/core/strands";
import { type LayoutWish, layOutWish } from "./lay-out";

const stay = strandFromCatalogue("stay", "stay");
const tether = strandFromCatalogue("tether", "tether");
const within = strandFromCatalogue("latency", "latency");
const strands: readonly Strand[] = [stay, tether, within];
const wish: LayoutWish = {
  ends: {
    stay: { start: 1, goal: 30 },
    tether: { start: "short lead", goal: "draped line" },
    latency: { start: 10, goal: 3 },
  },
  strandOrder: ["stay", "tether", "latency"],
  order: "one-by-one",
  easeOnNew: 0,
  legs: [],
};
const rungs = (change: Partial<LayoutWish> = {}) => {
  const laid = layOutWish(strands, 3, { ...wish, ...change });
  if ("problem" in laid) throw new Error(laid.problem);
  return laid.rungs.map(({ values }) => values);
};
const problem = (change: Partial<LayoutWish>) => {
  const laid = layOutWish(strands, 3, { ...wish, ...change });
  return "problem" in laid ? laid.problem : null;
};
const ends = (change: LayoutWish["ends"]) => ({ ends: { ...wish.ends, ...change } });

describe("layOutWish", () => {
  it.each(["one-by-one", "in-turn"] as const)("goes from the start to the goal by the ladder's own rules, %s", (order) => {
    const laid = rungs({ order, easeOnNew: 0.5 });
    expect(laid[0]).toEqual({ stay: 1, tether: "short lead", latency: 10 });
    expect(laid.at(-1)).toEqual({ stay: 30, tether: "draped line", latency: 3 });
    expect(stepFaults(strands, laid)).toEqual([]);
  });

  it("takes the strands in the order given", () => {
    const first = (strandOrder: readonly string[]) => {
      const [a, b] = rungs({ strandOrder });
      return Object.keys(a ?? {}).filter((id) => a?.[id] !== b?.[id]);
    };
    expect(first(["tether", "stay", "latency"])).toEqual(["tether"]);
    expect(first(["latency", "tether", "stay"])).toEqual(["latency"]);
  });

  it("follows the user's own legs, then finishes", () => {
    const laid = rungs({
      order: "own",
      legs: [
        { id: "stay", to: 4 },
        { id: "tether", to: "long line" },
        { id: "stay", to: 8 },
      ],
    });
    const at = (part: object) => laid.findIndex((rung) => Object.entries(part).every(([id, value]) => rung[id] === value));
    expect(at({ stay: 4, tether: "short lead" })).toBeGreaterThan(0);
    expect(at({ stay: 8, tether: "long line" })).toBeGreaterThan(at({ stay: 4, tether: "long line" }));
    expect(laid.at(-1)).toEqual({ stay: 30, tether: "draped line", latency: 3 });
  });

  it.each([
    ["a goal easier than the start", ends({ stay: { start: 10, goal: 2 } }), "easier than the start"],
    ["a goal that is slower", ends({ latency: { start: 3, goal: 10 } }), "easier than the start"],
    ["a level that is none", ends({ tether: { start: "short lead", goal: "moon" } }), "choose one of its levels"],
    ["no number", ends({ stay: { start: 1, goal: Number.NaN } }), "a number is needed"],
    ["a number out of range", ends({ stay: { start: 1, goal: 1e9 } }), "from 0 to 3600"],
    [
      "nothing to climb",
      ends({ stay: { start: 1, goal: 1 }, tether: { start: "neck loop", goal: "neck loop" }, latency: { start: 3, goal: 3 } }),
      "nothing to climb",
    ],
    ["a leg past the goal", { order: "own", legs: [{ id: "stay", to: 60 }] }, "between its start and its goal"],
    [
      "a leg that goes back",
      {
        order: "own",
        legs: [
          { id: "stay", to: 8 },
          { id: "stay", to: 4 },
        ],
      },
      "goes on from the one before",
    ],
    ["a leg of a strand that is gone", { order: "own", legs: [{ id: "gone", to: 8 }] }, "strand that is gone"],
  ] as const)("says what is wrong with %s", (_, change, words) => {
    expect(problem(change as Partial<LayoutWish>)).toContain(words);
  });

  it("says how many rungs are too many", () => {
    const steps = strandFromCatalogue("steps", "steps");
    const far = {
      ...wish,
      ends: {
        steps: { start: 1, goal: 2 },
        stay: { start: 0, goal: 3600 },
        latency: { start: 120, goal: 0.5 },
        tether: { start: "short lead", goal: "free in the field" },
      },
      strandOrder: ["steps", "stay", "latency", "tether"],
      easeOnNew: 1,
    };
    const laid = layOutWish([steps, ...strands], 3, far);
    expect("problem" in laid && laid.problem).toMatch(/at most 40|hundreds/);
  });
});

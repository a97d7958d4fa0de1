import { describe, expect, it } from "vitest";
import { type CirclePlan, MOST_SEGMENTS } from "@/core/circle";
import { PLAN } from "@/tests/support/circle-plan";
import { changePlan, USUAL_LINES } from "./plan-state";

const walk = { gait: "walk", side: "L", minutes: 3 } as const;
const trot = { gait: "trot", side: "L", minutes: 1 } as const;
const back = { gait: "walk", side: "R", minutes: 4 } as const;
const plan: CirclePlan = { ...PLAN, form: "circle", ways: "both", lines: null, radiusMetres: 7, segments: [walk, trot, back] };
const segments = (change: Parameters<typeof changePlan>[1], of = plan) => changePlan(of, change).segments;

describe("a plan of the circle as it is laid out", () => {
  it("moves a segment one place, and nowhere past an end", () => {
    expect(segments({ do: "move", at: 1, by: 1 })).toEqual([walk, back, trot]);
    expect(segments({ do: "move", at: 1, by: -1 })).toEqual([trot, walk, back]);
    expect(changePlan(plan, { do: "move", at: 0, by: -1 })).toBe(plan);
    expect(changePlan(plan, { do: "move", at: 2, by: 1 })).toBe(plan);
  });

  it("keeps one segment at the least, and takes in no more than there may be", () => {
    expect(segments({ do: "remove", at: 1 })).toEqual([walk, back]);
    const one = { ...plan, segments: [walk] };
    expect(changePlan(one, { do: "remove", at: 0 })).toBe(one);
    expect(segments({ do: "add" }).at(-1)).toEqual({ gait: "walk", side: "R", minutes: 2 });
    const full = { ...plan, segments: Array.from({ length: MOST_SEGMENTS }, () => walk) };
    expect(changePlan(full, { do: "add" })).toBe(full);
  });

  it("changes one segment alone", () => {
    expect(segments({ do: "segment", at: 1, change: { minutes: 2 } })).toEqual([walk, { ...trot, minutes: 2 }, back]);
  });

  it("mirrors what the first hand does to the other, within what there may be", () => {
    expect(segments({ do: "mirror" })).toEqual([walk, trot, { ...walk, side: "R" }, { ...trot, side: "R" }]);
    const long = { ...plan, segments: Array.from({ length: MOST_SEGMENTS }, () => walk) };
    expect(segments({ do: "mirror" }, long)).toHaveLength(MOST_SEGMENTS);
  });

  it("with one way a day goes the way of its first segment that moves, and never empties", () => {
    const standing = { ...plan, segments: [{ gait: "stand", side: "R", minutes: 1 } as const, walk, trot, back] };
    expect(segments({ do: "set", change: { ways: "turn" } }, standing)).toEqual([walk, trot]);
    const still = { ...plan, segments: [{ gait: "stand", side: "R", minutes: 1 } as const] };
    expect(segments({ do: "set", change: { ways: "turn" } }, still)).toEqual(still.segments);
  });

  it("in long lines has lines and no radius, in a pen neither, on a line a radius again", () => {
    const lines = changePlan(plan, { do: "set", change: { form: "lines" } });
    expect([lines.lines, lines.radiusMetres]).toEqual([USUAL_LINES, null]);
    const said = changePlan(lines, { do: "lines", change: { releaseChecked: true } });
    expect(said.lines).toEqual({ ...USUAL_LINES, releaseChecked: true });
    expect(changePlan(said, { do: "set", change: { form: "lines" } }).lines?.releaseChecked).toBe(true);
    const pen = changePlan(said, { do: "set", change: { form: "pen" } });
    expect([pen.lines, pen.radiusMetres]).toEqual([null, null]);
    expect(changePlan(pen, { do: "set", change: { form: "circle" } }).radiusMetres).toBe(8);
  });
});

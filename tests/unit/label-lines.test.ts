import { describe, expect, it } from "vitest";
import { LIBRARY } from "@/library";
import { COLUMN, columnsAlike, labelLines, valueWords } from "@/ui/strand-chart/geometry";

describe("labelLines", () => {
  it.each([
    ["walk", 78, ["walk"]],
    ["at the shoulder", 78, ["at the", "shoulder"]],
    ["looks at the plate", 78, ["looks at", "the plate"]],
  ])("%s in %s", (words, width, lines) => {
    expect(labelLines(words, width).lines).toEqual(lines);
  });

  it("cuts no word of any level or cue of the library, and writes none smaller than can be read", () => {
    for (const { strands, rungs, askByFeel, askForFood } of LIBRARY) {
      const words = strands.flatMap(({ id }) => rungs.map((rung) => valueWords(rung[id])));
      const cues = [...(askByFeel ?? []), ...(askForFood ?? [])].map(({ label }) => label);
      for (const one of [...words, ...cues]) {
        const { lines, size } = labelLines(one, COLUMN - 14);
        expect(lines.join(" ")).toBe(one);
        expect(lines.length).toBeLessThanOrEqual(2);
        expect(size).toBeGreaterThanOrEqual(9.5);
      }
    }
  });

  it("lets a label run on over columns that hold the same", () => {
    expect([columnsAlike(["a", "a", "a", "b"], 0), columnsAlike(["a", "a", "a", "b"], 2), columnsAlike(["a"], 0)]).toEqual([3, 1, 1]);
  });
});

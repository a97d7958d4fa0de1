import { describe, expect, it } from "vitest";
import { chartCsv } from "./save";

describe("a chart's numbers as a file", () => {
  it("hold each line with its interval, and no cell a spreadsheet would run", async () => {
    const text = await chartCsv({
      title: "met",
      points: [{ x: 0, marks: ["=HYPERLINK(1)", "wind, gusts"] }, { x: 86_400_000 }],
      series: [
        { name: "met", colour: "tarn", style: "line", values: [0.5, null], low: [0.2, null], high: [0.8, null], words: ["a", null] },
        { name: "rung", colour: "ink", style: "steps", values: [1, 2], words: ["1", "2"] },
      ],
      x: { kind: "day", title: "day" },
      y: { title: "met" },
    });
    expect(text).toBe(
      'day,met,"met, low","met, high",rung,what was special\r\n1970-01-01T00:00:00.000Z,0.5,0.2,0.8,1,"\'=HYPERLINK(1); wind, gusts"\r\n1970-01-02T00:00:00.000Z,,,,2,\r\n',
    );
  });
});

import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { LIBRARY } from "@/library";

const page = readFileSync("docs/library.md", "utf8");
const rows = page
  .split("\n")
  .filter((line) => line.startsWith("| ") && !line.startsWith("| behaviour"))
  .map((line) => line.slice(2, -2).split(" | "));

describe("docs/library.md", () => {
  it("has a row for every behaviour by each of its ways, with its rungs, and none that is gone", () => {
    const wanted = LIBRARY.flatMap(({ name, rungs, ways }) =>
      ways.length === 0 ? [[name, rungs.length]] : ways.map((way) => [`${name}: ${way.name}`, (way.changes.rungs ?? rungs).length]),
    );
    expect(rows.map(([name, length]) => [name, Number(length)]).sort()).toEqual(wanted.map(([name, length]) => [name, length]).sort());
  });

  it("shows every ladder climbed by every method, in no fewer days than its rule can take and in no absurd number", () => {
    for (const [name = "", rungs = "", rule = "", ...cells] of rows) {
      const worked = cells.slice(0, 3).filter((cell) => cell !== "–");
      expect(worked.length, name).toBeGreaterThan(0);
      for (const cell of worked) {
        const [asks = 0, days = 0] = /^(\d+), (\d+) d/.exec(cell)?.slice(1).map(Number) ?? [];
        expect({ name, cell, up: asks > 0 && !cell.includes("not up") }).toEqual({ name, cell, up: true });
        // A rung is shown on all the rule's days, the next one beginning on the last of them.
        const ruleDays = Number(/on (\d+) days/.exec(rule)?.[1] ?? 1);
        expect(days, name).toBeGreaterThanOrEqual(Number(rungs) * (ruleDays - 1));
        // At most two months, or each of the two sides on days of its own and a quarter more for days that went badly.
        expect(days, name).toBeLessThanOrEqual(Math.max(60, Number(rungs) * ruleDays * 2 * 1.25));
        expect(asks / days, name).toBeLessThan(40);
      }
    }
  });
});

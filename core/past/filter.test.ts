import { describe, expect, it } from "vitest";
import { writePast } from "@/tests/support/past-writer";
import { FILTER_KEYS, filterText, type PastFilter, readFilter, trialsFor } from ".";

const past = writePast([
  {
    day: 0,
    id: "one",
    place: "pen",
    kit: ["roller"],
    facts: { wind: "gusts", firstSide: "L", method: "combined", wrongMet: ["tapped"] },
    trials: "mx",
    all: { side: "L", novel: true },
  },
  {
    day: 1,
    id: "two",
    place: "field",
    facts: { wind: "breeze", firstSide: "R", method: "marker-food" },
    trials: "mr",
    all: { side: "R", rung: 2, phase: null },
  },
]);
const numbers = (filter: PastFilter) => trialsFor(past, filter).map(({ session, number }) => `${session}.${number}`);

describe("a filter", () => {
  it.each<[PastFilter, string[]]>([
    [{}, ["0.1", "0.2", "1.1", "1.2"]],
    [{ session: "one" }, ["0.1", "0.2"]],
    [{ from: String(86_400_000) }, ["1.1", "1.2"]],
    [{ to: String(86_400_000) }, ["0.1", "0.2"]],
    [{ rung: "2", outcome: "met" }, ["1.1"]],
    [{ side: "L" }, ["0.1", "0.2"]],
    [{ side: "none" }, []],
    [{ place: "pen" }, ["0.1", "0.2"]],
    [{ kit: "roller" }, ["0.1", "0.2"]],
    [{ wind: "windy" }, ["0.1", "0.2"]],
    [{ wind: "calm" }, ["1.1", "1.2"]],
    [{ begins: "R" }, ["1.1", "1.2"]],
    [{ method: "combined" }, ["0.1", "0.2"]],
    [{ rungs: "new" }, ["0.1", "0.2"]],
    [{ rungs: "known" }, ["1.1", "1.2"]],
    [{ wrong: "tapped" }, ["0.1", "0.2"]],
    [{ holds: "phase" }, ["0.1"]],
    [{ holds: "no such thing" }, []],
    [{ ladder: "another" }, []],
  ])("%j", (filter, wanted) => {
    expect(numbers(filter)).toEqual(wanted);
  });

  it("comes back from an address as it went, and takes nothing else from it", () => {
    const all = Object.fromEntries(FILTER_KEYS.map((key, i) => [key, `a&b=${i}%`]));
    expect(readFilter(filterText(all))).toEqual(all);
    expect(readFilter(`rung=3&nonsense=1&__proto__=2&side=&place=${"x".repeat(300)}`)).toEqual({ rung: "3" });
  });
});

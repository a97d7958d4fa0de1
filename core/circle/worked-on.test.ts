import { describe, expect, it } from "vitest";
import { workedOn } from "./worked-on";

const block = (behaviour: string, ladder: string | null, rung: string) => ({ behaviour, ladder, rung });

describe("what a session was about", () => {
  it.each([
    [null, [block("Stands", "l", "2"), block("Stands", "l", "3"), block("Stands", "l", "2")], ["Stands"], ["2", "3"]],
    [null, [block("Something new", null, "1")], ["Something new"], ["1"]],
    ["circle", [block("Circle work", null, "plan")], ["Circle work"], []],
    ["circle", [block("Walk at the end", "l", "3")], ["Circle work", "Walk at the end"], ["3"]],
    ["lines", [block("Walk at the end", "l", "1")], ["Long lines", "Walk at the end"], ["1"]],
    ["pen", [], ["Driven in a pen"], []],
  ] as const)("of %s with %j is %j, rungs %j", (form, blocks, about, rungs) => {
    expect(workedOn(form, blocks)).toEqual({ about, rungs });
  });
});

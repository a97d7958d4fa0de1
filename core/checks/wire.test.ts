import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BATCH_LIMITS, FORM_LIMITS, readWire, wireProblem } from "./wire";

const problemOf = (text: string, limits = FORM_LIMITS) => {
  const read = readWire(text, limits);
  return "problem" in read ? read.problem : null;
};

describe("a posted body", () => {
  it.each([
    ["half of one", '{"a":', /not JSON/],
    ["deep", `${"[".repeat(200)}${"]".repeat(200)}`, /too deep/],
    ["deeper than any stack", `${"[".repeat(100_000)}${"]".repeat(100_000)}`, /too deep|not JSON/],
    ["a number beyond all", '{"height_cm":1e999}', /too large/],
    ["a negative one", "[-1e999]", /too large/],
    ["a NUL in a text", '{"name":"a\\u0000b"}', /NUL/],
    ["a NUL in a key", '{"a\\u0000":1}', /NUL/],
    ["a prototype", '{"__proto__":{"sample":true}}', /__proto__/],
    ["a constructor", '{"constructor":{}}', /constructor/],
    ["a reference of the schema library", '{"name":{"__isYupRef":true}}', /__isYupRef/],
    ["a toString, further in", '{"a":[{"toString":1}]}', /toString/],
    ["a long list", JSON.stringify(Array(501).fill(0)), /more than 500/],
    ["too much", JSON.stringify(Array(400).fill(Array(100).fill(0))), /too much/],
  ])("that is %s is refused in words", (_, text, words) => {
    expect(problemOf(text)).toMatch(words);
  });

  it("of the usual kinds passes as it is", () => {
    const value = { name: "Ní Žižka 馬", list: [1, -2.5, null, true, { deep: { deeper: "x" } }] };
    expect(readWire(JSON.stringify(value), FORM_LIMITS)).toEqual({ value });
    expect(problemOf(JSON.stringify(Array(2000).fill({ id: "x" })), BATCH_LIMITS)).toBeNull();
  });

  it("never throws, whatever JSON it is", () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 20 }), (value) => {
        const text = JSON.stringify(value);
        const read = readWire(text, FORM_LIMITS);
        expect("problem" in read || JSON.stringify(read.value) === text).toBe(true);
        expect(wireProblem(JSON.parse(text), FORM_LIMITS) === null).toBe(!("problem" in read));
      }),
      { seed: 5, numRuns: 300 },
    );
  });
});

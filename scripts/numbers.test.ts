import { describe, expect, it } from "vitest";
import { fileNumbers } from "./code-numbers";
import { isFree, licencesOf } from "./licence-list";

describe("the numbers of the code", () => {
  it("count lines, long functions by name, and casts that say more than is known", () => {
    const body = "  work();\n".repeat(100);
    const text = `const short = () => 1;\nfunction long() {\n${body}}\nconst Wide = () => {\n${body}};\nconst a = b as C;\nconst d = [1] as const;\nconst e = f[0] as number;\n`;
    const numbers = fileNumbers("x.tsx", text);
    expect(numbers.lines).toBe(208);
    expect(numbers.longFunctions).toEqual([
      { name: "long", lines: 102 },
      { name: "Wide", lines: 102 },
    ]);
    expect(numbers.casts).toBe(1);
  });
});

describe("licences", () => {
  it.each<[string, boolean]>([
    ["MIT", true],
    ["(MIT OR GPL-3.0-only)", true],
    ["Apache-2.0 AND LGPL-3.0-or-later", true],
    ["MIT AND GPL-3.0-only", false],
    ["UNLICENSED", false],
    ["none", false],
  ])("%s: free is %s", (licence, free) => expect(isFree(licence)).toBe(free));

  it("names what is to be looked at, with its version", () => {
    const lock = {
      packages: {
        "": {},
        "node_modules/a": { version: "1.0.0", license: "MIT" },
        "node_modules/b/node_modules/@x/c": { version: "2.0.0", dev: true },
      },
    };
    expect(licencesOf(lock).asking).toEqual(["@x/c 2.0.0, for development: none"]);
  });
});

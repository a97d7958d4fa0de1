import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { SESSION_KINDS } from "@/core/events";
import { ANY_LADDER, ITS_LADDER, kindsInSql, ON_CIRCLE } from "./kinds";

describe("kinds of session in SQL", () => {
  it("come from the one table", () => {
    expect([ANY_LADDER, ITS_LADDER, ON_CIRCLE]).toEqual(["'work'", "'circle'", "'circle'"]);
    expect(kindsInSql(["work", "first-look"])).toBe("'work', 'first-look'");
  });

  it("are written in no other place", () => {
    const literal = new RegExp(`kind (=|<>|IN) \\(?'(${SESSION_KINDS.join("|")})'`);
    expect(literal.test("WHERE s.kind = 'circle'")).toBe(true);
    const files = ["store", "store/caches", "store/package", "app/server"].flatMap((folder) =>
      readdirSync(folder)
        .filter((file) => file.endsWith(".ts") && !file.endsWith(".test.ts"))
        .map((file) => `${folder}/${file}`),
    );
    expect(files.filter((file) => literal.test(readFileSync(file, "utf8")))).toEqual([]);
  });
});

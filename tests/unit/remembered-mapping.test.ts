import { describe, expect, it } from "vitest";
import { guessMapping } from "@/core/formats";
import { trialsMappingDocument } from "@/core/formats/mapping-document";
import { keptJson } from "@/store";

const read = (text: string) => keptJson(text, trialsMappingDocument);
const KEPT = { columns: { horse: "Pferd", outcome: "Ergebnis" }, outcomes: { ja: "met", nein: "refused" } };

describe("a remembered mapping", () => {
  it("is read as it was written", () => {
    expect(read(JSON.stringify(KEPT))).toEqual(KEPT);
    expect(read('{"columns":{},"outcomes":{}}')).toEqual({ columns: {}, outcomes: {} });
  });
  it("of another shape is none, so that a table is guessed anew and nothing ends", () => {
    for (const text of [
      "null",
      "7",
      "[",
      "{}",
      '{"columns":null,"outcomes":{}}',
      '{"columns":{"horse":7},"outcomes":{}}',
      '{"columns":{"no column":"x"},"outcomes":{}}',
      '{"columns":{},"outcomes":{"ja":"well"}}',
      '{"columns":{},"outcomes":{},"more":1}',
    ]) {
      expect(read(text), text).toBeUndefined();
      expect(guessMapping(["horse", "outcome"], read(text)).columns).toMatchObject({ horse: "horse", outcome: "outcome" });
    }
  });
});

import { describe, expect, it } from "vitest";
import { strandFromCatalogue } from "../strands";
import { circles, involvedIn } from "./involves";
import { WAYS, wayOf } from "./ways";

const plan = (...keys: ("circle" | "load" | "steps")[]) => ({ strands: keys.map((key) => strandFromCatalogue(key, key)), ways: {} });

describe("what a ladder involves", () => {
  it("is what its behaviour says, and what its strands say by themselves, each once", () => {
    expect(involvedIn(["tying"], plan("steps"), false)).toEqual(["tying"]);
    expect(involvedIn(["tying"], plan("circle", "load"), false)).toEqual(["tying", "circling", "load"]);
    expect(involvedIn(["circling"], plan("circle"), false)).toEqual(["circling"]);
    expect(circles(involvedIn([], plan("circle"), false))).toBe(true);
    expect(circles(involvedIn(["legs"], plan("steps"), false))).toBe(false);
  });

  it("is circling where a loose horse is sent round until it turns in, by each option of that way and its default", () => {
    const way = WAYS.find(({ key }) => key === "turning-in");
    for (const value of [undefined, ...(way?.options ?? []).map((option) => option.value)]) {
      const ways = value === undefined ? {} : { "turning-in": value };
      const round = wayOf(ways, "turning-in").value === "circle";
      expect(circles(involvedIn([], { ...plan("steps"), ways }, true))).toBe(round);
      // On a line nothing is loose.
      expect(circles(involvedIn([], { ...plan("steps"), ways }, false))).toBe(false);
    }
  });
});

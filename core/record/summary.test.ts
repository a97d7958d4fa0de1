import { describe, expect, it } from "vitest";
import { longestMetRun } from "./summary";

/** A block's answers as letters: + met, . anything else; blocks are set apart by a space. */
const trials = (blocks: string) =>
  blocks
    .split(" ")
    .flatMap((answers, blockIndex) =>
      [...answers].map((one) => ({ blockIndex, outcome: one === "+" ? ("met" as const) : ("miss" as const) })),
    );

describe("the longest run of met answers", () => {
  it.each([
    ["", 0],
    ["...", 0],
    ["++.+", 2],
    ["+.+++", 3],
    ["++ ++", 2],
    [".+++ +", 3],
  ])("of %j is %i: a new block begins anew", (answers, longest) => {
    expect(longestMetRun(trials(answers))).toBe(longest);
  });
});

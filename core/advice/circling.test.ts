import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "../record";
import { allowanceOn } from "../welfare";
import { adviceInputOf, theAdvice } from "./index";

const LEFT = { value: 8, why: "This yard's rule." };

/** A session of blocks on these ladders, each so many minutes long; the last one runs. */
function inputOf(blocks: readonly (readonly [ladder: string, minutes: number])[], circling: readonly string[] | null) {
  const w = new SessionWriter();
  let at = 0;
  for (const [i, [ladder, minutes]] of blocks.entries()) {
    if (i > 0) w.add(at, "block.end");
    w.block(at, { block: i + 1, ladder });
    w.add(at + 5, "trial", { outcome: "met", phase: 1 });
    at += minutes * 60;
  }
  const input = adviceInputOf({
    session: "s",
    record: reduceSession(w.events),
    nowMs: at * 1000,
    plan: { ...emptyDraft().plan, plannedRepetitions: 50 },
    ladder: blocks.at(-1)?.[0] ?? "",
    version: 1,
    handler: null,
    earlier: [],
    allowance: allowanceOn([], "2026-05-04", null),
    restingBreaths: null,
    circling: circling === null ? null : { left: LEFT, ladders: circling },
  });
  if (input === null) throw new Error("no block runs");
  return input;
}

describe("circling minutes of a session", () => {
  it("are those of the blocks on ladders that circle, and of no others", () => {
    const { limits } = inputOf(
      [
        ["straight", 6],
        ["round", 5],
        ["straight", 3],
        ["round", 2],
      ],
      ["round"],
    );
    expect(limits?.circling).toMatchObject({ minutes: 7, left: LEFT });
    expect(
      inputOf(
        [
          ["straight", 6],
          ["round", 5],
        ],
        null,
      ).limits?.circling,
    ).toBeNull();
  });

  it("end the work where they are used up, however much of anything else was done", () => {
    const said = (blocks: Parameters<typeof inputOf>[0]) => theAdvice(inputOf(blocks, ["round"]));
    expect(
      said([
        ["straight", 6],
        ["round", 7],
      ]).why,
    ).not.toBe("limit");
    expect(
      said([
        ["straight", 1],
        ["round", 9],
      ]),
    ).toMatchObject({ word: "Stop", why: "limit", reason: expect.stringContaining("9 minutes of circling") });
  });
});

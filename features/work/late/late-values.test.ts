import { describe, expect, it } from "vitest";
import type { LadderPlan } from "@/core/ladder";
import { strandFromCatalogue } from "@/core/strands";
import { emptyDraft } from "@/tests/support/plan";
import { blankRow, type LateLadder, type LateRow, type LateValues, lateBlockOf, lateSchema, rowAt } from "./late-values";

/** A ladder of three rungs, the second of which names the left. */
const draft = emptyDraft().plan;
const side = strandFromCatalogue("side", "which-side");
const [rung] = draft.rungs;
if (rung === undefined) throw new Error("No rung.");
const plan: LadderPlan = {
  ...draft,
  strands: [...draft.strands, side],
  rungs: [rung, { ...rung, values: { ...rung.values, [side.id]: "left" } }, rung],
};
const ladder = (id: string): LateLadder => ({ id, version: 1, name: `behaviour ${id}`, rung: 1, plan });
const LADDERS = [ladder("one"), ladder("two")];
const row = (change: Partial<LateRow> = {}): LateRow => ({ ...blankRow(LADDERS), met: "6", light: "4", phase: "2", ...change });

async function problemsOf(values: Partial<LateValues>): Promise<Readonly<Record<string, string>>> {
  const whole = { when: "2026-05-04T10:00", person: "", place: "", rows: [row()], better: "", next: "", ...values };
  try {
    await lateSchema(LADDERS).validate(whole, { abortEarly: false });
    return {};
  } catch (thrown) {
    const { inner } = thrown as { inner: readonly { path: string; message: string }[] };
    return Object.fromEntries(inner.map(({ path, message }) => [path, message]));
  }
}

describe("a session typed from memory", () => {
  it("is taken where every block comes out as it is written", async () => {
    expect(await problemsOf({})).toEqual({});
  });

  it("says at each block what is wrong with it, and at the beginning that it is not over", async () => {
    expect(await problemsOf({ rows: [row(), row({ met: "two" }), row({ met: "", light: "" })] })).toEqual({
      "rows[1]": "Counts are whole numbers from 0.",
      "rows[2]": "Nothing is counted yet.",
    });
    expect(await problemsOf({ when: "" })).toEqual({ when: "A day and a time are needed." });
    const nearly = new Date(Date.now() - 4 * 60_000).toISOString();
    expect(await problemsOf({ when: nearly, rows: [row({ minutes: "3" })] })).toEqual({});
    expect(await problemsOf({ when: nearly, rows: [row({ minutes: "3" }), row({ minutes: "3" })] })).toEqual({
      when: "It must be over by now.",
    });
  });

  it("takes a comma, and nothing typed for none", () => {
    expect(lateBlockOf(row({ minutes: "2,5", try: "", light: "" }), LADDERS)).toMatchObject({ minutes: 2.5, try: 0, metAtLightest: null });
    expect(lateBlockOf(row({ phase: "" }), LADDERS).phase).toBeNull();
  });

  it("goes to the other side for the next block, and to the side a rung names", () => {
    expect(blankRow(LADDERS, row({ side: "L" })).side).toBe("R");
    expect(rowAt(row({ side: "R" }), ladder("one"), 2).side).toBe("L");
  });

  it("forgets the phase where another ladder has other phases, and keeps it on the same one", () => {
    expect(rowAt(row(), ladder("two"), 1)).toMatchObject({ ladder: "two", phase: "" });
    expect(rowAt(row(), ladder("one"), 3)).toMatchObject({ rung: 3, phase: "2" });
  });
});

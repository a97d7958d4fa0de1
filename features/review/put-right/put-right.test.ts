import { describe, expect, it } from "vitest";
import type { Correction } from "@/core/record";
import { reduceSession } from "@/core/record/reduce-session";
import { SessionWriter } from "@/tests/support/session-writer";
import { eventsOfBlock } from "./block-right";
import { sessionChange } from "./session-right";
import { rightOf, typedTrial } from "./trial-right";
import { correctionLines } from "./was-put-right";

/** Two blocks with an answer each, a note in the first. */
function twoBlocks() {
  const session = new SessionWriter();
  session.add(0, "session.start", { horse: "Bo" });
  const first = session.block(10);
  const trial = session.add(15, "trial", { outcome: "met", phase: 1, reinforced: true });
  const value = session.add(16, "measure", { strand: "distance", value: 2.5, unit: "m" });
  const note = session.add(17, "note", { text: "Softer.", about: "better" });
  const end = session.add(20, "block.end");
  const second = session.block(30, { block: 2, side: "R" });
  const other = session.add(35, "trial", { outcome: "miss", phase: 2, reinforced: false });
  session.add(40, "block.end");
  return { record: reduceSession(session.events), first, trial, value, note, end, second, other };
}

describe("a session put right", () => {
  it("says of a trial only what was typed otherwise", () => {
    const [trial] = twoBlocks().record.trials;
    if (trial === undefined) throw new Error("No trial.");
    const typed = typedTrial(trial);
    expect(rightOf(trial, typed)).toEqual({});
    expect(rightOf(trial, { ...typed, outcome: "try", value: "2,75", ease: "0" })).toEqual({ outcome: "try", value: 2.75, ease: 0 });
    expect(rightOf(trial, { ...typed, note: "on film" })).toEqual({ note: "on film" });
  });
  it("takes no value that is no number, and nothing taken away for a nought", () => {
    const [trial] = twoBlocks().record.trials;
    if (trial === undefined) throw new Error("No trial.");
    const typed = { ...typedTrial(trial), value: "2.5", phase: "1" };
    const known = { ...trial, value: 2.5, phase: 1 };
    expect(rightOf(known, { ...typed, value: "much" })).toEqual({});
    expect(rightOf(known, { ...typed, value: "", phase: "" })).toEqual({});
  });
  it("strikes a block with its own trials and values, and leaves notes and the next block", () => {
    const { record, first, trial, value, end, note, second, other } = twoBlocks();
    const [block] = record.blocks;
    if (block === undefined) throw new Error("No block.");
    const struck = eventsOfBlock(block, record);
    expect([...struck].sort()).toEqual([first, trial, value, end].sort());
    for (const stays of [note, second, other]) expect(struck).not.toContain(stays);
  });
  it("writes what was struck in one moment as one line: the block", () => {
    const one = (id: string, type: string, wallMs: number): Correction =>
      ({ id, of: `of-${id}`, type, wallMs, struck: true, reason: "tapped wrong" }) as Correction;
    const lines = correctionLines([one("a", "trial", 5), one("b", "block.start", 5), one("c", "gait", 5), one("d", "note", 9)]);
    expect(lines.map(({ id }) => id)).toEqual(["b", "d"]);
  });
  it("moves a session by whole minutes and keeps the seconds that no field shows", () => {
    const was = { horse: "h", ladder: "", person: "p", place: "", when: "2026-05-04T10:00" };
    const begun = Date.UTC(2026, 4, 4, 10, 0, 42);
    expect(sessionChange(was, was, begun)).toEqual({});
    expect(sessionChange(was, { ...was, when: "2026-05-04T10:05" }, begun)).toEqual({ started_ms: begun + 300_000 });
    expect(sessionChange(was, { ...was, person: "", place: "yard" }, begun)).toEqual({ person: null, place: "yard" });
  });
  it("lets the ladder go along to another horse, or names one there, or none", () => {
    const was = { horse: "h", ladder: "", person: "", place: "", when: "" };
    expect(sessionChange(was, { ...was, horse: "g", ladder: "along" }, null)).toEqual({ horse: "g", take_along: true });
    expect(sessionChange(was, { ...was, horse: "g", ladder: "l" }, null)).toEqual({ horse: "g", ladder: "l" });
    expect(sessionChange(was, { ...was, horse: "g" }, null)).toEqual({ horse: "g", ladder: null });
  });
});

import { describe, expect, it } from "vitest";
import { reduceSession } from "@/core/record";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { lastPress } from "./undo";

describe("lastPress", () => {
  it("takes presses back one by one, to any depth, and stops at the first block", () => {
    const w = new SessionWriter();
    w.add(0, "session.start", { horse: "h", method: "combined" });
    w.block(1);
    const trials = [2, 3, 4].map((at) => w.add(at, "trial", { outcome: "met" }));
    for (const id of [...trials].reverse()) {
      const press = lastPress(w.events, "phone:a");
      expect(press.map((e) => e.id)).toEqual([id]);
      w.add(10, "undo", { event: id });
    }
    expect(lastPress(w.events, "phone:a")).toEqual([]);
    expect(reduceSession(w.events).trials).toEqual([]);
  });

  it("offers again what an undone undo brought back", () => {
    const w = new SessionWriter();
    w.block(0);
    const trial = w.add(2, "trial", { outcome: "met" });
    const undo = w.add(3, "undo", { event: trial });
    w.add(4, "undo", { event: undo });
    expect(reduceSession(w.events).trials).toHaveLength(1);
    expect(lastPress(w.events, "phone:a").map((e) => e.id)).toEqual([trial]);
  });

  it("takes back all that one press logged: the end of a block with the start of the next", () => {
    const w = new SessionWriter();
    w.block(0);
    const end = w.add(5, "block.end");
    const start = w.block(5, { block: 2 });
    expect(lastPress(w.events, "phone:a").map((e) => e.id)).toEqual([start, end]);
  });

  it("leaves other recorders, words and notes alone", () => {
    const w = new SessionWriter();
    w.block(0);
    const own = w.add(1, "trial", { outcome: "met" });
    w.add(2, "trial", { outcome: "miss" }, "tablet:b", testId(2));
    w.add(3, "word", { word: "Stay" });
    w.add(4, "note", { text: "x" });
    expect(lastPress(w.events, "phone:a").map((e) => e.id)).toEqual([own]);
    expect(lastPress(w.events, "nobody:c")).toEqual([]);
  });

  it("sees an undo that was itself undone", () => {
    const w = new SessionWriter();
    w.block(0);
    const trial = w.add(1, "trial", { outcome: "met" });
    const undo = w.add(2, "undo", { event: trial });
    w.add(3, "undo", { event: undo });
    expect(lastPress(w.events, "phone:a").map((e) => e.id)).toEqual([trial]);
  });
});

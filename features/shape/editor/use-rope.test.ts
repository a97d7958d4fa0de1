import { describe, expect, it } from "vitest";
import { copyRung, deleteRung, type Rope, setValue, splitRung, stepValue } from "@/core/ladder";
import { strandFromCatalogue } from "@/core/strands";
import { type RopeAction, ropeReducer, ropeStart } from "./use-rope";

const rope: Rope = {
  strands: [strandFromCatalogue("stay", "stay"), strandFromCatalogue("tether", "tether")],
  rungs: [
    { values: { stay: 2, tether: "short lead" } },
    { values: { stay: 20, tether: "short lead" } },
    { values: { stay: 20, tether: "long line" } },
  ],
};
const run = (...actions: RopeAction[]) => actions.reduce(ropeReducer, ropeStart({ rope, ways: {} }));
const edit = (change: (rope: Rope) => Rope, gesture?: string, select?: number): RopeAction => ({
  kind: "edit",
  edit: change,
  gesture,
  select,
});
const longer = (gesture?: string) => edit((now) => stepValue(now, 1, "stay", 1), gesture);

describe("ropeReducer", () => {
  it("undoes and redoes to the very objects there were", () => {
    const one = run(
      longer(),
      edit((now) => copyRung(now, 2), undefined, 3),
    );
    expect(one.rope.rungs).toHaveLength(4);
    expect(one.selected).toBe(3);
    const back = [{ kind: "undo" }, { kind: "undo" }, { kind: "undo" }] as const;
    const undone = back.reduce<typeof one>(ropeReducer, one);
    expect(undone.rope).toBe(rope);
    const redone = [{ kind: "redo" }, { kind: "redo" }, { kind: "redo" }].reduce<typeof one>(
      (state, action) => ropeReducer(state, action as RopeAction),
      undone,
    );
    expect(redone.rope).toBe(one.rope);
  });

  it("undoes a whole gesture at once, and two gestures one by one", () => {
    const state = run(longer("a"), longer("a"), longer("b"));
    expect(state.rope.rungs[0]?.values.stay).toBe(4);
    const once = ropeReducer(state, { kind: "undo" });
    expect(once.rope.rungs[0]?.values.stay).toBe(3);
    expect(ropeReducer(once, { kind: "undo" }).rope).toBe(rope);
  });

  it("forgets what was undone once something else is done", () => {
    const state = run(
      longer(),
      { kind: "undo" },
      edit((now) => setValue(now, 1, "stay", 5)),
      { kind: "redo" },
    );
    expect(state.rope.rungs[0]?.values.stay).toBe(5);
    expect(state.future).toEqual([]);
  });

  it("says why a change cannot be made and keeps the rope", () => {
    const state = run(
      edit((now) => deleteRung(now, 1)),
      edit((now) => deleteRung(now, 1)),
    );
    expect(state.rope.rungs).toHaveLength(2);
    expect(state.problem).toBe("A ladder keeps at least 2 rungs.");
    const bad = run(
      edit((now) => setValue(now, 2, "stay", "soon")),
      edit((now) => splitRung(now, 2)),
    );
    expect(bad.problem).toContain("Put a good value in first");
    expect(bad.rope.rungs[1]?.values.stay).toBe("soon");
  });

  it("leaves no step to undo where nothing changed", () => {
    expect(run(edit((now) => setValue(now, 1, "stay", 2))).past).toEqual([]);
  });

  it("keeps the chosen rung on the ladder", () => {
    const state = run(
      { kind: "select", rung: 3 },
      edit((now) => deleteRung(now, 3)),
    );
    expect(state.selected).toBe(2);
    expect(ropeReducer(state, { kind: "select", rung: 99 }).selected).toBe(2);
  });

  it("turns the tether about with the choice of starting free, and undo turns it back with the choice", () => {
    const state = run({ kind: "way", key: "begins", value: "free" });
    const tether = state.rope.strands[1];
    expect(tether?.levels[0]).toBe(rope.strands[1]?.levels.at(-1));
    expect(state.rope.rungs[0]?.values.tether).toBe(tether?.levels[0]);
    expect(ropeReducer(state, { kind: "undo" })).toMatchObject({ rope, ways: {} });
    expect(run({ kind: "way", key: "begins", value: "line" }).past).toEqual([]);
    expect(run({ kind: "way", key: "directions", value: "one-a-day" }).rope).toBe(rope);
  });
});

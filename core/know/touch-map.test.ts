import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  besideZone,
  proposeTouch,
  stateOfGrade,
  TOUCH_ZONES,
  type Touch,
  TouchMap,
  type TouchTool,
  type TouchZone,
  zoneCaution,
} from "./index";

let clock = 0;
const touch = (side: "L" | "R", zone: TouchZone, tool: TouchTool, grade: number): Touch => ({ wallMs: clock++, side, zone, tool, grade });
const all = (side: "L" | "R", tool: TouchTool, grade = 3) => TOUCH_ZONES.map((zone) => touch(side, zone, tool, grade));

describe("zones", () => {
  it("are all joined: from the shoulder every zone can be reached, and being beside goes both ways", () => {
    const reached = new Set<TouchZone>(["shoulder"]);
    for (const zone of reached) for (const next of besideZone(zone)) reached.add(next);
    expect(reached.size).toBe(TOUCH_ZONES.length);
    for (const zone of TOUCH_ZONES) for (const next of besideZone(zone)) expect(besideZone(next)).toContain(zone);
  });

  it("carry the kick or the strike caution", () => {
    for (const zone of ["hock", "flank", "behind the tail", "hind hoof"] as const) expect(zoneCaution(zone)).toContain("Kick zone");
    for (const zone of ["knee", "chest", "hoof"] as const) expect(zoneCaution(zone)).toContain("Strike zone");
    expect(zoneCaution("neck")).toBeNull();
  });

  it.each([
    [null, "untouched"],
    [0, "worrying"],
    [1, "worrying"],
    [2, "unsure"],
    [3, "accepted"],
    [4, "accepted"],
  ])("a grade of %s reads %s", (grade, state) => {
    expect(stateOfGrade(grade)).toBe(state);
  });
});

describe("TouchMap", () => {
  it("holds the last grade, when, and all before, whatever the order they came in", () => {
    const list = [
      touch("L", "neck", "rope", 1),
      touch("L", "neck", "rope", 2),
      touch("L", "neck", "hand", 4),
      touch("L", "neck", "rope", 3),
    ];
    const map = new TouchMap([...list].reverse());
    expect(map.of("L", "neck", "rope")).toMatchObject({ grade: 3, history: [{ grade: 1 }, { grade: 2 }, { grade: 3 }] });
    expect(map.latest("L", "neck")).toMatchObject({ tool: "rope", grade: 3 });
    expect(map.latest("R", "neck")).toBeNull();
    expect(map.counts("L")).toEqual({ untouched: 22, worrying: 0, unsure: 0, accepted: 1 });
  });

  it("finds the weaker side from zones touched on both with one tool", () => {
    expect(new TouchMap([]).weakerSide()).toEqual({ side: "L", left: null, right: null, pairs: 0 });
    const map = new TouchMap([touch("L", "neck", "rope", 4), touch("R", "neck", "rope", 2), touch("R", "back", "rope", 0)]);
    expect(map.weakerSide()).toEqual({ side: "R", left: 4, right: 2, pairs: 1 });
  });
});

describe("proposeTouch", () => {
  it("begins at the shoulder with the stick", () => {
    expect(proposeTouch(new TouchMap([]))).toMatchObject({ zone: "shoulder", tool: "stick", side: "L" });
  });

  it("goes beside what is accepted, unsure before untouched before worrying", () => {
    const base = [touch("L", "shoulder", "stick", 3)];
    const next = proposeTouch(new TouchMap(base));
    expect(besideZone("shoulder")).toContain(next?.zone);
    expect(next?.reason).toBe("Beside the shoulder, which is accepted.");
    expect(proposeTouch(new TouchMap([...base, touch("L", "girth", "stick", 2)]))?.zone).toBe("girth");
    const worried = besideZone("shoulder")
      .slice(1)
      .map((zone) => touch("L", zone, "stick", 0));
    expect(proposeTouch(new TouchMap([...base, ...worried]))?.zone).toBe(besideZone("shoulder")[0]);
  });

  it("takes the weaker side first, and says so", () => {
    const map = new TouchMap([touch("L", "shoulder", "stick", 4), touch("R", "shoulder", "stick", 3)]);
    expect(proposeTouch(map)).toMatchObject({ side: "R", tool: "stick" });
    expect(proposeTouch(map)?.reason).toContain("right is the weaker side");
  });

  it("takes the tool a step nearer to the hand once the one before has gone everywhere", () => {
    const done = [...all("L", "stick"), ...all("R", "stick")];
    expect(proposeTouch(new TouchMap(done))).toMatchObject({ zone: "shoulder", tool: "rope" });
    expect(proposeTouch(new TouchMap(done))?.reason).toContain("one step nearer to the hand");
    const hand = [...done, ...all("L", "hand"), ...all("R", "hand")];
    expect(proposeTouch(new TouchMap(hand))).toBeNull();
  });

  it("never proposes what a restriction names, what is accepted, or what lies beside nothing accepted", () => {
    const touches = fc.array(
      fc.record({
        wallMs: fc.integer({ min: 0, max: 1000 }),
        side: fc.constantFrom<"L" | "R">("L", "R"),
        zone: fc.constantFrom(...TOUCH_ZONES),
        tool: fc.constantFrom<TouchTool>("stick", "rope", "brush", "hand"),
        grade: fc.integer({ min: 0, max: 4 }),
      }),
      { maxLength: 80 },
    );
    fc.assert(
      fc.property(touches, fc.subarray([...TOUCH_ZONES]), (list, barred) => {
        const map = new TouchMap(list);
        const next = proposeTouch(map, barred);
        if (next === null) return;
        expect(barred).not.toContain(next.zone);
        expect(map.state(next.side, next.zone, next.tool)).not.toBe("accepted");
        const beside = besideZone(next.zone).some((zone) => map.state(next.side, zone, next.tool) === "accepted");
        expect(beside || next.zone === "shoulder").toBe(true);
      }),
    );
  });
});

import { describe, expect, it } from "vitest";
import { analyseTrialsText } from "./analyse";

const HEAD = "session,started_at,horse,behaviour,rung,trial,t_s,side,outcome,phase,ease,block,block_s";

/** Twelve sessions of a horse, the sides by turns first; so many of eight are met on each, and on the right by one more. */
function sidesFile(horse: string, left: number, right: number): string[] {
  return Array.from({ length: 12 }, (_, day) => {
    const order = day % 2 === 0 ? (["L", "R"] as const) : (["R", "L"] as const);
    return order.flatMap((side, half) =>
      Array.from({ length: 8 }, (__, i) => {
        const met = i < (side === "L" ? left : right);
        const n = 8 * half + i + 1;
        return `${horse}-${day},2026-03-${String(day + 1).padStart(2, "0")}T10:00:00+01:00,${horse},back,2,${n},${20 * n},${side},${met ? "met" : "miss"},${met ? 1 : ""},${Math.min(4, Math.floor(day / 3))},1,400`;
      }),
    );
  }).flat();
}

const read = (rows: readonly string[]) => analyseTrialsText([HEAD, ...rows].join("\n"));

describe("what analyse says over sessions", () => {
  it("holds the sides against each other by sessions, as the screen does", () => {
    const [horse] = read(sidesFile("Moss", 3, 8)).over_sessions ?? [];
    const [all, own] = horse?.sides ?? [];
    // Six of twelve began left: of C(12, 6) = 924 orders two are as far apart, this one and its opposite.
    expect(all?.p).toBeCloseTo(2 / 924, 12);
    expect(all).toMatchObject({
      behaviour: null,
      weaker: "left",
      sessions_compared: 12,
      left: { met: 36, n: 96 },
      right: { met: 96, n: 96 },
    });
    expect(all?.right_less_left).toBeCloseTo(5 / 8, 12);
    expect(own).toEqual({ ...all, behaviour: "back" });
  });

  it("gives a change a week and its interval, and no change where nothing is", () => {
    const [horse] = read(sidesFile("Moss", 6, 6)).over_sessions ?? [];
    const [trend] = horse?.trends ?? [];
    // Twelve of sixteen in 400 s each time; calm rises by one in three sessions, days 0 to 11.
    expect(trend).toMatchObject({ behaviour: "back", sessions: 12 });
    expect(trend?.responses_per_min?.factor).toBeCloseTo(1, 12);
    expect(trend?.lightness?.a_week).toBeCloseTo(0, 12);
    // Least squares of 0,0,0,1,1,1,2,2,2,3,3,3 on 0 to 11: 45/143 a day.
    expect(trend?.ease?.a_week).toBeCloseTo((7 * 45) / 143, 12);
    expect(horse?.sides[0]).toMatchObject({ weaker: null, p: 1 });
  });

  it("keeps horses apart, and says null of what such a file does not hold", () => {
    const horses = read([...sidesFile("Moss", 3, 8), ...sidesFile("Fern", 6, 6)]).over_sessions ?? [];
    expect(horses.map(({ horse, sides }) => [horse, sides[0]?.weaker])).toEqual([
      ["Moss", "left"],
      ["Fern", null],
    ]);
    expect(horses[0]).toMatchObject({ places: null, before_it_goes: null, steps: null });
    expect(read([]).over_sessions).toEqual([]);
  });

  it("compares no side of what was written down from memory, nor of a rung without a number", () => {
    const rows = sidesFile("Moss", 3, 8);
    const late = analyseTrialsText([`${HEAD},logged`, ...rows.map((row) => `${row},late`)].join("\n")).over_sessions ?? [];
    expect(late[0]?.sides[0]).toMatchObject({ weaker: null, sessions_compared: 0 });
    const unnamed = read(rows.map((row) => row.replace(",back,2,", ",back,middle,"))).over_sessions ?? [];
    expect(unnamed[0]?.sides).toHaveLength(1);
    expect(unnamed[0]?.sides[0]).toMatchObject({ weaker: null, sessions_compared: 0 });
  });
});

import { describe, expect, it } from "vitest";
import { mixedChance } from "@/core/chance";
import { CALLED_AT, signFlip } from "@/core/evidence";
import { sideCells } from "@/core/past";
import { oneCell, YARDS } from "@/tests/truth/matrix";
import { yard } from "@/tests/truth/matrix/yards";
import { pastOf, STILL, season } from "@/tests/truth/yard";

// The small form of `npm run -s truth -- --matrix`, on seeds that no limit was tuned on.
const SEED = 281;
const HORSES = 30;

describe("what the app says in a yard with habits", () => {
  it.each([
    ["easier / harder at", "easier by and by, always in the same order"],
    ["easier / harder at", "easier by and by, the worse first"],
    ["left / right is weaker", "begins cold, always in the same order"],
    ["left / right is weaker", "begins cold, the worse first"],
    ["left / right is weaker", "tires, always in the same order"],
    ["usually turns after", "stops after two misses running"],
    ["usually turns after", "follows the app's word"],
    ["after head high it left", "bouts of two"],
    ["after head high it left", "commoner late, four times"],
    ["after head high it left", "commoner late and in twos"],
    ["could be anywhere from … to …, 5 sessions", "days in moods, 0.5"],
    ["could be anywhere from … to …, 16 sessions", "days in moods, 0.5"],
    ["could be anywhere from … to …, 16 sessions", "ends at nine of ten"],
    ["lighter / less light, a week, 24 sessions", "days in moods, 0.5"],
    ["calmer / less calm, a week, 12 sessions", "days in moods, 0.5"],
    ["right answers × … a week, 24 sessions", "days in moods, 0.5"],
    ["met so much less often in wind", "days in moods, 0.8"],
    ["signs in ten minutes: more than usual", "bouts of three"],
    ["tension comes with wrong choices", "commoner late and in twos"],
    ["too soon or too big: raised at nine of ten, rung as easy, true share 0.55", "begins cold"],
    ["did better in how often it gets it right", "stops after two misses running"],
    ["the second side takes fewer / more asks", "days in moods, 0.5"],
  ])("%s: a yard that %s", (name, of) => {
    const { state, share } = oneCell(name, of, HORSES, SEED);
    expect(state, `${Math.round(100 * share)} %`).not.toBe("over");
  });

  it.each([
    ["easier / harder at", 0.8],
    ["left / right is weaker", 0.6],
    ["after head high it left", 0.8],
  ])("still finds what is there: %s", (name, least) => {
    const { found } = oneCell(name, "nothing turned", HORSES, SEED);
    expect(found?.share).toBeGreaterThanOrEqual(least);
  });

  it("would be caught where what comes first is not taken out", () => {
    const turned = (cells: ReturnType<typeof sideCells>) => {
      const differences = cells.flatMap((one) =>
        one.flatMap(({ first, second }) =>
          first.of === 0 || second.of === 0 ? [] : [{ difference: second.met / second.of - first.met / first.of, weight: 1 }],
        ),
      );
      return (signFlip(differences)?.p ?? 1) < CALLED_AT;
    };
    const dials = { ...STILL, cold: 1.6, order: "always the same" as const };
    const said = Array.from({ length: HORSES }, (_, i) =>
      turned(sideCells(pastOf(season(mixedChance(`${SEED} ${i}`), dials, { share: 0.65, leftBehind: 0 }, 24)))),
    );
    expect(said.filter(Boolean).length).toBeGreaterThan(HORSES / 4);
  });

  it("asks each sentence under every habit it can have to do with", () => {
    for (const { name, dials, rows } of YARDS) {
      expect(dials.length, name).toBeGreaterThanOrEqual(6);
      expect(dials[0]?.[0], name).toBe("nothing turned");
      expect(new Set(rows.map((row) => row.name)).size).toBe(rows.length);
    }
    expect(() => oneCell("usually turns after", "no such dial", 1, 1)).toThrow(RangeError);
    const of = YARDS.find(({ name }) => name === "asks");
    expect(of?.rows.find(({ name }) => name === "usually turns after")?.trueWhere({ tires: 1 })).toBe(true);
  });

  it("gives every sentence of a yard the same horse", () => {
    const drawn: number[] = [];
    const two = yard<number>(
      "two",
      () => true,
      (chance) => chance(),
      ["one", "other"].map((name) => ({
        name,
        limit: 5,
        falsely: (value) => {
          drawn.push(value);
          return name === "one" ? false : null;
        },
      })),
    );
    expect([...two.nothing(mixedChance("x"), STILL, new Set(["one", "other"]))]).toEqual([["one", false]]);
    expect(drawn).toHaveLength(2);
    expect(drawn[0]).toBe(drawn[1]);
    expect(two.nothing(mixedChance("x"), STILL, new Set(["none"])).size).toBe(0);
  });
});

import { describe, expect, it } from "vitest";
import { CALLED_AT, signFlip } from "@/core/evidence";
import { sideCells } from "@/core/past";
import { cellOf, dialsOf, SENTENCES, type Sentence } from "@/tests/truth/matrix";
import { DIALS, pastOf, season } from "@/tests/truth/yard";

// The small form of `npm run -s truth -- --matrix`, on seeds that no limit was tuned on.
const SEED = 281;
const HORSES = 30;

const sentence = (name: string): Sentence => {
  const found = SENTENCES.find((one) => one.name === name);
  if (found === undefined) throw new Error(`There is no sentence ${name}.`);
  return found;
};
const dial = (name: string) => {
  const found = DIALS.find(([own]) => own === name);
  if (found === undefined) throw new Error(`There is no dial ${name}.`);
  return found;
};

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
    ["lighter / less light, a week", "days in moods, 0.5"],
  ])("%s: a yard that %s", (name, of) => {
    const { state, share } = cellOf({ ...sentence(name), found: undefined }, dial(of), HORSES, SEED);
    expect(state, `${Math.round(100 * share)} %`).not.toBe("over");
  });

  it.each([
    ["easier / harder at", 0.8],
    ["left / right is weaker", 0.6],
    ["after head high it left", 0.8],
  ])("still finds what is there: %s", (name, least) => {
    const { found } = cellOf(sentence(name), dial("nothing turned"), HORSES, SEED);
    expect(found).toBeGreaterThanOrEqual(least);
  });

  it("would be caught where what comes first is not taken out", () => {
    const turned: Sentence = {
      name: "left / right is weaker, by turned signs alone",
      limit: 5,
      of: "sides",
      run: (chance, dials) => {
        const differences = sideCells(pastOf(season(chance, dials, { share: 0.65, leftBehind: 0 }, 24))).flatMap((cells) =>
          cells.flatMap(({ first, second }) =>
            first.of === 0 || second.of === 0 ? [] : [{ difference: second.met / second.of - first.met / first.of, weight: 1 }],
          ),
        );
        return (signFlip(differences)?.p ?? 1) < CALLED_AT;
      },
    };
    expect(cellOf(turned, dial("begins cold, always in the same order"), HORSES, SEED).state).toBe("over");
  });

  it("asks each sentence under every habit it can have to do with", () => {
    for (const one of SENTENCES) expect(dialsOf(one).length, one.name).toBeGreaterThanOrEqual(6);
    expect(dialsOf(sentence("usually turns after")).some(([, { tires }]) => tires !== undefined)).toBe(false);
  });
});

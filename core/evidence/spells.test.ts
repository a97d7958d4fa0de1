import { describe, expect, it } from "vitest";
import { drawNormal, seededChance } from "../chance";
import { acrossSpells, type DatedSum, spellFactor } from "./spells";

const sessions = (lots: string, shares: readonly number[]): DatedSum[] =>
  [...lots].map((lot, i) => ({ startedMs: i, second: lot === "B", sum: (shares[i] as number) * 10, of: 10 }));

describe("two lots that come in spells", () => {
  it("have a difference that varies more, by hand", () => {
    // Residuals −0.1, 0.1, −0.1, 0.1: −0.75·4/3 + 2/4 = −0.5, drawn to (−2 + 2.8)/12 and 0.08 more, ρ 0.146667.
    // Lots −½, −½, ½, ½: a₁ 0.25, a₂ −0.5, a₃ −0.25. f = 1 + 2(a₁ρ + a₂ρ² + a₃ρ³).
    expect(spellFactor(sessions("AABB", [0.2, 0.4, 0.6, 0.8]))).toBeCloseTo(1.050244741, 8);
  });

  it("vary no more where the lots take turns, or where there is one", () => {
    expect(spellFactor(sessions("ABABABAB", [0.2, 0.4, 0.3, 0.8, 0.9, 0.7, 0.6, 0.5]))).toBe(1);
    expect(spellFactor(sessions("AAAA", [0.2, 0.4, 0.6, 0.8]))).toBe(1);
    expect(spellFactor([])).toBe(1);
  });

  it("do not hang on the order in which they are handed over", () => {
    const list = sessions("AAABBBAABB", [0.2, 0.4, 0.3, 0.8, 0.9, 0.7, 0.6, 0.5, 0.2, 0.1]);
    expect(spellFactor([...list].reverse())).toBe(spellFactor(list));
  });

  it("divide the χ² of a p", () => {
    // χ² of one degree: 3.841459 at 0.05; half of it, 1.920729, leaves 0.165776 above (from memory, to four digits, of printed tables).
    expect(acrossSpells(0.05, 2)).toBeCloseTo(0.1658, 4);
    expect(acrossSpells(0.05, 1)).toBe(0.05);
    expect(acrossSpells(1, 3)).toBe(1);
  });

  it("come to about the variance that simulated spells have, or more", () => {
    // Lots in blocks of four, values alike by 0.6: how much a difference of means varies beside that of independent values.
    const chance = seededChance(5);
    const lots = "AAAABBBBAAAABBBBAAAABBBB";
    let squares = 0;
    let factors = 0;
    const n = 2000;
    for (let i = 0; i < n; i++) {
      let now = drawNormal(chance, 0, 1);
      const values = [...lots].map(() => {
        const value = now;
        now = 0.6 * now + 0.8 * drawNormal(chance, 0, 1);
        return value;
      });
      const mean = (lot: string) => values.reduce((sum, value, j) => sum + (lots[j] === lot ? value : 0), 0) / 12;
      squares += (mean("B") - mean("A")) ** 2;
      factors += spellFactor(sessions(lots, values));
    }
    const truth = squares / n / (2 / 12);
    expect(factors / n).toBeGreaterThan(0.85 * truth);
    expect(factors / n).toBeLessThan(1.4 * truth);
  });
});

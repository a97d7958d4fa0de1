import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { counted, numberWord, numberWordFirst, wholeParts } from "./words";

it.each([
  [0, "trial", undefined, "0 trials"],
  [1, "trial", undefined, "1 trial"],
  [1, "try", "tries", "1 try"],
  [2, "try", "tries", "2 tries"],
])("%s %s", (n, one, many, words) => {
  expect(counted(n, one, many)).toBe(words);
});

it("adds whole parts up to the whole as it is said", () => {
  expect(wholeParts([1.6, 10.6])).toEqual([2, 10]);
  expect(wholeParts([0.4, 0.4, 0.4])).toEqual([1, 0, 0]);
  expect(wholeParts([])).toEqual([]);
  expect(wholeParts([3, 4])).toEqual([3, 4]);
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 500, noNaN: true }), { maxLength: 8 }), (parts) => {
      const whole = wholeParts(parts);
      expect(whole.reduce((sum, one) => sum + one, 0)).toBe(Math.round(parts.reduce((sum, one) => sum + one, 0)));
      for (const [i, part] of parts.entries()) expect(Math.abs((whole[i] ?? 0) - part)).toBeLessThan(1 + 1e-9);
    }),
  );
});

describe("numbers as they are said", () => {
  it.each([
    [0, "no"],
    [1, "one"],
    [10, "ten"],
    [11, "11"],
  ])("%s is %s", (n, word) => {
    expect(numberWord(n)).toBe(word);
  });

  it("has a capital at the head of a sentence", () => {
    expect([numberWordFirst(6), numberWordFirst(12)]).toEqual(["Six", "12"]);
  });
});

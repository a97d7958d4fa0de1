import { expect, it } from "vitest";
import { counted } from "./words";

it.each([
  [0, "trial", undefined, "0 trials"],
  [1, "trial", undefined, "1 trial"],
  [1, "try", "tries", "1 try"],
  [2, "try", "tries", "2 tries"],
])("%s %s", (n, one, many, words) => {
  expect(counted(n, one, many)).toBe(words);
});

import { expect, it } from "vitest";
import { readFace } from "./face";

it.each([
  ["plain", "plain"],
  ["full", "full"],
  [null, "full"],
  ["", "full"],
  ['{"face":"plain"}', "full"],
  ["one button", "full"],
])("what was kept as %s is the %s face", (kept, face) => {
  expect(readFace(kept)).toBe(face);
});

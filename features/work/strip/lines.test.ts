import { expect, it } from "vitest";
import { linesSeen } from "./lines";

it.each([
  ["one line in sight", { scrollHeight: 46, clientHeight: 46, scrollTop: 0 }, { lines: 1, at: 0 }],
  ["three lines of pads with their gaps", { scrollHeight: 148, clientHeight: 46, scrollTop: 51 }, { lines: 3, at: 1 }],
  ["scrolled to the last", { scrollHeight: 148, clientHeight: 46, scrollTop: 102 }, { lines: 3, at: 2 }],
  ["two lines in sight of four", { scrollHeight: 200, clientHeight: 98, scrollTop: 102 }, { lines: 2, at: 1 }],
  ["nothing laid out yet", { scrollHeight: 0, clientHeight: 0, scrollTop: 0 }, { lines: 1, at: 0 }],
])("%s", (_, box, seen) => {
  expect(linesSeen(box)).toEqual(seen);
});

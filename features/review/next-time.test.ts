// @vitest-environment happy-dom
import { cleanup, render } from "@testing-library/react";
import { createElement } from "react";
import { afterEach, expect, it } from "vitest";
import type { NextStart } from "@/core/advice";
import { reduceSession, summariseSession } from "@/core/record";
import { SessionWriter } from "@/tests/support/session-writer";
import { NextTime } from "./next-time";

afterEach(cleanup);

/** Nine right answers and one other, of as many ladders as are named. */
function worked(...ladders: readonly string[]) {
  const writer = new SessionWriter();
  writer.add(0, "session.start", { horse: "Bo", method: "combined" });
  let second = 1;
  for (const behaviour of ladders) {
    writer.block(second++, { behaviour, ladder: behaviour });
    for (let i = 0; i < 10; i++) writer.add(second++, "trial", { outcome: i === 4 ? "miss" : "met", phase: 1, logged: "tally" });
  }
  return summariseSession(reduceSession(writer.events));
}
const start: NextStart = { rung: 2, kind: "work", headline: "Start on rung 2", reason: "Rung 1 is done.", barred: null };
const heading = (next: NextStart | null, summary = worked("halts"), finished = true) =>
  render(createElement(NextTime, { next, summary, finished })).container.querySelector("h2")?.textContent ?? null;

it.each([
  ["how it went and where it goes on, in one line", start, worked("halts"), true, "9 of 10. Next time: start on rung 2."],
  ["no one count of several ladders", start, worked("halts", "backs"), true, "Next time: start on rung 2."],
  ["no result of what still runs", start, worked("halts"), false, "Next time: start on rung 2."],
  [
    "no next time for what may not be worked",
    { ...start, headline: "Not today", barred: "No circling." },
    worked("halts"),
    true,
    "9 of 10. Not today.",
  ],
  ["nothing where no ladder was worked", null, worked("halts"), true, null],
] as const)("says %s", (_, next, summary, finished, words) => {
  expect(heading(next, summary, finished)).toBe(words);
});

import { expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { CONNECTION_BEHAVIOUR, REST_BEHAVIOUR } from "../events/session-kind";
import { isEmptySession } from "./empty";
import { reduceSession } from "./reduce-session";

const empty = (write: (w: SessionWriter) => void) => {
  const w = new SessionWriter();
  w.add(0, "session.start", { horse: "Bo", method: "combined" });
  w.add(1, "preflight", { skipped: true });
  w.block(2);
  write(w);
  return isEmptySession(reduceSession(w.events));
};

it("is one in which nothing was seen, however it was framed", () => {
  expect(isEmptySession(reduceSession([]))).toBe(true);
  expect(
    empty((w) => {
      w.add(5, "break.start");
      w.add(9, "break.end");
      w.add(12, "block.end");
      w.add(12, "session.end");
    }),
  ).toBe(true);
});

it("is none where a watch was finished, however calm and short, and one where it was only opened", () => {
  const watch = (ended: boolean, behaviour = REST_BEHAVIOUR) => {
    const w = new SessionWriter();
    w.add(0, "session.start", { horse: "Bo", method: "pressure-release" });
    w.block(2, { behaviour, ladder: undefined, rung: "rest", kind: "probe" });
    if (ended) w.add(40, "session.end");
    return isEmptySession(reduceSession(w.events));
  };
  expect(watch(true)).toBe(false);
  expect(watch(true, CONNECTION_BEHAVIOUR)).toBe(false);
  expect(watch(false)).toBe(true);
  expect(watch(true, "Touched all over")).toBe(true);
});

it.each([
  ["an answer", "trial", { outcome: "refused" }],
  ["an ask still held", "ask", { phase: 1 }],
  ["a sign", "signal", { name: "ease", class: "ease" }],
  ["a touch", "touch", { zone: "neck", side: "L", tool: "hand", grade: 3 }],
  ["an offer", "offer", {}],
  ["a departure", "depart", {}],
  ["breathing", "breath", { taps_ms: [0, 4000] }],
  ["a note", "note", { text: "lame" }],
] as const)("is none with %s in it", (_, type, payload) => {
  expect(empty((w) => w.add(5, type, payload))).toBe(false);
});

it("is one again where what was seen was undone", () => {
  expect(
    empty((w) => {
      const id = w.add(5, "trial", { outcome: "met" });
      w.add(6, "undo", { event: id });
    }),
  ).toBe(true);
});

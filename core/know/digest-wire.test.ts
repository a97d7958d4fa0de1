import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "../record";
import { knowDigest, packDigest, readDigest } from "./index";

describe("a session's digest as it is kept", () => {
  it("comes back as it went: zones with and without anything, stays left and cut off", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "zone", { zone: "gate" });
    w.add(20, "ask", { phase: 1 });
    w.add(25, "response", { answer: "met" });
    w.add(25, "release");
    w.add(26, "touch", { zone: "neck", side: "L", tool: "hand", grade: 2 });
    w.add(40.123, "zone", { zone: "plate" });
    w.add(60, "signal", { name: "braces", class: "tension" });
    w.add(70, "session.end");
    const digest = knowDigest(reduceSession(w.events));
    expect(digest.relief.stays.map(({ zone, left }) => [zone, left])).toEqual([
      ["gate", true],
      ["plate", false],
    ]);
    const text = packDigest(digest);
    expect(readDigest(text)).toEqual(digest);
    expect(text.length).toBeLessThan(0.8 * JSON.stringify(digest).length);
  });

  it("says which side came first, or that they took turns", () => {
    const beganIn = (sides: string) => {
      const w = new SessionWriter();
      for (const [i, side] of [...sides].entries()) {
        w.block(i * 20, { block: i + 1, side });
        w.add(i * 20 + 5, "trial", { outcome: "met", logged: "tally" });
        w.add(i * 20 + 10, "block.end");
      }
      w.add(sides.length * 20, "session.end");
      const digest = readDigest(packDigest(knowDigest(reduceSession(w.events))));
      return digest.sides.map(({ began }) => began);
    };
    expect(beganIn("LLLRRR")).toEqual(["first"]);
    expect(beganIn("RRLL")).toEqual(["second"]);
    expect(beganIn("LRLRLR")).toEqual(["turns"]);
    expect(beganIn("RLLRRL")).toEqual(["turns"]);
  });

  it("of a session with nothing in it too", () => {
    const digest = knowDigest(reduceSession([]));
    expect(readDigest(packDigest(digest))).toEqual(digest);
  });
});

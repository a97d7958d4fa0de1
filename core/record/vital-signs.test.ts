import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "./reduce-session";
import { breathingAfterWork, heartReadings } from "./vital-signs";

describe("vital signs of a session", () => {
  it("breathing after work leaves out what was taken at work; the heart rate is the last noted", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(20, "breath", { taps_ms: [0, 1000, 2000] });
    w.add(30, "measure", { strand: "heart rate", value: 60 });
    const open = reduceSession(w.events);
    expect([breathingAfterWork(open), heartReadings(open).at(-1)?.perMinute]).toEqual([[], 60]);
    w.add(60, "session.end");
    w.add(70, "breath", { taps_ms: [0, 2000, 4000] });
    w.add(80, "measure", { strand: "heart rate", value: 48 });
    w.add(130, "breath", { taps_ms: [0, 3000, 6000] });
    const record = reduceSession(w.events);
    expect(breathingAfterWork(record).map(({ perMinute }) => perMinute)).toEqual([30, 20]);
    expect(heartReadings(record).map(({ perMinute }) => perMinute)).toEqual([60, 48]);
    expect(heartReadings(reduceSession([]))).toEqual([]);
  });
});

import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "../record";
import { DEFAULT_SETTINGS } from "../settings";
import { heatOf } from "./situation";

const recordOf = (...preflights: Record<string, unknown>[]) => {
  const w = new SessionWriter();
  for (const [i, payload] of preflights.entries()) w.add(i, "preflight", { skipped: false, ...payload });
  return reduceSession(w.events);
};

describe("how hot it is", () => {
  it("is what the last preflight with both air and humidity gave, whatever half a one says after it", () => {
    const hot = { air_c: 38, humidity: 70, sky: "sun" };
    expect(heatOf(recordOf(hot))?.level).toBe("stop");
    expect(heatOf(recordOf(hot, { air_c: 20 }))?.level).toBe("stop");
    expect(heatOf(recordOf(hot, { air_c: 12, humidity: 40, sky: "sun" }))?.level).toBe("usual");
    expect(heatOf(recordOf({ air_c: 38 }))).toBeNull();
  });

  it("knows sun from shade, and takes one nobody told for the sun", () => {
    const at = (sky?: string) => heatOf(recordOf({ air_c: 30, humidity: 55, ...(sky === undefined ? {} : { sky }) }));
    expect(at("shade")?.wbgtCelsius).toBeLessThan(at("sun")?.wbgtCelsius ?? 0);
    expect(at()?.wbgtCelsius).toBe(at("sun")?.wbgtCelsius);
  });

  it("is worse for a horse that bears it badly", () => {
    const levels = ["usual", "watch", "cut", "stop"];
    const record = recordOf({ air_c: 27, humidity: 60, sky: "sun" });
    const level = (lower: number) => levels.indexOf(heatOf(record, DEFAULT_SETTINGS, lower)?.level ?? "usual");
    expect(level(3)).toBeGreaterThan(level(0));
  });
});

import { describe, expect, it } from "vitest";
import { ADVICE_WORDS } from "@/core/advice";
import { type Signal, soundOf } from "./signals";

describe("the sounds", () => {
  it("are each its own, told apart also without an ear for pitch: no two share their rhythm and direction", () => {
    const signals: Signal[] = [
      ...ADVICE_WORDS,
      "block end",
      "side",
      "reinforce",
      "not this one",
      "gait",
      "tick",
      "dwell end",
      "beat",
      "maximum",
      "beep",
      "stands",
    ];
    expect(new Set(signals.map(soundOf)).size).toBe(signals.length);
    const shape = (signal: Signal) => {
      const tones = soundOf(signal)
        .split(" ")
        .map((tone) => tone.split("@").map(Number) as [number, number]);
      return tones.map(([at, hertz], i) => `${at}${i === 0 ? "" : Math.sign(hertz - (tones[i - 1]?.[1] ?? 0))}`).join(" ");
    };
    const words = [...ADVICE_WORDS, "block end", "side", "reinforce"] as Signal[];
    expect(new Set(words.map(shape)).size).toBe(words.length);
  });
});

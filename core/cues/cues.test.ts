import { describe, expect, it } from "vitest";
import { type CueOfBehaviour, cueClashes, transferProgress } from "./index";

const cue = (
  behaviour: string,
  words: string,
  movement: CueOfBehaviour["movement"],
  ...phases: CueOfBehaviour["phases"]
): CueOfBehaviour => ({
  behaviour,
  cue: words,
  movement,
  phases,
});
const voice = (label: string) => ({ label, kind: "voice" as const });
const body = (label: string) => ({ label, kind: "body" as const });

describe("cueClashes", () => {
  it.each([
    ["the same sound for forward and for back", cue("a", "cluck", "forward"), cue("b", "Cluck!", "back"), "contradicts"],
    [
      "the same cue for two behaviours that could stand together",
      cue("a", "lifted hand", "left or right"),
      cue("b", "Lifted  hand", "head down"),
      "same",
    ],
    [
      "the lightest phase is the other's finished cue",
      cue("a", "", "come", body("step back")),
      cue("b", "step back", "back"),
      "contradicts",
    ],
    [
      "a spoken phase of one that asks the opposite",
      cue("a", "x", "faster", body("look"), voice("hup")),
      cue("b", "y", "slower", body("breath"), voice("Hup")),
      "contradicts",
    ],
    ["spoken words one letter apart", cue("a", "", "stand", voice("whoa")), cue("b", "", "other", voice("whoah")), "sounds alike"],
  ] as const)("%s", (_, one, other, kind) => {
    expect(cueClashes(one, [other]).map((clash) => clash.kind)).toEqual([kind]);
    expect(cueClashes(other, [one]).map((clash) => clash.kind)).toEqual([kind]);
  });

  it("lets different cues be, and a clear phase two behaviours share", () => {
    const tap = { label: "tap", kind: "tap" as const };
    expect(cueClashes(cue("a", "lifted hand", "forward", body("look"), tap), [cue("b", "breath", "back", body("lean"), tap)])).toEqual([]);
    expect(cueClashes(cue("a", "", "forward"), [cue("b", "", "back")])).toEqual([]);
    expect(cueClashes(cue("a", "walk", "forward", voice("walk")), [cue("b", "trot", "faster", voice("trot"))])).toEqual([]);
  });
});

describe("transferProgress", () => {
  const answers = (text: string) => [...text].map((one) => ({ met: one !== "m", phase: one === "n" ? 1 : one === "o" ? 2 : null }));
  it.each([
    ["", false, "Too few to tell"],
    ["nno", false, "Too few to tell"],
    ["nnnoooonnn", false, "6 of the last 10"],
    ["oonnnnnnnn", true, "may go"],
    ["mmnnnnnnnn", false, "8 of the last 8"],
  ])("%s", (text, done, words) => {
    const progress = transferProgress(answers(text));
    expect(progress.done).toBe(done);
    expect(progress.sentence).toContain(words);
  });
});

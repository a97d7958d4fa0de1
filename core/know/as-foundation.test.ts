import { describe, expect, it } from "vitest";
import { strandFromCatalogue } from "../strands";
import { lookReadiness, type TestedByLook, touchNeed, touchReadiness } from "./as-foundation";
import { FIRST_LOOK_STEPS, type FirstLook, type FirstLookResult } from "./first-look";
import type { Touch } from "./touch-map";

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 9, 20);
const time = { nowWallMs: NOW, staleDays: 90 };
const touch = (side: "L" | "R", tool: Touch["tool"], grade: number, daysAgo = 3): Touch => ({
  wallMs: NOW - daysAgo * DAY,
  zone: "hock",
  side,
  tool,
  grade,
});

describe("a touch that work rests on", () => {
  const need = touchNeed("hock", "brush");
  it.each<[string, Touch[], string]>([
    ["never touched", [], "unknown"],
    ["one side alone", [touch("L", "brush", 4)], "unknown"],
    ["both sides", [touch("L", "brush", 4), touch("R", "brush", 3)], "shown"],
    ["a tool nearer to the hand counts too", [touch("L", "hand", 3), touch("R", "brush", 3)], "shown"],
    ["one farther from the hand does not", [touch("L", "stick", 4), touch("R", "rope", 4)], "unknown"],
    ["a clipper is no brush", [touch("L", "clipper", 4), touch("R", "clipper", 4)], "unknown"],
    ["the newest decides", [touch("L", "hand", 4, 9), touch("L", "brush", 1), touch("R", "brush", 4)], "not-yet"],
    ["one side unsettled", [touch("L", "brush", 3), touch("R", "brush", 2)], "not-yet"],
    ["too long ago", [touch("L", "brush", 3, 100), touch("R", "brush", 3)], "stale"],
  ])("%s", (_, touches, state) => {
    expect(touchReadiness(need, touches, time).state).toBe(state);
  });

  it("asks for one side or a lower grade where that is said, and says what it saw", () => {
    expect(touchReadiness(touchNeed("hock", "stick", 2, "left"), [touch("L", "stick", 2)], time).state).toBe("shown");
    const said = touchReadiness(need, [touch("L", "brush", 3), touch("R", "brush", 1)], time);
    expect(said.sentence).toBe("Last taken tense on the right.");
    expect(said.wanted).toBe("hock, brush, both sides, soft or softer");
    expect(touchReadiness(need, [touch("L", "brush", 3, 200), touch("R", "brush", 3)], time).sentence).toBe("Taken so in April, check.");
  });
});

describe("the first look as a foundation", () => {
  const tested: TestedByLook = {
    item: "hind",
    strands: [
      { ...strandFromCatalogue("form", "form"), name: "answer", levels: ["weight off", "one step", "crosses"] },
      { ...strandFromCatalogue("steps", "steps"), name: "crossing steps" },
      strandFromCatalogue("side", "side"),
    ],
    values: { answer: "crosses", "crossing steps": 1, side: "both" },
  };
  const result = (side: "L" | "R", met: number, n: number, phase = 2): FirstLookResult => ({
    key: "hind",
    side,
    n,
    met,
    outcomes: [],
    lightestPhase: met === 0 ? null : phase,
    halfAnsweredSeconds: null,
    metPhases: Array.from({ length: met }, () => phase),
    ease: null,
  });
  const look = (...results: FirstLookResult[]) => ({
    wallMs: NOW - 5 * DAY,
    look: { results, stepsDone: results.length, steps: FIRST_LOOK_STEPS.length, partial: true } satisfies FirstLook,
  });
  const good = look(result("L", 2, 2), result("R", 1, 2));
  const need = { behaviour: "hind-yield", values: { answer: "crosses", side: "both" } };

  it("counts for what it tested", () => {
    const seen = lookReadiness(need, "Hind yield", tested, good, time);
    expect(seen).toMatchObject({ state: "seen", behaviour: "Hind yield" });
    expect(seen?.sentence).toBe("Seen in the first look of October, 3 of 4: “One hind foot crosses away from you”. No more was tested.");
  });

  it.each([
    ["more steps than it asked", { ...need, values: { "crossing steps": 2 } }, good],
    ["a strand it did not test", { ...need, values: { ease: "soft" } }, good],
    ["a lighter cue than it took", { ...need, maxPhase: 1 }, good],
    ["one side not looked at", need, look(result("L", 2, 2))],
    ["fewer than half on a side", need, look(result("L", 2, 2), result("R", 1, 3))],
    ["too long ago", need, { ...good, wallMs: NOW - 91 * DAY }],
  ])("and no more: %s", (_, wanted, seen) => {
    expect(lookReadiness(wanted, "Hind yield", tested, seen, time)).toBeNull();
  });
});

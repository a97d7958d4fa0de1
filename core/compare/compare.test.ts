import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { sumsOfSessions } from "../evidence";
import { reduceSession } from "../record";
import { cellsOfSession, cellsOfTrials, oneSideKnown, type SideSession, sidePicture, toldShare } from ".";

const session = (left: number, right: number, of = 10, began: "first" | "second" | "turns" = "first"): SideSession => [
  { stratum: "a", first: { met: left, of }, second: { met: right, of }, began },
];
/** By turns: every other session begins on the other side. */
const turnAbout = (i: number) => (i % 2 === 0 ? ("first" as const) : ("second" as const));

describe("the sides of a horse", () => {
  it("are called weaker only where sessions show it again and again", () => {
    const steady = (n: number) => Array.from({ length: n }, (_, i) => session(4, 8, 10, turnAbout(i)));
    expect(sidePicture(steady(8))).toMatchObject({ weaker: null, headline: "No difference of sides shown yet" });
    expect(sidePicture(steady(10))).toMatchObject({ weaker: "L", headline: "Left is weaker" });
    expect(sidePicture(steady(10)).reason).toBe(
      "On the same rungs left 40 of 100, right 80 of 100, compared 10 times: the left 40 points behind. Give it more, and take turns in which side begins.",
    );
    expect(
      sidePicture(
        steady(10).map(([cell], i) => [
          { began: turnAbout(i), stratum: "a", first: cell?.second ?? { met: 0, of: 0 }, second: cell?.first ?? { met: 0, of: 0 } },
        ]),
      ).weaker,
    ).toBe("R");
    // The same, with the left always first: warming up looks the same. Nobody knowing what came first is no better.
    const always = Array.from({ length: 12 }, () => session(4, 8));
    expect(sidePicture(always)).toMatchObject({ weaker: null, headline: "No side can be called weaker" });
    expect(sidePicture(always).reason).toContain("The left came first in 12 of 12 sessions");
    expect(sidePicture(always).reason).toContain("Begin on the right next time");
    // Asked by turns within the session, neither comes before the other.
    expect(sidePicture(Array.from({ length: 8 }, () => session(4, 8, 10, "turns"))).weaker).toBe("L");
    const nine = Array.from({ length: 10 }, (_, i) => session(4, 8, 10, i === 0 ? "second" : "first"));
    expect(sidePicture(nine).weaker).toBeNull();
    const eight = Array.from({ length: 10 }, (_, i) => session(4, 8, 10, i < 2 ? "second" : "first"));
    expect(sidePicture(eight).reason).toContain("The left came first in 8 of 10 sessions");
    // Whichever comes first is worse by as much: the side is not it, however often the left came first.
    const cold = Array.from({ length: 16 }, (_, i) => (i % 4 === 0 ? session(8, 4, 10, "second") : session(4, 8)));
    expect(sidePicture(cold)).toMatchObject({ weaker: null });
    // One session of 5 of 20 against 18 of 20, which Fisher's test called at once.
    expect(sidePicture([session(5, 18, 20)])).toMatchObject({ weaker: null });
    expect(sidePicture([session(5, 18, 20)]).reason).toMatch(/About \d+ sessions more on both sides could show a gap of 20 points\.$/);
  });

  it("say what is wanted where nothing can be compared", () => {
    expect(sidePicture([])).toMatchObject({ weaker: null, p: null, headline: "No sides to compare yet" });
    const other: SideSession = [
      { stratum: "a", first: { met: 3, of: 5 }, second: { met: 0, of: 0 } },
      { stratum: "b", first: { met: 0, of: 0 }, second: { met: 3, of: 5 } },
    ];
    expect(sidePicture([other])).toMatchObject({ p: null, reason: expect.stringContaining("No rung was asked on both sides") });
    expect(oneSideKnown(null)).toBe("");
  });

  it("leave out what says nothing of a side", () => {
    const writer = new SessionWriter();
    const trial = (at: number, more: Record<string, unknown> = {}) => writer.add(at, "trial", { outcome: "met", logged: "tally", ...more });
    writer.block(0, { side: "L" });
    trial(1);
    trial(3, { outcome: "miss" });
    trial(5, { logged: "late" });
    writer.add(8, "block.end");
    writer.block(9, { block: 2, side: "R" });
    trial(10);
    writer.add(12, "block.end");
    // A rung that names the other side fails every answer on this one.
    writer.block(13, { block: 3, side: "R", criterion: { sentence: "On the left.", side: "left" } });
    trial(14);
    writer.add(16, "block.end");
    // Touches and first looks stand on no ladder.
    writer.block(17, { block: 4, side: "L", ladder: "", version: undefined, kind: "probe" });
    trial(18);
    expect(cellsOfSession(reduceSession(writer.events))).toEqual([
      { stratum: JSON.stringify(["ladder-1", 1, 1]), first: { met: 1, of: 2 }, second: { met: 1, of: 1 }, began: "first" },
    ]);
  });

  it("keep ladders, versions and rungs apart, whatever they are called", () => {
    const trial = (ladder: string, rung: number, side: "L" | "R") => ({
      session: "s",
      wallMs: 0,
      ladder,
      version: 1,
      rung,
      kind: "work" as const,
      blockKey: "s:0",
      handler: null,
      side,
      outcome: "met" as const,
      phase: 1,
      ease: null,
      value: null,
      clean: true,
      comparable: true,
    });
    const [cells] = cellsOfTrials([trial("a|1", 1, "L"), trial("a", 11, "R"), trial("a", 11, "L")]);
    expect(cells).toHaveLength(2);
    expect(cellsOfTrials([trial("a", 1, "L"), { ...trial("a", 1, "R"), session: "t" }])).toHaveLength(2);
  });
});

describe("a share as it is said", () => {
  const share = (...sessions: [met: number, of: number][]) => toldShare(sumsOfSessions(sessions.map(([met, of]) => ({ met, of }))));

  it("says how far it reaches", () => {
    expect(share().sentence).toBe("No trials yet.");
    expect(share([3, 4])).toEqual({ share: 0.75, interval: null, sentence: "3 of 4: too few to tell." });
    expect(share([8, 10]).sentence).toBe("8 of 10 in one session: there, 49 to 94 %.");
    // Over what the counts go, where another screen has them over something else.
    const over = (...sessions: [met: number, of: number][]) =>
      toldShare(sumsOfSessions(sessions.map(([met, of]) => ({ met, of }))), "so far").sentence;
    expect(over()).toBe("No asks so far.");
    expect(over([3, 3])).toBe("3 of 3 so far: too few to tell.");
    expect(over([8, 10])).toBe("8 of 10 so far, in one session: there, 49 to 94 %.");
    expect(over([8, 10], [5, 10])).toBe("13 of 20 so far, in 2 sessions: too few sessions to tell.");
    expect(share([8, 10], [5, 10])).toMatchObject({ interval: null, sentence: "13 of 20 in 2 sessions: too few sessions to tell." });
    // 2, 5 and 9 of 10, worked out apart: 2.966 trials' worth, Wilson's from that: centre 0.5145, half width 0.3752.
    expect(share([2, 10], [5, 10], [9, 10]).sentence).toBe("16 of 30 in 3 sessions, could be anywhere from 14 to 89 %.");
  });
});

import { describe, expect, it } from "vitest";
import { planToLog } from "@/core/events/circle-log";
import { PLAN } from "@/tests/support/circle-plan";
import { SessionWriter } from "@/tests/support/session-writer";
import type { CirclePlan } from "../events/circle-plan";
import { isSilent, reduceSession } from "../record";
import { digestAt, digestOfWork, easyBothWays, movingSecondsOf, sideOfDigest } from "./digest";
import { circleWorkOf, wasPoor } from "./work";

/** A session on the circle: its block and its plan at 0 s. */
function written(write: (w: SessionWriter) => void, plan: Partial<CirclePlan> = {}, endSeconds: number | null = 300) {
  const w = new SessionWriter();
  w.block(0, { behaviour: "Circle work", ladder: undefined, side: "" });
  w.add(0, "circle.start", { plan: planToLog({ ...PLAN, ...plan }), overrides: [] });
  write(w);
  if (endSeconds !== null) w.add(endSeconds, "session.end");
  w.events.sort((a, b) => a.wall_ms - b.wall_ms);
  for (const [i, event] of w.events.entries()) Object.assign(event, { seq: i });
  const record = reduceSession(w.events, { offsetMsByLoad: new Map() });
  const work = circleWorkOf(record);
  if (work === null) throw new Error("no circle");
  return { work, record };
}

describe("what a session on the circle came to", () => {
  it("is its plan where nothing was tapped, and says that nobody saw it", () => {
    const { work } = written(() => undefined);
    expect(work.seconds).toEqual({ "walk L": 120, "trot L": 60, "walk R": 120 });
    expect(work.gaits.every(({ seen }) => !seen)).toBe(true);
    expect(work.movingSeconds).toBe(300);
    // 240 s at 1.6 m/s and 60 s at 3.3 m/s.
    expect(work.distanceMetres).toBeCloseTo(582, 6);
    expect(work.cutShortSeconds).toBe(0);
    expect(wasPoor(work)).toBe(false);
  });
  it("is nothing for a session without a plan", () => {
    const w = new SessionWriter();
    w.block(0);
    expect(circleWorkOf(reduceSession(w.events, { offsetMsByLoad: new Map() }))).toBeNull();
  });
  it("follows the gait that came: the one before went on until then", () => {
    const { work } = written((w) => w.add(140, "gait", { gait: "trot", direction: "left" }));
    expect(work.seconds).toEqual({ "walk L": 140, "trot L": 40, "walk R": 120 });
    expect(work.gaits.map(({ gait, seen }) => [gait, seen])).toEqual([
      ["walk", false],
      ["walk", true],
      ["trot", true],
      ["walk", false],
    ]);
  });
  it("takes pauses out and goes on from where it was, a plan longer or shorter by a press", () => {
    const { work } = written(
      (w) => {
        w.add(60, "break.start");
        w.add(600, "break.end");
        w.add(610, "circle.more", { seconds: 60 });
      },
      {},
      1000,
    );
    expect(work.seconds["walk L"]).toBe(180);
    expect(work.workedSeconds).toBe(360);
    const short = written((w) => w.add(30, "circle.go", { segment: 1 }), {}, 60).work;
    expect(short.seconds).toEqual({ "walk L": 30, "trot L": 30 });
    expect(short.cutShortSeconds).toBe(150);
    expect(wasPoor(short)).toBe(true);
  });
  it("is poor by each thing that speaks against the next step, and by a fifth of the plan that was not worked, not before", () => {
    const good = { easy: true, danger: 0, cutShortSeconds: 0, workedSeconds: 600 };
    expect(wasPoor(good)).toBe(false);
    expect(wasPoor({ ...good, easy: null })).toBe(false);
    expect(wasPoor({ ...good, easy: false })).toBe(true);
    expect(wasPoor({ ...good, danger: 1 })).toBe(true);
    const cut = (cutShortSeconds: number) => wasPoor({ ...good, cutShortSeconds, workedSeconds: 600 - cutShortSeconds });
    expect([60, 119, 120, 121, 300].map(cut)).toEqual([false, false, false, true, true]);
  });
  it("adds minutes to a plan that is over from the press on, not from its end", () => {
    const five = { segments: [{ gait: "walk" as const, side: "L" as const, minutes: 5 }] };
    const open = (write: (w: SessionWriter) => void) => written(write, five, null).record.planRunsUntilMs;
    expect(open(() => undefined)).toBe(300_000);
    expect(open((w) => w.add(600, "circle.more", { seconds: 120 }))).toBe(720_000);
    // Asked for while it runs it is added to its end.
    expect(open((w) => w.add(100, "circle.more", { seconds: 120 }))).toBe(420_000);
  });
  it("runs on by its clock though nobody taps for longer than a silence may be", () => {
    const long = { segments: [{ gait: "walk" as const, side: "L" as const, minutes: 50 }] };
    // Nothing tapped for 50 minutes, then the finish; or forgotten, and finished two days later.
    expect(written(() => undefined, long, 3000).work.movingSeconds).toBe(3000);
    const forgotten = written(() => undefined, long, 48 * 3600);
    expect(forgotten.work.movingSeconds).toBe(3000);
    expect(forgotten.record.finishMs).toBe(3_000_000);
    // Left open, and asked at any moment: it runs to its end and no further, however short a silence may be.
    const w = new SessionWriter();
    w.block(0, { behaviour: "Circle work", ladder: undefined, side: "" });
    w.add(0, "circle.start", { plan: planToLog({ ...PLAN, ...long }), overrides: [] });
    const open = reduceSession(w.events, { offsetMsByLoad: new Map(), silenceMinutes: 2 });
    for (const [minutes, worked, silent] of [
      [30, 1800, false],
      [50, 3000, false],
      [57, 3000, false],
      [59, 3000, true],
      [6000, 3000, true],
    ] as const) {
      expect(circleWorkOf(open, minutes * 60_000)?.workedSeconds, `${minutes} min`).toBe(worked);
      expect(isSilent(open, minutes * 60_000), `${minutes} min`).toBe(silent);
    }
    // A break in it puts its end off by as long.
    const broken = written(
      (w) => {
        w.add(60, "break.start");
        w.add(660, "break.end");
      },
      long,
      48 * 3600,
    );
    expect(broken.work.movingSeconds).toBe(3000);
    expect(broken.record.finishMs).toBe(3_600_000);
  });
  it("counts as its plan runs while nobody has ended it, by the moment it is asked", () => {
    // Trot was tapped at 150 s, and nothing after it: 30 s of trot and 120 of walk are to come.
    const { work } = written((w) => w.add(150, "gait", { gait: "trot" }), {}, null);
    const open = digestOfWork(work);
    const tap = Date.UTC(2026, 4, 4, 9, 2, 30);
    const at = (seconds: number) => digestAt(open, tap + seconds * 1000);
    expect(at(0).seconds).toEqual({ "walk L": 150 });
    expect(at(-60).seconds).toEqual({ "walk L": 150 });
    expect(at(20).seconds).toEqual({ "walk L": 150, "trot L": 20 });
    expect(at(90).seconds).toEqual({ "walk L": 150, "trot L": 30, "walk R": 60 });
    for (const day of [150, 86_400, 30 * 86_400]) {
      const { running, ...later } = at(day);
      expect(running).toBeUndefined();
      // What it comes to where it is ended then, from the list.
      const ended = digestOfWork(written((w) => w.add(150, "gait", { gait: "trot" }), {}, 150 + day).work);
      expect({ ...later, poor: false }).toEqual({
        ...ended,
        metres: expect.closeTo(ended.metres, -1),
        dose: expect.closeTo(ended.dose ?? 0, 0),
      });
    }
    // A pause holds it, and one that was ended stays as it is.
    const paused = digestOfWork(
      written(
        (w) => {
          w.add(60, "lap");
          w.add(100, "break.start");
        },
        {},
        null,
      ).work,
    );
    expect(digestAt(paused, tap + 3_600_000).seconds).toEqual({ "walk L": 100 });
    const ended = digestOfWork(written(() => undefined, {}, 100).work);
    expect(digestAt(ended, tap + 3_600_000)).toEqual(ended);
  });
  it("counts no minute past the plan's end", () => {
    expect(written(() => undefined, {}, 900).work.movingSeconds).toBe(300);
  });
  it("reads a transition: the aids in order, how long, the circle let out, and which never came", () => {
    const { work } = written((w) => {
      w.add(118, "aid", { aid: "voice", to: "trot" });
      w.add(121, "aid", { aid: "whip", to: "trot" });
      w.add(124, "gait", { gait: "trot" });
      w.add(130, "circle.out");
      w.add(175, "aid", { aid: "voice", to: "walk" });
      w.add(177, "gait", { gait: "walk" });
      w.add(200, "aid", { aid: "voice", to: "trot" });
    });
    expect(work.transitions).toMatchObject([
      { from: "walk", to: "trot", side: "L", aids: ["voice", "whip"], cameAfterSeconds: 6, outAfterSeconds: 6 },
      { from: "trot", to: "walk", side: "L", aids: ["voice"], cameAfterSeconds: 2, outAfterSeconds: null },
      { from: "walk", to: "trot", side: "R", cameAfterSeconds: null, waitedSeconds: 100 },
    ]);
    expect(digestOfWork(work).transitions).toEqual([
      ["trot", "L", 6, 6, 0, 2],
      ["walk", "L", 2, 2, 1, 1],
      ["trot", "R", null, 100, 1, 1],
    ]);
  });
  it("takes an asked gait that only the plan believes for not there yet: the horse still goes as before", () => {
    const { work } = written((w) => {
      w.add(1, "aid", { aid: "voice", to: "walk" });
      w.add(4, "gait", { gait: "walk" });
      // The plan says walk from 180 s on and nobody tapped it: the horse that is asked for it trots.
      w.add(183, "aid", { aid: "voice", to: "walk" });
    });
    expect(work.transitions.map(({ from, to }) => `${from} to ${to}`)).toEqual(["stand to walk", "trot to walk"]);
  });
  it("takes speed from laps that lie whole in one gait on one hand", () => {
    const { work } = written((w) => {
      for (const at of [10, 50, 90, 130, 140, 160, 190]) w.add(at, "lap");
    });
    expect(work.laps).toEqual({ "walk L": 2, "trot L": 2 });
    // Two laps of 2π·10 m in 80 s, and two in 30 s.
    expect(work.speedMps.walk).toBeCloseTo((2 * 62.8318531) / 80, 6);
    expect(work.speedMps.trot).toBeCloseTo((2 * 62.8318531) / 30, 6);
  });
  it("counts what goes wrong by side, slack by hold, and leaves undone what was undone", () => {
    const { work } = written((w) => {
      w.add(20, "signal", { name: "falls in", class: "count" });
      w.add(190, "signal", { name: "falls in", class: "count", side: "R" });
      const slip = w.add(195, "signal", { name: "bucks", class: "count", side: "R" });
      w.add(196, "undo", { event: slip });
      w.add(30, "slack.start");
      w.add(42, "slack.end");
      w.add(290, "slack.start");
    });
    expect(work.faults).toEqual({ "falls in L": 1, "falls in R": 1 });
    expect(work.slack).toEqual({ times: 2, seconds: 22 });
  });
  it("times what a horse shows in a pen, by direction", () => {
    const pen = { form: "pen" as const, radiusMetres: null };
    const { work } = written((w) => {
      w.add(15, "signal", { name: "ear comes in", class: "count" });
      w.add(70, "signal", { name: "turns in", class: "count" });
      w.add(200, "signal", { name: "ear comes in", class: "count" });
    }, pen);
    expect(work.directions).toEqual([
      { side: "L", startSeconds: 0, seconds: 180, shown: { "ear comes in": 15, "turns in": 70, "lowers head": null } },
      { side: "R", startSeconds: 180, seconds: 120, shown: { "ear comes in": 20, "turns in": null, "lowers head": null } },
    ]);
    expect(work.turning).toBeNull();
  });
  it("follows the way down past the finish: readings, who took over, how it ended", () => {
    const { work } = written((w) => {
      w.add(290, "breath", { taps_ms: [0, 1000, 2000] });
      w.add(295, "cool", { did: "starts" });
      w.add(310, "breath", { taps_ms: [0, 1500, 3000, 4500] });
      w.add(400, "cool", { did: "handed", who: "the walker" });
      w.add(900, "breath", { taps_ms: [0, 4000, 8000] });
      w.add(910, "cool", { did: "cooled" });
    });
    expect(work.cool?.readings.map(({ perMinute }) => perMinute)).toEqual([40, 15]);
    expect(work.cool).toMatchObject({ handedTo: "the walker", ended: "cooled", reason: null });
  });
  it("lets both hands into one session once the walk at the end was easy the last time to each", () => {
    const day = (side: "L" | "R", easy: boolean | null) => ({ seconds: { [`walk ${side}`]: 600 }, easy });
    expect(easyBothWays([day("L", true), day("R", true)])).toBe(true);
    expect(easyBothWays([day("L", true), day("R", true), day("L", false)])).toBe(false);
    expect(easyBothWays([day("L", true), day("R", null)])).toBe(false);
    expect(easyBothWays([day("L", true)])).toBe(false);
    // A session that went both ways is no day of one hand.
    expect(easyBothWays([day("L", true), { seconds: { "walk L": 300, "walk R": 300 }, easy: true }])).toBe(false);
  });
  it("is the same from a digest: motion, side", () => {
    const digest = digestOfWork(written(() => undefined).work);
    expect(movingSecondsOf(digest)).toBe(300);
    expect(sideOfDigest(digest)).toBe("both");
    expect(sideOfDigest({ seconds: { "walk L": 600, "stand R": 900 } })).toBe("L");
    expect(sideOfDigest({ seconds: { "stand R": 900 } })).toBeNull();
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { CircleSegment } from "../events/circle-plan";
import { clockAt, type ScheduleMark, scheduleOf } from "./schedule";
import { CIRCLE_SOUNDS, callsOf, callsUntil, movingBy, renderTrack, secondsInMotion, TRACK_RATE_HERTZ, USUAL_SOUNDS } from "./track";

const plan: CircleSegment[] = [
  { gait: "walk", side: "L", minutes: 4 },
  { gait: "trot", side: "L", minutes: 2 },
  { gait: "trot", side: "R", minutes: 2 },
];

describe("the clock of a plan", () => {
  it("runs segment by segment, calls ten seconds ahead and ends", () => {
    const stretches = scheduleOf(plan, []);
    expect(stretches.map(({ startSeconds, endSeconds }) => [startSeconds, endSeconds])).toEqual([
      [0, 240],
      [240, 360],
      [360, 480],
    ]);
    expect(clockAt(stretches, 229)).toMatchObject({ running: 0, leftSeconds: 11, called: false });
    expect(clockAt(stretches, 230)).toMatchObject({ leftSeconds: 10, called: true, next: { segment: 1 } });
    expect(clockAt(stretches, 240)).toMatchObject({ running: 1, elapsedSeconds: 0, leftInAllSeconds: 240 });
    expect(clockAt(stretches, 480)).toMatchObject({ running: null, stretch: null, elapsedSeconds: 0 });
    expect(clockAt(stretches, 500)).toMatchObject({ elapsedSeconds: 20, leftInAllSeconds: 0 });
  });
  it("goes on early, back to a segment, or a minute longer", () => {
    expect(scheduleOf(plan, [{ atSeconds: 100, go: 1 }])).toEqual([
      { segment: 0, startSeconds: 0, endSeconds: 100 },
      { segment: 1, startSeconds: 100, endSeconds: 220 },
      { segment: 2, startSeconds: 220, endSeconds: 340 },
    ]);
    expect(scheduleOf(plan, [{ atSeconds: 250, more: 60 }]).map(({ endSeconds }) => endSeconds)).toEqual([240, 420, 540]);
    const again = scheduleOf(plan, [
      { atSeconds: 300, go: 0 },
      { atSeconds: 310, go: 2 },
    ]);
    expect(again.map(({ segment, endSeconds }) => [segment, endSeconds])).toEqual([
      [0, 240],
      [1, 300],
      [0, 310],
      [2, 430],
    ]);
    // A minute more once all is over makes the last one go on from then.
    expect(scheduleOf(plan, [{ atSeconds: 500, more: 60 }]).at(-1)).toEqual({ segment: 2, startSeconds: 360, endSeconds: 560 });
  });
  it("has no gap and no overlap, whatever is pressed, and one answer for every moment", () => {
    const mark = fc.oneof(
      fc.record({ gap: fc.integer({ min: 0, max: 400 }), go: fc.integer({ min: 0, max: 2 }) }),
      fc.record({ gap: fc.integer({ min: 0, max: 400 }), more: fc.integer({ min: 1, max: 120 }) }),
    );
    fc.assert(
      fc.property(fc.array(mark, { maxLength: 8 }), (presses) => {
        let at = 0;
        const marks = presses.map(({ gap, ...mark }): ScheduleMark => {
          at += gap;
          return { atSeconds: at, ...mark };
        });
        const stretches = scheduleOf(plan, marks);
        for (const [i, stretch] of stretches.entries()) {
          expect(stretch.endSeconds).toBeGreaterThan(stretch.startSeconds);
          const before = stretches[i - 1];
          // Only a press after the end leaves a gap: until then nothing ran.
          if (before !== undefined) expect(stretch.startSeconds).toBeGreaterThanOrEqual(before.endSeconds);
        }
        const last = marks.at(-1);
        if (last !== undefined) expect(clockAt(stretches, last.atSeconds).stretch).not.toBeNull();
      }),
    );
  });
});

describe("the plan's sounds", () => {
  it("are one call for each change and one ahead of it", () => {
    expect(callsOf(plan, scheduleOf(plan, []))).toEqual([
      { atSeconds: 0, call: "walk" },
      { atSeconds: 230, call: "ahead" },
      { atSeconds: 240, call: "trot" },
      { atSeconds: 350, call: "ahead" },
      { atSeconds: 360, call: "turn" },
      { atSeconds: 470, call: "ahead" },
      { atSeconds: 480, call: "end" },
    ]);
  });
  it("call transitions by time in motion, and not beside a change", () => {
    const standing: CircleSegment[] = [
      { gait: "walk", side: "L", minutes: 4 },
      { gait: "stand", side: "L", minutes: 1 },
      { gait: "trot", side: "R", minutes: 3 },
    ];
    const called = callsOf(standing, scheduleOf(standing, []), 1.5).filter(({ call }) => call === "transition");
    // Every 90 s: 90, 180 in walk; 270 stands; 360, 450 in trot.
    expect(called.map(({ atSeconds }) => atSeconds)).toEqual([90, 180, 360, 450]);
    expect(callsOf(standing, scheduleOf(standing, []), 4).some(({ call }) => call === "transition")).toBe(false);
  });
  it("end at a cap, called ahead, with nothing after it", () => {
    const stretches = scheduleOf(plan, []);
    expect(secondsInMotion(plan, stretches, 245)).toBe(245);
    expect(secondsInMotion(plan, stretches, 9000)).toBeNull();
    const rest: CircleSegment[] = [{ gait: "stand", side: "L", minutes: 1 }, ...plan];
    expect(secondsInMotion(rest, scheduleOf(rest, []), 30)).toBe(90);
    expect([30, 60, 90, 9000].map((at) => movingBy(rest, scheduleOf(rest, []), at))).toEqual([0, 0, 30, 480]);
    expect(callsUntil(callsOf(plan, stretches), 245)).toEqual([
      { atSeconds: 0, call: "walk" },
      { atSeconds: 230, call: "ahead" },
      { atSeconds: 235, call: "ahead" },
      { atSeconds: 240, call: "trot" },
      { atSeconds: 245, call: "end" },
    ]);
    expect(callsUntil(callsOf(plan, stretches), 0)).toEqual([{ atSeconds: 0, call: "end" }]);
    expect(callsUntil(callsOf(plan, stretches), null)).toEqual(callsOf(plan, stretches));
  });
  it("are told apart by count, length and direction, not by pitch alone", () => {
    const shapes = Object.values(CIRCLE_SOUNDS).map((tones) =>
      tones.map(({ at, seconds, hertz }, i) => `${at}/${seconds}/${i === 0 ? 0 : Math.sign(hertz - (tones[i - 1]?.hertz ?? 0))}`).join(" "),
    );
    expect(new Set(shapes).size).toBe(shapes.length);
    expect(new Set(Object.values(USUAL_SOUNDS)).size).toBe(Object.keys(USUAL_SOUNDS).length);
    for (const tones of Object.values(CIRCLE_SOUNDS)) for (const { hertz } of tones) expect(hertz).toBeLessThan(800);
  });
  it("lie in the track where they are called, and nowhere else", () => {
    const track = renderTrack([{ atSeconds: 2, call: "trot" }], USUAL_SOUNDS, 5);
    const text = String.fromCharCode(...track.subarray(0, 4), ...track.subarray(8, 16));
    expect(text).toBe("RIFFWAVEfmt ");
    expect(new DataView(track.buffer).getUint32(24, true)).toBe(8000);
    expect(track.length).toBe(44 + 5 * TRACK_RATE_HERTZ);
    const loud = [...track.subarray(44)].flatMap((sample, i) => (Math.abs(sample - 128) > 30 ? [i / TRACK_RATE_HERTZ] : []));
    expect(loud[0]).toBeGreaterThan(1.999);
    expect(loud[0]).toBeLessThan(2.01);
    expect(loud.at(-1)).toBeLessThan(2.56);
    // "two rising": by counting where the wave goes up through its middle, 390 Hz for 0.2 s and 620 Hz for 0.3 s.
    const ups = (from: number, to: number) => {
      let count = 0;
      for (let i = Math.round(from * 8000); i < to * 8000; i++) if ((track[44 + i] ?? 0) < 128 && (track[45 + i] ?? 0) >= 128) count++;
      return count;
    };
    expect(ups(2, 2.2)).toBeGreaterThan(74);
    expect(ups(2, 2.2)).toBeLessThan(80);
    expect(ups(2.25, 2.55)).toBeGreaterThan(182);
    expect(ups(2.25, 2.55)).toBeLessThan(190);
  });
});

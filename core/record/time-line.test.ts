import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomSession } from "@/tests/support/random-session";
import { SessionWriter } from "@/tests/support/session-writer";
import { reliefOfSession } from "../know";
import { cornerStands, freeWork } from "./free-work";
import { reduceSession } from "./reduce-session";
import { endOfWorkMs, secondsWithoutBreaks, workSeconds } from "./time";
import { type Span, spanAt, until } from "./time-line";
import { whereNow } from "./where";

/** A horse that stands in a corner for six seconds, leaves without anybody saying where to, and comes back to it. */
function cornerThenAway() {
  const w = new SessionWriter();
  w.block(0);
  w.add(10, "zone", { zone: "far corner" });
  w.add(16, "depart");
  w.add(58, "return");
  w.add(60, "ask");
  w.add(61, "response", { answer: "met" });
  w.add(61.5, "release");
  w.add(62, "zone", { zone: "middle" });
  w.add(80, "session.end");
  return reduceSession(w.events);
}

describe("where the horse is", () => {
  const record = cornerThenAway();

  it("is nowhere that was tapped while it is away, and where it left once it is back", () => {
    expect(record.timeLine.zones.map(({ zone, startMs, endMs }) => [zone, startMs, endMs])).toEqual([
      ["far corner", 10_000, 16_000],
      [null, 16_000, 58_000],
      ["far corner", 58_000, 62_000],
      ["middle", 62_000, null],
    ]);
    expect(record.timeLine.departures).toEqual([{ startMs: 16_000, endMs: 58_000, from: "far corner", to: null }]);
  });

  it("is told alike by the stands, the trial, relief and free work", () => {
    // Six seconds of standing before it left, four after it came back: the latter are no stand.
    expect(cornerStands(record, new Set(["far corner"])).map(({ seconds }) => seconds)).toEqual([6]);
    expect(record.trials[0]?.zone).toBe("far corner");
    const relief = reliefOfSession(record);
    expect(relief.zones.find(({ zone }) => zone === "far corner")?.seconds).toBe(10);
    expect(relief.secondsElsewhere).toBe(52);
    expect(freeWork(record).awaySeconds).toBe(42);
    expect(whereNow(record)).toEqual({ zone: "middle", away: false });
  });

  it("is where it went, where a zone is tapped while it is away; a second tap of the same zone changes nothing", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "zone", { zone: "gate" });
    w.add(9, "depart");
    w.add(12, "zone", { zone: "fence" });
    w.add(15, "zone", { zone: "fence" });
    w.add(20, "return", { to: "middle" });
    w.add(30, "session.end");
    const { timeLine } = reduceSession(w.events);
    expect(timeLine.departures).toEqual([{ startMs: 9000, endMs: 20_000, from: "gate", to: "fence" }]);
    expect(timeLine.zones.map(({ zone, startMs }) => [zone, startMs])).toEqual([
      ["gate", 5000],
      [null, 9000],
      ["fence", 12_000],
      ["middle", 20_000],
    ]);
  });

  it("keeps the last direction and radius through a gait that says neither", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(1, "gait", { gait: "walk", direction: "left", radius_m: 6 });
    w.add(5, "gait", { gait: "trot" });
    w.add(9, "gait", { gait: "walk", direction: "right" });
    w.add(12, "session.end");
    const { gaits } = reduceSession(w.events).timeLine;
    expect(gaits.map(({ gait, direction, radiusMetres, endMs }) => [gait, direction, radiusMetres, endMs])).toEqual([
      ["walk", "left", 6, 5000],
      ["trot", "left", 6, 9000],
      ["walk", "right", 6, null],
    ]);
  });
});

describe("the time line of any session", () => {
  const inOrder = (spans: readonly Span[]) =>
    spans.every(({ startMs, endMs }, i) => {
      const next = spans[i + 1];
      return (
        (endMs === null ? next === undefined : endMs >= startMs) &&
        (next === undefined || (endMs ?? Number.POSITIVE_INFINITY) <= next.startMs)
      );
    });

  it("has spans in order that never overlap, and its zones without a gap", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const { timeLine } = reduceSession(randomSession(seed).events);
        for (const spans of [timeLine.zones, timeLine.departures, timeLine.gaits, timeLine.breaks]) expect(inOrder(spans)).toBe(true);
        for (const spans of [timeLine.zones, timeLine.gaits])
          for (const [i, span] of spans.entries()) if (i > 0) expect(spans[i - 1]?.endMs).toBe(span.startMs);
      }),
      { numRuns: 150 },
    );
  });

  it("is a matter of the set of events, not of their order of arrival", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const { events } = randomSession(seed);
        expect(reduceSession([...events].reverse()).timeLine).toEqual(reduceSession(events).timeLine);
      }),
      { numRuns: 50 },
    );
  });

  it("counts a stand from the start of work, also where its zone was tapped before", () => {
    const w = new SessionWriter();
    w.add(-20, "zone", { zone: "corner NE" });
    w.block(0);
    w.add(8, "zone", { zone: "middle" });
    w.add(30, "session.end");
    const record = reduceSession(w.events);
    expect(cornerStands(record, new Set(["corner NE"]))).toEqual([{ zone: "corner NE", startMs: 0, seconds: 8 }]);
  });

  it("gives every trial the zone it says for its ask, and splits the work into zones and elsewhere without rest", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const record = reduceSession(randomSession(seed).events);
        const timed = record.trials.filter(({ logged, overridden, note }) => logged === "timed" && !overridden && note === null);
        for (const { askMs, zone } of timed) {
          // What is tapped in the very moment of the ask may stand on both sides of it.
          const moved = record.timeLine.zones.some(({ startMs }) => startMs === askMs);
          if (!moved) expect(zone).toBe(spanAt(record.timeLine.zones, askMs)?.zone ?? null);
        }
        const relief = reliefOfSession(record);
        const told = relief.zones.reduce((sum, { seconds }) => sum + seconds, relief.secondsElsewhere);
        expect(told).toBeCloseTo(workSeconds(record), 6);
        const end = endOfWorkMs(record);
        const inCorner = until(record.timeLine.zones, end)
          .filter(({ zone }) => zone === "corner NE")
          .reduce((sum, { startMs, endMs }) => sum + secondsWithoutBreaks(Math.max(0, startMs), endMs, record.timeLine.breaks), 0);
        expect(relief.zones.find(({ zone }) => zone === "corner NE")?.seconds ?? 0).toBeCloseTo(inCorner, 6);
        const stood = cornerStands(record, new Set(["corner NE"])).reduce((sum, { seconds }) => sum + seconds, 0);
        expect(stood).toBeLessThanOrEqual(inCorner + 1e-6);
      }),
      { numRuns: 150, examples: [[79_146]] },
    );
  });
});

import { describe, expect, it } from "vitest";
import { type CircleLimits, circleCaps, circleNow, circleWorkOf } from "@/core/circle";
import { reduceSession } from "@/core/record";
import { checkEvent, type Fact, type SessionEvent } from "@/core/schemas";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { circleStart } from "@/core/start";
import { PLAN } from "@/tests/support/circle-plan";
import { plainPack, plainYard } from "@/tests/support/plain-pack";
import { SessionWriter } from "@/tests/support/session-writer";
import { circleActs } from "./acts";

const NOW = Date.UTC(2026, 5, 1, 9);
const SO_FAR = { storeId: "s", events: [], clocks: {}, position: 0 };

/** A recorder without a screen: its acts over a log that is read back by the reducer, at a time that is set. */
function recorder({ ladder = null, to = null }: { ladder?: string | null; to?: "trot" | null } = {}) {
  const plan = { ...PLAN, transitions: { ...PLAN.transitions, to } };
  const begun = {
    id: "n",
    horse: "h",
    kind: "circle",
    ladder,
    person: null,
    place: null,
    start_rung: 1,
    kit: [],
    circle: { plan, overrides: [] },
  };
  const start = circleStart(plainPack(), plainYard(), NOW, begun as never, SO_FAR);
  const w = new SessionWriter();
  const pressed: Fact[][] = [];
  const pen = { seconds: 0, chosen: null as string | null };
  const caps = circleCaps({
    age: null,
    allowance: start.today.allowance,
    settings: DEFAULT_SETTINGS,
    own: start.setup.caps,
    ways: "both",
    heat: null,
  });
  const limits: CircleLimits = { caps, use: { todayMinutes: 0, weekMinutes: 0 }, against: new Set(), heat: null };
  const record = () => reduceSession(w.events as readonly SessionEvent[], { offsetMsByLoad: new Map() });
  const acts = circleActs({
    start,
    now: () => ({ ...circleNow(record(), plan, limits, pen.seconds * 1000), chosen: pen.chosen, record: record() }),
    log: (...facts) => {
      pressed.push(facts);
      for (const { type, payload = {} } of facts as { type: Fact["type"]; payload?: object }[]) w.add(pen.seconds, type, { ...payload });
    },
    chooseNone: () => {
      pen.chosen = null;
    },
  });
  const at = (seconds: number, act: () => void) => {
    pen.seconds = seconds;
    pressed.length = 0;
    act();
    return pressed.flat();
  };
  at(0, () => acts.begin([]));
  return { acts, at, pen, record, events: w.events, work: () => circleWorkOf(record()) };
}

describe("the acts of a session on the circle", () => {
  it("begin it with whose it is, what it is of, and its plan; what was looked at comes first", () => {
    const { events, record } = recorder();
    expect(events.map(({ type }) => type)).toEqual(["session.start", "block.start", "circle.start"]);
    expect(events[1]?.payload).toMatchObject({ block: 1, behaviour: "Circle work", side: "", kind: "work" });
    expect(record().blocks).toHaveLength(1);
    const again = recorder();
    // A second begin in the same session does not begin it twice.
    expect(again.at(5, () => again.acts.begin([{ type: "preflight", payload: {} } as never])).map(({ type }) => type)).toEqual([
      "preflight",
      "block.start",
      "circle.start",
    ]);
  });

  it("say what every schema of events takes", () => {
    const { acts, at, events } = recorder({ ladder: "ladder-1", to: "trot" });
    at(10, () => acts.aid("voice"));
    at(12, acts.came);
    at(20, () => acts.aid("line"));
    at(30, acts.noAnswer);
    for (const act of [
      acts.out,
      acts.lap,
      () => acts.slack(true),
      () => acts.slack(false),
      () => acts.sign("falls in", "count"),
      acts.pause,
      acts.pause,
      acts.goOn,
      acts.more,
    ])
      at(40, act);
    for (const event of events) expect(checkEvent(event).ok, event.type).toBe(true);
  });

  it("log an answer where the gait that was asked for came, at the clearest aid, to a tenth of a second", () => {
    const { acts, at, pen } = recorder({ ladder: "ladder-1", to: "trot" });
    pen.chosen = "trot";
    expect(at(100, () => acts.aid("voice"))).toEqual([{ type: "aid", payload: { aid: "voice", to: "trot" } }]);
    at(102, () => acts.aid("whip"));
    const [trial, gait] = at(104.26, acts.came);
    expect(trial).toMatchObject({ type: "trial", payload: { outcome: "met", side: "L", latency_s: 4.3, logged: "timed" } });
    // Of body, point and line the whip is the second.
    expect(trial).toMatchObject({ payload: { phase: 2 } });
    expect(gait).toEqual({ type: "gait", payload: { gait: "trot", direction: "left", radius_m: 10 } });
    expect(pen.chosen).toBeNull();
  });

  it("log none for a gait nobody asked for, another than was asked for, or one that does not count", () => {
    const types = (facts: readonly Fact[]) => facts.map(({ type }) => type);
    const own = recorder({ ladder: "ladder-1", to: "trot" });
    expect(types(own.at(50, own.acts.came))).toEqual(["gait"]);
    const other = recorder({ ladder: "ladder-1", to: "trot" });
    other.at(50, () => other.acts.aid("voice"));
    other.pen.chosen = "canter";
    expect(types(other.at(52, other.acts.came))).toEqual(["gait"]);
    const every = recorder({ ladder: "ladder-1" });
    every.at(50, () => every.acts.aid("voice"));
    every.pen.chosen = "canter";
    expect(types(every.at(52, every.acts.came))).toEqual(["gait"]);
    const walk = recorder({ ladder: "ladder-1", to: "trot" });
    walk.at(50, () => walk.acts.aid("voice"));
    expect(types(walk.at(52, walk.acts.came))).toEqual(["gait"]);
    const alone = recorder();
    alone.pen.chosen = "trot";
    alone.at(50, () => alone.acts.aid("voice"));
    expect(types(alone.at(52, alone.acts.came))).toEqual(["gait"]);
  });

  it("log that no answer came, and the gait it goes on in; nothing where nobody asks", () => {
    const { acts, at, pen } = recorder({ ladder: "ladder-1", to: "trot" });
    expect(at(50, acts.noAnswer)).toEqual([]);
    pen.chosen = "trot";
    at(60, () => acts.aid("voice"));
    expect(at(69, acts.noAnswer)).toMatchObject([
      { type: "trial", payload: { outcome: "refused", waited_s: 9, side: "L" } },
      { type: "gait", payload: { gait: "walk", direction: "left" } },
    ]);
    expect(at(70, acts.noAnswer)).toEqual([]);
  });

  it("go on to the next stretch, and stay in the last", () => {
    const { acts, at } = recorder();
    expect(at(30, acts.goOn)).toEqual([{ type: "circle.go", payload: { segment: 1 } }]);
    expect(at(40, acts.goOn)).toEqual([{ type: "circle.go", payload: { segment: 2 } }]);
    expect(at(50, acts.goOn)).toEqual([{ type: "circle.go", payload: { segment: 2 } }]);
    expect(at(900, acts.goOn)).toEqual([{ type: "circle.go", payload: { segment: 2 } }]);
  });

  it("pause and go on by the same press, and name signs by the hand it is on", () => {
    const { acts, at } = recorder();
    expect(at(10, acts.pause)).toEqual([{ type: "break.start", payload: { reason: "rest" } }]);
    expect(at(40, acts.pause)).toEqual([{ type: "break.end" }]);
    at(41, acts.goOn);
    at(42, acts.goOn);
    expect(at(45, () => acts.sign("falls in", "count"))).toEqual([
      { type: "signal", payload: { name: "falls in", class: "count", side: "R" } },
    ]);
  });
});

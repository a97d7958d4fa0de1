import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { orderOfSteps, reinforcementCoach } from "../coach";
import { ONE_BUTTON, OneButton } from "../entry";
import type { EventType } from "../events";
import { piecesUsed } from "./food";
import { cornerStands, freeWork, isEdgeZone } from "./free-work";
import { offersOf } from "./offers";
import { reduceSession } from "./reduce-session";
import { openDanger, signsWithin } from "./signals";

/** Writes facts one after the other: seconds, type, payload. */
const facts =
  (...list: readonly (readonly [at: number, type: EventType, payload?: Record<string, unknown>])[]) =>
  (w: SessionWriter) => {
    for (const [at, type, payload] of list) w.add(at, type, payload);
  };

describe("free work", () => {
  const worked = () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(60, "depart");
    w.add(90, "return");
    w.add(100, "break.start");
    w.add(160, "break.end");
    w.add(200, "depart", { to: "gate" });
    w.add(210, "return");
    w.add(300, "session.end");
    return w;
  };

  it("keeps connected time, the longest stretch and departures by ten minutes, breaks taken out", () => {
    const free = freeWork(reduceSession(worked().events));
    expect(free).toMatchObject({ seconds: 240, awaySeconds: 40, connectedSeconds: 200, departures: 2, isAway: false });
    expect(free.connectedShare).toBeCloseTo(1 - 40 / 240, 12);
    expect(free.departuresPerTenMinutes).toBeCloseTo((2 * 600) / 240, 12);
    // 60 s before it first left, then 90 to 200 s less the break, then 210 to the end.
    expect(free.longestConnectedSeconds).toBe(90);
  });

  it("counts a departure that goes on up to now", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(30, "depart");
    expect(freeWork(reduceSession(w.events), 50_000)).toMatchObject({
      isAway: true,
      awayNowSeconds: 20,
      connectedSeconds: 30,
      longestConnectedSeconds: 30,
    });
  });

  it("keeps gaits, the last circle and changes of direction", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "gait", { gait: "walk", direction: "left", radius_m: 6 });
    w.add(30, "gait", { gait: "trot", direction: "left" });
    w.add(50, "gait", { gait: "trot", direction: "right" });
    w.add(60, "gait", { gait: "walk" });
    w.add(80, "session.end");
    expect(freeWork(reduceSession(w.events))).toMatchObject({
      gait: "walk",
      direction: "right",
      radiusMetres: 6,
      directionChanges: 1,
      secondsByGait: { walk: 40, trot: 30 },
    });
  });

  it("has nothing to say before work begins", () => {
    expect(freeWork(reduceSession([]))).toMatchObject({ seconds: 0, connectedShare: null, departuresPerTenMinutes: null });
  });
});

describe("corner stands", () => {
  const edges = new Set(["corner NE", "fence"]);
  const stands = (write: (w: SessionWriter) => void, nowMs: number | null = null) => {
    const w = new SessionWriter();
    w.block(0);
    write(w);
    return cornerStands(reduceSession(w.events), edges, nowMs);
  };

  it("are flagged from over five seconds", () => {
    const leftAt = (seconds: number) => stands(facts([10, "zone", { zone: "corner NE" }], [seconds, "zone", { zone: "plate" }]));
    expect(leftAt(15)).toEqual([]);
    expect(leftAt(15.1)).toEqual([{ zone: "corner NE", startMs: 10_000, seconds: 5.1 }]);
    expect(stands(facts([10, "zone", { zone: "fence" }]), 17_000)).toHaveLength(1);
  });

  it("end when it moves on, and count from when it stops again", () => {
    expect(
      stands((w) => {
        w.add(10, "zone", { zone: "fence" });
        w.add(13, "gait", { gait: "walk" });
        w.add(20, "gait", { gait: "stand" });
        w.add(24, "zone", { zone: "plate" });
      }),
    ).toEqual([]);
    const moved = [
      [10, "zone", { zone: "fence" }],
      [11, "gait", { gait: "walk" }],
    ] as const;
    expect(stands(facts(...moved), 60_000)).toEqual([]);
    expect(stands(facts(...moved, [20, "gait", { gait: "stand" }]), 26_000)).toMatchObject([{ startMs: 20_000, seconds: 6 }]);
  });

  it("are told by the kind of zone or by its name", () => {
    expect([{ name: "NE", kind: "corner" }, { name: "long fence" }, { name: "plate", kind: "plate" }].map(isEdgeZone)).toEqual([
      true,
      true,
      false,
    ]);
  });
});

describe("offers", () => {
  it("stand beside the answers on cue, and a moving on after the release is one", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "trial", { outcome: "met", logged: "tally", released: 1 });
    w.add(8, "offer", { earned: "ignored" });
    w.add(30, "offer", { earned: "settled" });
    w.add(40, "trial", { outcome: "try", logged: "tally" });
    w.add(50, "trial", { outcome: "miss", logged: "tally" });
    w.add(120, "session.end");
    expect(offersOf(reduceSession(w.events))).toEqual({
      count: 2,
      perMinute: 1,
      onCueShare: 0.5,
      afterRelease: 1,
      byEarned: { ignored: 1, settled: 1 },
    });
  });
  it("are what food after them was earned by, not the trial before", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "trial", { outcome: "met", logged: "tally", reinforced: 0, reinforcers: 0 });
    w.add(8, "offer", { earned: "reinforced" });
    w.add(9, "feed", { pieces: 2 });
    const record = reduceSession(w.events);
    expect(record.trials).toMatchObject([{ reinforced: false, reinforcers: 0 }]);
    expect(record.foodPiecesOutside).toBe(2);
  });
  it("are nothing where nothing was answered", () => {
    const w = new SessionWriter();
    w.block(0);
    expect(offersOf(reduceSession(w.events))).toMatchObject({ count: 0, onCueShare: null, perMinute: null });
  });
});

describe("signals", () => {
  it("count within the last seconds, and danger stays open until the stop card is answered", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "signal", { name: "paws", class: "tension" });
    w.add(40, "signal", { name: "tension", class: "tension" });
    w.add(65, "signal", { name: "braces", class: "tension" });
    const before = reduceSession(w.events);
    expect([69, 71, 130].map((s) => signsWithin(before, "tension", s * 1000, 60))).toEqual([3, 2, 0]);
    expect(openDanger(before)).toBeNull();
    w.add(80, "signal", { name: "rears", class: "danger" });
    expect(openDanger(reduceSession(w.events))).toBe("rears");
    w.add(90, "safety", { what: "rears", then: "end" });
    expect(openDanger(reduceSession(w.events))).toBeNull();
    const undo = w.add(95, "signal", { name: "kicks", class: "danger" });
    w.add(96, "undo", { event: undo });
    expect(openDanger(reduceSession(w.events))).toBeNull();
  });
});

describe("the reinforcement coach", () => {
  const plan = { method: "combined", schedule: { kind: "fixed", ratio: 3 }, reinforcer: "food", politeSeconds: 2 } as const;
  const record = (write: (w: SessionWriter) => void) => {
    const w = new SessionWriter();
    w.add(-20, "preflight", { pouch: 10 });
    w.block(0, { criterion: { sentence: "Any.", schedule: plan.schedule, polite_s: 2 } });
    write(w);
    return reduceSession(w.events);
  };
  const tally = (w: SessionWriter, n: number) => {
    for (let i = 0; i < n; i++) w.add(5 + i, "trial", { outcome: "met", logged: "tally", reinforcers: i % 3 === 2 ? 1 : 0 });
  };

  it("says before the ask whether the next one earns food, and what is left in the pouch", () => {
    expect(
      [0, 1, 2, 3, 5].map(
        (n) =>
          reinforcementCoach(
            record((w) => tally(w, n)),
            plan,
            60_000,
          ).nextEarns,
      ),
    ).toEqual([false, false, true, false, true]);
    const three = record((w) => tally(w, 3));
    expect(piecesUsed(three)).toBe(1);
    expect(reinforcementCoach(three, plan, 60_000)).toMatchObject({ piecesLeft: 9, sentence: "Not the next one: release only." });
    expect(reinforcementCoach(reduceSession([]), plan, 0).piecesLeft).toBeNull();
  });

  it("leads through the order of steps of the method", () => {
    expect(orderOfSteps(plan, true)).toEqual(["answer", "release", "mark", "wait", "food"]);
    expect(orderOfSteps(plan, false)).toEqual(["answer", "release"]);
    expect(orderOfSteps({ ...plan, method: "marker-food", politeSeconds: 0 }, true)).toEqual(["answer", "mark", "food"]);
    expect(orderOfSteps({ ...plan, reinforcer: "rest" }, true)).toEqual(["answer", "release", "mark", "instead"]);
    const every = { ...plan, schedule: { kind: "every" } as const };
    const at = (seconds: number, write: (w: SessionWriter) => void) =>
      reinforcementCoach(
        record((w) => {
          w.add(10, "ask", { phase: 1 });
          write(w);
        }),
        every,
        seconds * 1000,
      );
    const answered = [
      [11, "response", { answer: "met", phase: 1 }],
      [11.3, "release"],
    ] as const;
    expect(at(10.5, facts()).next).toBe("answer");
    expect(at(12, facts(...answered)).next).toBe("mark");
    expect(at(12.5, facts(...answered, [12, "mark"]))).toMatchObject({ next: "wait", waitSeconds: 1.5 });
    expect(at(14, facts(...answered, [12, "mark"])).next).toBe("food");
    expect(at(15, facts(...answered, [12, "mark"], [14.1, "feed", { pieces: 1 }])).next).toBeNull();
  });

  it("catches food that comes before the polite wait is over", () => {
    const faults = (fedAt: number) =>
      record((w) => {
        w.add(10, "ask", { phase: 1 });
        w.add(11, "response", { answer: "met", phase: 1 });
        w.add(11.3, "release");
        w.add(11.5, "mark");
        w.add(fedAt, "feed", { pieces: 1 });
      }).trials[0]?.faults;
    expect(faults(13)).toEqual(["food before the wait"]);
    expect(faults(13.6)).toEqual([]);
  });
});

describe("one button", () => {
  /** Presses as [down, up] in milliseconds; looked at whenever the reader asks for it. */
  const read = (...presses: readonly (readonly [number, number])[]) => {
    const button = new OneButton();
    const said: (readonly [number, string])[] = [];
    const note = (ms: number, outcome: string | null) => outcome !== null && said.push([ms, outcome]);
    const edges = presses.flatMap(([down, up]) => [
      { ms: down, down: true },
      { ms: up, down: false },
    ]);
    const settle = (until: number) => {
      for (let look = button.nextLookMs(); look !== null && look <= until; look = button.nextLookMs()) note(look, button.elapsed(look));
    };
    for (const edge of edges) {
      settle(edge.ms);
      note(edge.ms, edge.down ? button.down(edge.ms) : button.up(edge.ms));
    }
    settle(Number.POSITIVE_INFINITY);
    return said;
  };
  const { doubleWithinMs, longFromMs } = ONE_BUTTON;

  it("reads a press as got it, two quick ones as a try, a long one as no answer", () => {
    expect(read([0, 90])).toEqual([[90 + doubleWithinMs, "met"]]);
    expect(read([0, 90], [200, 280])).toEqual([[280, "try"]]);
    expect(read([0, 2000])).toEqual([[longFromMs, "refused"]]);
    expect(read([0, 90], [1000, 1090])).toHaveLength(2);
    expect(read([0, 90], [200, 280], [400, 480])).toEqual([
      [280, "try"],
      [480 + doubleWithinMs, "met"],
    ]);
  });

  it("passes over repeats of a held button and an up without a down", () => {
    const button = new OneButton();
    expect(button.up(5)).toBeNull();
    button.down(0);
    expect([button.down(100), button.down(200)]).toEqual([null, null]);
    expect(button.up(longFromMs + 10)).toBe("refused");
    expect(button.nextLookMs()).toBeNull();
  });
});

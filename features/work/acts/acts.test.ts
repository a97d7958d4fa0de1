import { describe, expect, it, vi } from "vitest";
import type { LadderPlan } from "@/core/ladder";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { type Advice, DEFAULT_WORD_SETTINGS, reduceSession } from "@/core/session";
import { allowanceOn } from "@/core/welfare";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter } from "@/tests/support/session-writer";
import type { RecorderStart, Way } from "../types";
import { blockActs } from "./block-acts";
import type { Pen } from "./pen";
import { sceneActs } from "./scene-acts";
import { trialActs } from "./trial-acts";

// There is nothing here to vibrate or to sound.
vi.mock("../sound/feedback", () => ({ click: () => undefined }));

/** A recorder without a screen: its clock is moved by hand, its log is a session's. */
function recorder(change: Partial<LadderPlan> = {}, criterion: Record<string, unknown> = {}) {
  const plan = { ...emptyDraft().plan, ...change };
  const start: RecorderStart = {
    storeId: "s",
    sessionId: "s",
    horse: { id: "h", name: "Bo" },
    handler: "",
    place: "",
    battery: false,
    ladders: [],
    ladderId: "ladder-1",
    version: 1,
    revision: 1,
    behaviour: "plate",
    behaviourInput: { ...EMPTY_BEHAVIOUR, name: "plate" },
    plan,
    next: { rung: 1, kind: "work", headline: "", reason: "", barred: null },
    earlier: [],
    carried: [],
    planCautions: [],
    allowance: allowanceOn([], "2026-06-01", null),
    cautions: [],
    zones: [],
    touches: [],
    events: [],
    clocks: {},
    position: 0,
    silenceMinutes: 20,
    doNext: null,
    used: [],
    restingBreaths: null,
    wordSettings: DEFAULT_WORD_SETTINGS,
  };
  const w = new SessionWriter();
  w.block(0, { criterion: { sentence: "Any.", ...criterion } });
  const set: { way: Way; at: number; phase: number; advice: Advice | null; hint: string | null; sheet: string | null } = {
    way: "timed",
    at: 1,
    phase: 1,
    advice: null,
    hint: null,
    sheet: null,
  };
  const pen: Pen = {
    now: () => {
      const record = reduceSession(w.events);
      const block = record.blocks.at(-1) ?? null;
      return {
        start,
        way: set.way,
        phase: set.phase,
        advice: set.advice,
        recorder: "phone:a",
        record,
        events: w.events,
        block,
        working: block !== null && block.endMs === null,
        onBreak: record.breaks.at(-1)?.endMs === null,
        open: record.openAsk,
        presentMs: set.at * 1000,
      };
    },
    log: (...facts) => {
      for (const { type, payload } of facts) w.add(set.at, type, payload ?? {});
    },
    setPhase: (phase) => {
      set.phase = phase;
    },
    setHint: (hint) => {
      set.hint = hint;
    },
    setSheet: (sheet) => {
      set.sheet = sheet;
    },
    addPart: () => undefined,
  };
  const logged = (type: string) => w.events.filter((event) => event.type === type).map(({ payload }) => payload);
  return {
    set,
    pen,
    logged,
    act: { ...trialActs(pen), ...sceneActs(pen), ...blockActs(pen) },
    trials: () => reduceSession(w.events).trials,
  };
}

const advice = (word: Advice["word"], rung?: number): Advice => ({
  word,
  reason: "so",
  numbers: { n: 1 },
  ...(rung === undefined ? {} : { rung }),
});

describe("the pads in Timed", () => {
  it("log a held ask with its answer and release; a second press of the hold changes nothing", () => {
    const { act, set, trials } = recorder();
    act.hold(true);
    act.hold(true);
    set.at = 2;
    act.outcome("met");
    set.at = 2.4;
    act.hold(false);
    expect(trials()).toMatchObject([{ outcome: "met", latencySeconds: 1, releaseLagSeconds: 0.4 }]);
  });

  it("refuse something else and no answer where nothing was asked, and take a good answer for an offer", () => {
    const { act, set, logged } = recorder({ offers: "reinforce" });
    act.outcome("miss");
    expect(set.hint).toBe("Hold the ask first.");
    act.outcome("met");
    expect(logged("offer")).toEqual([{ earned: "reinforced" }]);
    expect(set.hint).toContain("reinforce it");
  });

  it("past the longest ask an answer is help: refused, neither reinforced nor a fault", () => {
    const { act, set, trials } = recorder({ maximumSeconds: 10 });
    act.hold(true);
    set.at = 12;
    act.outcome("try");
    set.at = 12.5;
    act.hold(false);
    expect(trials()).toMatchObject([{ outcome: "refused", helped: "try", reinforced: false, faults: [] }]);
  });

  it("after no answer the hold still down is for helping: what comes then is no offer", () => {
    const { act, set, trials, logged } = recorder();
    act.hold(true);
    set.at = 3;
    act.outcome("refused");
    set.at = 5;
    act.outcome("met");
    set.at = 6;
    act.hold(false);
    expect(trials()).toMatchObject([{ outcome: "refused", helped: "met" }]);
    expect(logged("offer")).toEqual([]);
  });

  it("change the phase by a press or a swipe, within the plan's phases", () => {
    const { act, logged } = recorder();
    act.hold(true);
    act.phaseBy(1);
    act.phaseBy(9);
    act.phase(99);
    expect(logged("phase").map(({ phase }) => phase)).toEqual([2, emptyDraft().plan.phases.length]);
  });

  it("a button without key-up: on, then off, also after the page has come back to an open ask", () => {
    const { act, pen, trials } = recorder();
    act.toggleHold();
    const after = trialActs(pen);
    after.toggleHold();
    expect(trials()).toHaveLength(1);
    after.toggleHold();
    expect(pen.now().open).not.toBeNull();
  });
});

describe("the pads in Tally", () => {
  it("a swipe corrects the cue of the last one only", () => {
    const { act, set, trials } = recorder();
    set.way = "tally";
    act.outcome("met");
    set.at = 2;
    act.outcome("miss");
    act.swipeLast(1);
    act.swipeLast(-9);
    expect(trials().map(({ phase }) => phase)).toEqual([1, 1]);
    act.swipeLast(2);
    expect(trials().map(({ phase }) => phase)).toEqual([1, 3]);
  });

  it("what ended a stay stands with its distance", () => {
    const { act, set, trials, logged } = recorder({}, { stay_s: 3 });
    set.way = "tally";
    act.outcome("met");
    act.stayEnded("left", 2.5);
    expect(trials()[0]).toMatchObject({ endedBy: "left" });
    expect(logged("stay")).toEqual([{ ended_by: "left", handler_distance_m: 2.5 }]);
  });

  it("nothing is logged on a break, and why is said", () => {
    const { act, set, trials } = recorder();
    set.way = "tally";
    act.takeBreak();
    act.outcome("met");
    expect([trials().length, set.hint]).toEqual([0, "On a break. End it first."]);
  });
});

describe("the word and what is done", () => {
  it("is taken in one press", () => {
    const { act, set, logged } = recorder();
    set.advice = advice("Raise", 2);
    act.takeWord();
    expect(logged("word")).toEqual([{ word: "Raise", reason: "so", numbers: { n: 1 }, taken: true }]);
    expect(logged("block.start").at(-1)).toMatchObject({ rung: 2 });
  });

  it("counts as taken where the same is done by hand, and as done otherwise where not", () => {
    const { act, set, logged } = recorder();
    set.advice = advice("Change side");
    act.side();
    set.advice = advice("Raise", 2);
    set.at = 2;
    act.begin({ rung: 2, side: "R", kind: "work" });
    set.at = 3;
    act.begin({ rung: 1, side: "R", kind: "work" });
    set.advice = advice("Rest");
    set.at = 4;
    act.takeBreak();
    expect(logged("word").map(({ word, taken, did }) => [word, taken, did])).toEqual([
      ["Change side", true, undefined],
      ["Raise", true, undefined],
      ["Raise", false, "rung 1, right"],
      ["Rest", true, undefined],
    ]);
  });

  it("Stay and an Ease with nothing easier do nothing", () => {
    const { act, set, logged } = recorder();
    for (const one of [advice("Stay"), advice("Ease"), advice("Stop")]) {
      set.advice = one;
      act.takeWord();
    }
    expect([logged("word").length, logged("block.start").length]).toEqual([0, 1]);
  });

  it("Finish goes to the sure rung first, then to the end", () => {
    const { act, set, logged } = recorder();
    set.advice = advice("Finish", 1);
    act.takeWord();
    expect(logged("block.start").at(-1)).toMatchObject({ rung: 1, kind: "sure" });
    set.at = 3;
    act.takeWord();
    expect(set.sheet).toBe("finish");
  });
});

describe("signs", () => {
  it("are named only by a name of their class, and a danger sign is struck out where it was a mistake", () => {
    const { act, pen, logged } = recorder();
    act.signal("danger");
    const id = pen.now().record.facts.at(-1)?.id ?? "";
    act.nameSignal(id, "licks and chews");
    act.nameSignal(id, "rears");
    expect(logged("correct")).toMatchObject([{ payload: { name: "rears" } }]);
    act.strikeSignal(id);
    act.madeSafe("rears", "end");
    expect(logged("safety")).toEqual([]);
  });
});

import { describe, expect, it, vi } from "vitest";
import type { Advice } from "@/core/advice";
import { dueTry, type PackTry } from "@/core/experiment";
import type { LadderPlan } from "@/core/ladder";
import { isSilent, reduceSession, workSeconds } from "@/core/record";
import type { EventType } from "@/core/schemas";
import { ladderPart, onlyNamed } from "@/core/start";
import { strandFromCatalogue } from "@/core/strands";
import { allowanceOn, type Cap } from "@/core/welfare";
import { payloadsOf } from "@/tests/support/payloads";
import { emptyDraft } from "@/tests/support/plan";
import { recorderStart, type StartChange } from "@/tests/support/recorder-start";
import { SessionWriter } from "@/tests/support/session-writer";
import { atWork, leftOn, partNow } from "../ladders";
import type { LadderPart, Way } from "../types";
import { blockActs } from "./block-acts";
import type { Pen } from "./pen";
import { sceneActs } from "./scene-acts";
import { trialActs } from "./trial-acts";

// There is nothing here to vibrate or to sound.
vi.mock("../../sound/feedback", () => ({ click: () => undefined }));

/** A recorder without a screen: its clock is moved by hand, its log is a session's. */
function recorder(change: Partial<LadderPlan> = {}, criterion: Record<string, unknown> = {}, given: StartChange = {}) {
  const plan = { ...emptyDraft().plan, ...change };
  const start = recorderStart({ plan, ...given });
  const added: LadderPart[] = [];
  const w = new SessionWriter();
  w.block(0, { criterion: { sentence: "Any.", ...criterion } });
  const set: { way: Way; at: number; phase: number; pressed: boolean; advice: Advice | null; hint: string | null; sheet: string | null } = {
    way: "timed",
    at: 1,
    phase: 1,
    pressed: false,
    advice: null,
    hint: null,
    sheet: null,
  };
  const pen: Pen = {
    now: () => {
      const record = reduceSession(w.events);
      const block = record.blocks.at(-1) ?? null;
      return {
        start: atWork(start, added, null, partNow(start, added, record)),
        way: set.way,
        phase: set.phase,
        phaseSaid:
          plan.phases.length <= 1 ||
          set.pressed ||
          record.trials.some((t) => t.blockIndex === record.blocks.length - 1 && t.phase !== null),
        advice: set.advice,
        recorder: "phone:a",
        record,
        events: w.events,
        block,
        working: block !== null && block.endMs === null,
        onBreak: record.timeLine.breaks.at(-1)?.endMs === null,
        open: record.openAsk,
        presentMs: set.at * 1000,
      };
    },
    log: (...facts) => {
      for (const { type, payload } of facts) w.add(set.at, type, payload ?? {});
    },
    logAgo: (agoMs, ...facts) => {
      for (const { type, payload } of facts) w.add(set.at - agoMs / 1000, type, payload ?? {});
    },
    setPhase: (phase, pressed = false) => {
      set.phase = phase;
      set.pressed ||= pressed;
    },
    setHint: (hint) => {
      set.hint = hint;
    },
    setSheet: (sheet) => {
      set.sheet = sheet;
    },
    // As in the recorder: the newest of a ladder is the one in work.
    addPart: (part) => {
      added.unshift(part);
    },
  };
  const logged = <Type extends EventType>(type: Type) => payloadsOf(w.events, type);
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
  why: "test",
  reason: "so",
  numbers: { n: 1 },
  ...(rung === undefined ? {} : { rung }),
});

/** A recorder whose ladder is a known one, so that the running block's way reaches the pads as it does on the screen. */
function trying(reinforcers: readonly ["food", "scratch"] | readonly ["scratch", "food"], method: LadderPlan["method"] = "combined") {
  const plan = { ...emptyDraft().plan, method };
  const ways = { A: { reinforcer: reinforcers[0] }, B: { reinforcer: reinforcers[1] } };
  const experiment: PackTry = {
    id: "0a0a0a0a-0000-4000-8000-000000000001",
    ladder: "ladder-1",
    version: 1,
    rung: 1,
    question: "",
    a: reinforcers[0],
    b: reinforcers[1],
    ways,
    arms: ["A", "B"],
    asksEach: 3,
    done: [],
  };
  const own = recorder({}, {}, { plan, today: { tries: [experiment] } });
  const now = own.pen.now;
  const pen: Pen = { ...own.pen, now: () => ({ ...now(), way: "tally" }) };
  const act = { ...trialActs(pen), ...blockActs(pen) };
  const next = () => {
    const due = dueTry(experiment, pen.now().record);
    if (due === null) throw new Error("none due");
    act.tryBoth(due);
  };
  return { ...own, pen, act, next, experiment, plan };
}

describe("a block of an experiment", () => {
  it("is logged by its own way: food is fed and counted, a scratch is given and none is counted", () => {
    const { act, next, logged, trials, set } = trying(["food", "scratch"]);
    next();
    act.outcome("met");
    act.food();
    set.at = 20;
    next();
    act.outcome("met");
    act.food();
    expect(trials().map(({ reinforcers }) => reinforcers)).toEqual([1 + 1, 0]);
    expect(logged("feed")).toHaveLength(1);
    expect(logged("reinforce")).toEqual([{ what: "scratch" }]);
    expect(logged("block.start").slice(1)).toMatchObject([
      { tries: { arm: "A", n: 1, way: "food", reinforcer: "food" }, planned: 3 },
      { tries: { arm: "B", n: 2, way: "scratch", reinforcer: "scratch" } },
    ]);
  });
  it("feeds on a ladder of release alone while its way feeds, and not after it", () => {
    const { act, next, logged, trials, set, pen } = trying(["food", "scratch"], "pressure-release");
    next();
    act.outcome("met");
    expect(trials().at(-1)).toMatchObject({ released: true, reinforcers: 1 });
    set.at = 20;
    act.side();
    expect(pen.now().start.part.plan.method).toBe("pressure-release");
    act.outcome("met");
    expect(trials().at(-1)).toMatchObject({ released: true, reinforcers: 0 });
    act.food();
    expect(logged("reinforce")).toEqual([{ what: "scratch" }]);
  });
  it("is not begun with food on a day without", () => {
    const { act, pen, logged, set, experiment } = trying(["food", "scratch"]);
    const noFood = allowanceOn(
      [{ kind: "no-food", amount: null, detail: null, reason: "colic", givenBy: "", from: null, until: null }],
      "2026-06-01",
      null,
    );
    const now = pen.now;
    const barred: Pen = {
      ...pen,
      now: () => ({ ...now(), start: { ...now().start, today: { ...now().start.today, allowance: noFood } } }),
    };
    const due = dueTry(experiment, pen.now().record);
    if (due === null) throw new Error("none due");
    blockActs(barred).tryBoth(due);
    expect(set.hint).toMatch(/^This block is worked with food\. No food: colic/);
    expect(logged("block.start")).toHaveLength(1);
    act.outcome("met");
  });
  it("leaves the ladder's own plan as it is", () => {
    const { next, pen, plan } = trying(["scratch", "food"]);
    next();
    expect(pen.now().start.part.plan.feeding.reinforcer).toBe("scratch");
    expect(pen.now().start.part.ownPlan).toEqual(plan);
  });
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
    expect(pen.now().open).toMatchObject({ askMs: 1000, phase: 1, answered: false });
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
    expect(trials().map(({ phase }) => phase)).toEqual([null, 1]);
    act.swipeLast(2);
    expect(trials().map(({ phase }) => phase)).toEqual([null, 3]);
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
    set.advice = advice("Up", 2);
    act.takeAdvice();
    expect(logged("word")).toEqual([{ word: "Raise", why: "test", reason: "so", numbers: { n: 1 }, taken: true }]);
    expect(logged("block.start").at(-1)).toMatchObject({ rung: 2 });
  });

  it("counts as taken where the same is done by hand, and as done otherwise where not", () => {
    const { act, set, logged } = recorder();
    set.advice = advice("Change side");
    act.side();
    set.advice = advice("Up", 2);
    set.at = 2;
    act.begin({ rung: 2, side: "R", kind: "work" });
    set.at = 3;
    act.begin({ rung: 1, side: "R", kind: "work" });
    set.advice = advice("Break");
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
    // The stop card answers danger itself; every other Stop ends the session.
    for (const one of [advice("Repeat"), advice("Go back"), { ...advice("Stop"), why: "danger" }]) {
      set.advice = one;
      act.takeAdvice();
    }
    expect([logged("word").length, logged("block.start").length]).toEqual([0, 1]);
  });

  it("Stop for heat, breathing or a limit opens the end, and goes to the rung that is open where one is", () => {
    const { act, set, logged } = recorder();
    set.advice = { ...advice("Stop"), why: "heat" };
    act.takeAdvice();
    expect(set.sheet).toBe("finish");
    expect(logged("word").at(-1)).toMatchObject({ word: "Stop", taken: true });
    set.advice = { ...advice("Stop", 1), why: "limit" };
    act.takeAdvice();
    expect(logged("block.start").at(-1)).toMatchObject({ rung: 1, kind: "work" });
  });

  it("Finish goes to the sure rung first, then to the end", () => {
    const { act, set, logged } = recorder();
    set.advice = advice("Finish", 1);
    act.takeAdvice();
    expect(logged("block.start").at(-1)).toMatchObject({ rung: 1, kind: "sure" });
    set.at = 3;
    act.takeAdvice();
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

const oneSided = (side: string): Partial<LadderPlan> => ({
  strands: [strandFromCatalogue("side", "side")],
  workingStrandId: null,
  rungs: [{ values: { side } }, { values: { side: "both" } }],
});

describe("a change", () => {
  it("says at once where the side is not the rung's", () => {
    const { act, set } = recorder(oneSided("left"));
    act.side();
    expect(set.hint).toBe("Rung 1 asks for the left; answers on the right count as tries.");
    act.side();
    expect(set.hint).toBeNull();
    act.begin({ rung: 2, side: "R", kind: "work" });
    expect(set.hint).toBeNull();
  });

  it("ends the kind that was chosen for one block", () => {
    const { act, logged } = recorder();
    act.begin({ rung: 1, side: "L", kind: "sure" });
    act.side();
    expect(logged("block.start").map(({ kind }) => kind)).toEqual(["work", "sure", "work"]);
  });

  it("goes no further where a restriction came in the middle of the block", () => {
    const lame = allowanceOn(
      [{ kind: "no-work", amount: null, detail: null, reason: "lame", givenBy: "vet", from: null, until: null }],
      "2026-06-01",
      null,
    );
    const { act, set, logged } = recorder({}, {}, { today: { allowance: lame } });
    set.way = "tally";
    act.outcome("met");
    set.way = "timed";
    act.hold(true);
    expect([...logged("trial"), ...logged("ask")]).toEqual([]);
    expect(set.hint).toMatch(/^Not today\..*lame/);
    // What is seen of the horse is still taken down.
    act.signal("tension");
    expect(logged("signal")).toHaveLength(1);
  });

  it("closes the side that is no longer allowed, and only that one", () => {
    const right = allowanceOn(
      [{ kind: "one-side", amount: null, detail: "right", reason: "near fore", givenBy: "", from: null, until: null }],
      "2026-06-01",
      null,
    );
    const { act, set, logged } = recorder({}, {}, { today: { allowance: right } });
    set.way = "tally";
    act.outcome("met");
    expect(logged("trial")).toEqual([]);
    act.begin({ rung: 1, side: "R", kind: "work" });
    act.outcome("met");
    expect(logged("trial")).toHaveLength(1);
  });
});

describe("an answer in Timed without an ask", () => {
  it("is an offer, and says so", () => {
    const { act, set, logged } = recorder();
    act.outcome("met");
    expect(logged("offer")).toHaveLength(1);
    expect(set.hint).toMatch(/^Nothing was asked: counted as an offer\./);
    act.outcome("miss");
    expect(set.hint).toBe("Hold the ask first.");
  });

  it("can be held for only where something can be held", () => {
    const { act, set } = recorder();
    expect(act.canHold()).toBe(true);
    set.way = "tally";
    expect(act.canHold()).toBe(false);
    const stay = recorder({}, { stay_s: 3 });
    stay.set.way = "tally";
    expect(stay.act.canHold()).toBe(true);
  });
});

describe("a rung put in", () => {
  it("goes out of the ladder again with undo, and the block before it goes on", async () => {
    const sent: { plan: LadderPlan; revision: number }[] = [];
    vi.stubGlobal("fetch", async (_url: string, { body }: { body: string }) => {
      sent.push(JSON.parse(body));
      return new Response(JSON.stringify({ version: 1 + sent.length, revision: 1 + sent.length }), { status: 200 });
    });
    const { act, pen, logged } = recorder({
      strands: [strandFromCatalogue("stay", "stay")],
      workingStrandId: null,
      rungs: [{ values: { stay: 2 } }, { values: { stay: 8 } }],
    });
    const before = pen.now().start.part.plan.rungs.length;
    expect(await act.putRungBetween(2)).toBeNull();
    expect(pen.now().start.part.plan.rungs.length).toBeGreaterThan(before);
    expect(logged("block.start").at(-1)).toMatchObject({ version: 2, rung: 2 });
    act.undo();
    await vi.waitFor(() => expect(pen.now().start.part.version).toBe(3));
    expect(sent.map(({ plan, revision }) => [plan.rungs.length, revision])).toEqual([
      [before + 1, 1],
      [before, 2],
    ]);
    expect(pen.now().start.part.plan.rungs).toHaveLength(before);
    // The block that ran before runs on, and its rungs are the present version's.
    expect(pen.now().block).toMatchObject({ version: 1, endMs: null });
    expect(new Map(pen.now().start.part.carried).get(1)).toEqual([
      [1, 1],
      [2, 2],
    ]);
    vi.unstubAllGlobals();
  });
});

describe("another ladder", () => {
  const ladder = (id: string, involves: ("circling" | "tying")[], circlingLeft: Cap<number> | null = null) =>
    ladderPart({
      ladder: { id, version: 1, revision: 1 },
      behaviourInput: { ...onlyNamed(id), involves },
      plan: {
        ...emptyDraft().plan,
        strands: [strandFromCatalogue("stay", "stay")],
        workingStrandId: null,
        rungs: [{ values: { stay: 2 } }, { values: { stay: 8 } }],
      },
      next: { rung: 1, kind: "work", headline: "", reason: "", barred: null },
      circlingLeft,
    });
  const left = { value: 4, why: "This yard's rule." };
  const round = ladder("round", ["circling"], left);
  const straight = ladder("straight", ["tying"], left);

  it("has its own cap on circling and what it involves, not those of the one before", () => {
    const { act, pen } = recorder({}, {}, { others: [round, straight], today: { circlingLeft: left } });
    const { part: began } = pen.now().start;
    expect([began.circling, began.involves]).toEqual([null, []]);
    act.begin({ rung: 1, side: "L", kind: "work", part: round });
    expect([pen.now().start.part.circling, pen.now().start.part.involves]).toEqual([left, ["circling"]]);
    act.begin({ rung: 1, side: "L", kind: "work", part: straight });
    expect([pen.now().start.part.circling, pen.now().start.part.involves]).toEqual([null, ["tying"]]);
  });

  it("keeps its cap, and what a restriction may name, when a rung is put in", async () => {
    vi.stubGlobal("fetch", async () => new Response(JSON.stringify({ version: 2, revision: 2 }), { status: 200 }));
    const { act, pen } = recorder({}, {}, { others: [round, straight], today: { circlingLeft: left } });
    for (const [part, cap] of [
      [round, left],
      [straight, null],
    ] as const) {
      act.begin({ rung: 1, side: "L", kind: "work", part });
      expect(await act.putRungBetween(2)).toBeNull();
      const { version, circling, involves } = pen.now().start.part;
      expect({ version, circling, involves }).toEqual({ version: 2, circling: cap, involves: part.involves });
      // Whoever looks for this ladder from another one finds it as it is now.
      expect(
        pen
          .now()
          .start.parts.filter(({ ladderId }) => ladderId === part.ladderId)
          .map((one) => one.version),
      ).toEqual([2]);
    }
    vi.unstubAllGlobals();
  });
});

describe("leftOn", () => {
  it("finds the rung a ladder was left on, by its present number", () => {
    const { pen, act } = recorder();
    act.begin({ rung: 2, side: "R", kind: "work" });
    act.begin({ rung: 1, side: "R", kind: "sure" });
    const {
      start: { part },
      record,
    } = pen.now();
    expect(leftOn(part, record)).toBe(2);
    expect(leftOn({ ...part, version: 4, carried: [[1, [[2, 3]]]] }, record)).toBe(3);
    expect(leftOn({ ...part, version: 4, carried: [] }, record)).toBeNull();
    expect(leftOn({ ...part, ladderId: "another" }, record)).toBeNull();
  });
});

describe("we went on", () => {
  it("holds up to the moment it is said: the night after it is no work again", () => {
    const { act, set, pen } = recorder();
    set.at = 50 * 60;
    act.wentOn();
    const { record } = pen.now();
    expect(workSeconds(record, 60 * 60_000)).toBe(60 * 60);
    expect(isSilent(record, 10 * 3_600_000)).toBe(true);
    expect(workSeconds(record, 10 * 3_600_000)).toBe(50 * 60);
  });
});

describe("what nobody said", () => {
  it("is no lightest cue in Tally until a cue was pressed once in the block", () => {
    const { act, set, logged } = recorder();
    set.way = "tally";
    act.outcome("met");
    expect(logged("trial").at(-1)).not.toHaveProperty("phase");
    act.phase(2);
    act.outcome("met");
    act.outcome("met");
    expect(logged("trial").slice(1)).toMatchObject([{ phase: 2 }, { phase: 1 }]);
  });

  it("is no calm: a row of soft and not soft logs the grade, where the rule names days", () => {
    const { act, set, pen, logged } = recorder({ mastery: { kind: "run", length: 3, days: 2 } });
    set.way = "tally";
    act.outcome("met");
    expect(pen.now().record.trials.at(-1)?.ease).toBeNull();
    act.calm(true);
    expect(pen.now().record.trials.at(-1)?.ease).toBe(3);
    act.calm(false);
    expect(logged("measure").at(-1)).toMatchObject({ strand: "ease", value: 2 });
  });

  it("is said by the one button too: the press after an answer, and none long after it or where calm is not asked", () => {
    const { act, set, pen } = recorder({ mastery: { kind: "run", length: 3, days: 2 } });
    set.way = "timed";
    act.answer("met");
    set.at = 3;
    expect(act.calmByButton(false)).toBe(true);
    expect(pen.now().record.trials.at(-1)?.ease).toBe(2);
    expect(act.calmByButton(true)).toBe(false);
    act.answer("met");
    set.at = 20;
    expect(act.calmByButton(true)).toBe(false);
    const plain = recorder();
    plain.act.answer("met");
    expect(plain.act.calmByButton(true)).toBe(false);
  });

  it("has the answer in the press of one button in Timed too: four presses are four trials and no offer", () => {
    const { act, set, pen } = recorder();
    set.way = "timed";
    for (const outcome of ["met", "met", "try", "refused"] as const) {
      set.at += 10;
      act.answer(outcome);
    }
    const { trials, offers } = pen.now().record;
    expect([trials.map(({ outcome }) => outcome), offers]).toEqual([["met", "met", "try", "refused"], 0]);
  });
});

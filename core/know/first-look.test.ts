import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { criterionOf } from "../ladder";
import { reduceSession } from "../record";
import { allowanceOn } from "../welfare";
import {
  askedName,
  batteryPlace,
  beginWith,
  compareLooks,
  differenceWords,
  FIRST_LOOK_BEHAVIOUR,
  FIRST_LOOK_ITEMS,
  FIRST_LOOK_STEPS,
  type FirstLook,
  firstLookOf,
  firstLookPlan,
  firstLookWords,
  type LookAround,
  lookSidesSentence,
  READY_BEHAVIOURS,
  readinessOf,
  resultOf,
  strengthOf,
} from "./index";

/** Plays steps: by item and side, a text of outcomes: "+" met, "~" try, "." miss, "!" refused, each at a phase. */
function look(steps: Record<string, string>, phase = 1): SessionWriter {
  const w = new SessionWriter();
  const outcome = { "+": "met", "~": "try", ".": "miss", "!": "refused" } as const;
  let at = 0;
  let block = 0;
  for (const [name, text] of Object.entries(steps)) {
    const [key = "", side = ""] = name.split(" ");
    w.block(at++, {
      block: ++block,
      behaviour: FIRST_LOOK_BEHAVIOUR,
      rung: key,
      side,
      ladder: undefined,
      version: undefined,
      kind: "probe",
    });
    for (const c of text) {
      at += 5;
      w.add(at, "trial", {
        outcome: outcome[c as keyof typeof outcome],
        phase,
        latency_s: 2,
        waited_s: 2,
        ease: 3,
        ...(side === "" ? {} : { side }),
      });
    }
  }
  return w;
}
const seen = (steps: Record<string, string>, phase = 1) => firstLookOf(reduceSession(look(steps, phase).events));
/** Every step met twice at a phase. */
const whole = (phase: number, change: Record<string, string> = {}, outcomes = "++") =>
  seen(
    {
      ...Object.fromEntries(FIRST_LOOK_STEPS.map(({ item, side }) => [`${item.key}${side === null ? "" : ` ${side}`}`, outcomes])),
      ...change,
    },
    phase,
  );

describe("the battery", () => {
  it("has twelve items, both sides where they have sides, and a rung for each in the recorder's plan", () => {
    expect(FIRST_LOOK_ITEMS).toHaveLength(12);
    expect(FIRST_LOOK_STEPS).toHaveLength(12 + FIRST_LOOK_ITEMS.filter((item) => item.sided).length);
    const plan = firstLookPlan();
    expect(FIRST_LOOK_ITEMS.map((_, i) => criterionOf(plan, i + 1).sentence)).toEqual(FIRST_LOOK_ITEMS.map(({ asks }) => `${asks}.`));
  });

  it("names what a block asked for, and no key", () => {
    expect(askedName({ behaviour: FIRST_LOOK_BEHAVIOUR, rung: "back-lead" })).toBe("steps back from the lead");
    expect(askedName({ behaviour: FIRST_LOOK_BEHAVIOUR, rung: "telepathy" })).toBeNull();
    expect(askedName({ behaviour: "Touch", rung: "body" })).toBeNull();
    expect(askedName({ behaviour: "Yields", rung: "3" })).toBe("rung 3");
  });

  it("compares the sides it asked, item by item, and calls no side by so few", () => {
    expect(lookSidesSentence(firstLookOf(reduceSession(look({ poll: "+", "hind L": "!", "hind R": "+", "bend L": "+" }).events)))).toBe(
      "Asked on both sides: 1 item. Moves the hind away: left 0 of 1, right 1 of 1. So few asks call no side weaker.",
    );
    expect(
      lookSidesSentence(firstLookOf(reduceSession(look({ "hind L": "+", "hind R": "++", "bend L": ".", "bend R": "!" }).events))),
    ).toBe("Asked on both sides: 2 items. The same on both at 2.");
    expect(lookSidesSentence(firstLookOf(reduceSession(look({ poll: "+", "bend L": "+" }).events)))).toBeNull();
  });

  it("is walked in order; a step jumped over comes again at the end", () => {
    const place = (steps: Record<string, string>) => batteryPlace(reduceSession(look(steps).events));
    expect(batteryPlace({ blocks: [], trials: [] })).toEqual({ at: null, next: 0, done: 0 });
    expect(place({ poll: "+" })).toEqual({ at: 0, next: 1, done: 1 });
    expect(place({ forward: "+" })).toEqual({ at: 1, next: 2, done: 1 });
    expect(place({ "bend R": "" })).toEqual({ at: 3, next: 4, done: 0 });
    const all = Object.fromEntries(
      FIRST_LOOK_STEPS.slice(1).map(({ item, side }) => [`${item.key}${side === null ? "" : ` ${side}`}`, "+"]),
    );
    expect(place(all)).toMatchObject({ next: 0 });
    expect(place({ ...all, poll: "+" })).toMatchObject({ next: null, done: FIRST_LOOK_STEPS.length });
  });
});

describe("firstLookOf", () => {
  it("scores each step by outcome, lightest phase, latency and ease", () => {
    expect(resultOf(seen({ "hind L": "+~!" }, 2), "hind", "L")).toEqual({
      key: "hind",
      side: "L",
      n: 3,
      met: 1,
      outcomes: ["met", "try", "refused"],
      lightestPhase: 2,
      metPhases: [2],
      halfAnsweredSeconds: 2,
      ease: 3,
    });
  });

  it("keeps a look cut off half way, as what it is", () => {
    const part = seen({ poll: "++", forward: "+" });
    expect(part).toMatchObject({ stepsDone: 2, partial: true });
    expect(resultOf(part, "stays", null)).toBeNull();
    expect(whole(1).partial).toBe(false);
  });

  it("leaves undone asks, other blocks and items it does not know aside", () => {
    const w = look({ poll: "+" });
    const undone = w.add(200, "trial", { outcome: "refused" });
    w.add(201, "undo", { event: undone });
    w.block(210, { block: 9, behaviour: "plate", rung: 1 });
    w.add(211, "trial", { outcome: "met" });
    w.block(220, { block: 10, behaviour: FIRST_LOOK_BEHAVIOUR, rung: "telepathy" });
    w.add(221, "trial", { outcome: "met" });
    expect(firstLookOf(reduceSession(w.events)).results.map(({ key, n }) => [key, n])).toEqual([["poll", 1]]);
  });

  it("draws strength by the phase it did not need, and says that a few are too few", () => {
    const strength = (text: string, phase: number) => {
      const result = resultOf(seen({ poll: text }, phase), "poll", null);
      return result === null ? null : strengthOf(result);
    };
    expect([strength("+", 1), strength("+", 4), strength("~", 1)]).toEqual([1, 0.25, 0]);
    expect(firstLookWords({ met: 2, n: 3 })).toBe("2 of 3, too few to tell: anywhere from 21 to 94 %");
  });
});

const NOW = Date.UTC(2026, 5, 20);
const free = allowanceOn([], "2026-06-20", null);
const ready = (one: FirstLook, around: Partial<LookAround> = {}) =>
  readinessOf(one, { allowance: free, danger: [], startedMs: NOW - 3 * 86_400_000, nowWallMs: NOW, ...around });

describe("readiness", () => {
  const feet = (one: FirstLook, around: Partial<LookAround> = {}) => ready(one, around).find(({ name }) => name === "each foot handled");

  it("asks restrictions first: a fetlock the vet has barred beats every ask", () => {
    const restriction = {
      kind: "touch-off",
      amount: null,
      detail: "fetlock",
      reason: "",
      givenBy: "the vet",
      from: null,
      until: null,
    } as const;
    const barred = allowanceOn([restriction], "2026-06-20", null);
    expect(feet(whole(1, {}, "+++++"), { allowance: barred })).toMatchObject({ state: "not today" });
    expect(feet(whole(1, {}, "+++++"), { allowance: barred })?.missing[0]).toContain("fetlock");
    const noTying = allowanceOn([{ ...restriction, kind: "no-tying", detail: null }], "2026-06-20", null);
    expect(ready(whole(1, {}, "+++++"), { allowance: noTying }).find(({ name }) => name === "stand at a post")?.state).toBe("not today");
  });

  it("takes four of five asks, none dangerous, within a fortnight, and is not sure otherwise", () => {
    expect(feet(whole(1, {}, "++++."))?.state).toBe("ready to try");
    expect(feet(whole(1, {}, "+++.."))?.state).toBe("not sure");
    expect(feet(whole(1, { "touch L": "+." }, "+++++"))).toMatchObject({ state: "not sure", missing: ["touched all over: left 1 of 2"] });
    expect(feet(whole(1, {}, "+++"))?.state).toBe("not sure");
    expect(feet(whole(1, {}, "+++++"), { danger: ["kicks"] })).toMatchObject({
      state: "not sure",
      missing: ["It showed danger in that look: kicks."],
    });
    expect(feet(whole(1, {}, "+++++"), { startedMs: NOW - 15 * 86_400_000 })?.state).toBe("not sure");
  });

  it("names only items of the battery", () => {
    const keys = FIRST_LOOK_ITEMS.map(({ key }) => key);
    for (const { needs } of READY_BEHAVIOURS) for (const { item } of needs) expect(keys).toContain(item);
  });

  it("is ready to try where every need is met lightly enough, on both sides", () => {
    expect(ready(whole(1, {}, "+++++")).every(({ state }) => state === "ready to try")).toBe(true);
    const stand = (l: FirstLook) => ready(l).find(({ name }) => name === "stand at a post");
    expect(stand(whole(3))).toMatchObject({ state: "not yet" });
    expect(stand(whole(3))?.missing[0]).toContain("took touch, hand wanted");
    const side = ready(whole(1, { "hind L": ".." })).find(({ name }) => name === "side-step");
    expect(side).toEqual({ name: "side-step", state: "not yet", missing: ["moves the hind away: left 0 of 2"] });
  });

  it("asks that half of a need's trials were met at the phase it wants, not one of them", () => {
    const w = new SessionWriter();
    // The poll wants a touch of the hand; once it did, twice it took the clearest.
    for (const [i, phase] of [2, 4, 4].entries()) {
      w.block(i * 20, { block: i + 1, behaviour: FIRST_LOOK_BEHAVIOUR, rung: "poll", side: null });
      w.add(i * 20 + 1, "trial", { outcome: "met", phase });
    }
    const back = ready(firstLookOf(reduceSession(w.events))).find(({ name }) => name === "back from a light touch");
    expect(back?.missing[0]).toMatch(/: 1 of 3 at .+ or lighter$/);
  });

  it("says what was not looked at", () => {
    expect(ready(seen({ poll: "+" })).find(({ name }) => name === "lead in step")).toMatchObject({ state: "not looked at" });
  });

  it("begins with what most behaviours wait for, on the weaker side", () => {
    expect(beginWith(whole(1))).toBeNull();
    expect(beginWith(whole(1, { "stick R": "..", stays: "!!" }))).toMatchObject({ item: "stick", side: "R" });
    expect(beginWith(whole(1, { "back-lead": ".." }))).toMatchObject({
      item: "back-lead",
      side: null,
      reason: "lead in step and 5 more wait for it.",
    });
  });
});

describe("compareLooks", () => {
  it("gives each shared step's change with its interval, and calls a few too few", () => {
    const { steps, together, words } = compareLooks(seen({ poll: "..", forward: "+" }), seen({ poll: "+++", "hind L": "+" }));
    expect(steps.map(({ key }) => key)).toEqual(["poll"]);
    expect(steps[0]?.change.difference).toBe(1);
    expect(steps[0]?.words).toBe("+100 points: too few to tell.");
    expect(together).toMatchObject({ before: { met: 0, of: 2 }, now: { met: 3, of: 3 } });
    expect(words).toContain("too few to tell");
  });

  it("tells a real change over many steps, and none where there is none", () => {
    const poor = Object.fromEntries(FIRST_LOOK_STEPS.map(({ item, side }) => [`${item.key}${side === null ? "" : ` ${side}`}`, ".."]));
    expect(compareLooks(seen(poor), whole(1)).words).toMatch(
      /^\+100 points between the two days, there \+\d+ to \+100\. One day each: a day alone can do that\.$/,
    );
    expect(compareLooks(whole(1), seen(poor)).words).toMatch(/^−100 points .* a day alone can do that\.$/);
    expect(compareLooks(whole(1), whole(1)).words).toContain("no difference shown.");
    expect(compareLooks(seen({ poll: "+" }), seen({ forward: "+" })).together).toBeNull();
    expect(differenceWords({ difference: 0, interval: [-0.2, 0.2], enough: true })).toContain("±0 points");
  });
});

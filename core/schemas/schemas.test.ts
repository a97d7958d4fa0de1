import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { testId } from "@/tests/support/session-writer";
import type { LadderPlan } from "../ladder";
import {
  awaySchema,
  behaviourSchema,
  check,
  checkBatch,
  checkEvent,
  checkLadderPlan,
  EVENT_TYPES,
  type EventType,
  horseSchema,
  kitSchema,
  newSessionSchema,
  placeSchema,
  practiceSchema,
  putRightSchema,
  restrictionSchema,
} from "./index";

const LONG = "x".repeat(10_000);
const TODAY = { today: "2026-11-25" };

describe("a horse", () => {
  const horse = (change: object) => check(horseSchema, { name: "Tarn", ...change }, { context: TODAY });

  it("needs a name alone", () => {
    expect(horse({})).toEqual({
      ok: true,
      value: {
        name: "Tarn",
        born_day: null,
        birth_year: null,
        sex: null,
        kind: "",
        height_cm: null,
        mass_kg: null,
        history: "",
        triggers: "",
        preferred_reinforcers: "",
        resting_breaths_per_min: null,
        resting_heart_per_min: null,
      },
    });
  });

  it.each([["D’Arcy-Ní"], ["Žižka"], ["馬"], ["חמור"], ["🐴 Bo"], ["<b>Bo</b>"], ["O'Neill"]])("may be called %s", (name) => {
    expect(horse({ name })).toMatchObject({ ok: true, value: { name } });
  });

  it.each([
    [{ name: "" }, "name"],
    [{ name: "   " }, "name"],
    [{ name: LONG }, "name"],
    [{ name: "two\nlines" }, "name"],
    [{ name: { a: 1 } }, "name"],
    [{ name: null }, "name"],
    [{ birth_year: 1979 }, "birth_year"],
    [{ birth_year: 1975 }, "birth_year"],
    [{ birth_year: 2027 }, "birth_year"],
    [{ birth_year: 2001.5 }, "birth_year"],
    [{ birth_year: "last spring" }, "birth_year"],
    [{ height_cm: 0 }, "height_cm"],
    [{ height_cm: 900 }, "height_cm"],
    [{ mass_kg: 0 }, "mass_kg"],
    [{ mass_kg: 5000 }, "mass_kg"],
    [{ mass_kg: "heavy" }, "mass_kg"],
    [{ mass_kg: Number.POSITIVE_INFINITY }, "mass_kg"],
    [{ sex: "unicorn" }, "sex"],
    [{ history: LONG }, "history"],
    [{ history: "bell\u0007" }, "history"],
    [{ triggers: LONG }, "triggers"],
    [{ preferred_reinforcers: LONG }, "preferred_reinforcers"],
    [{ born_day: "2026-11-26" }, "born_day"],
    [{ born_day: "2026-02-30" }, "born_day"],
    [{ born_day: "1979-12-31" }, "born_day"],
    [{ born_day: "yesterday" }, "born_day"],
    [{ born_day: "2020-01-05", birth_year: 2019 }, "born_day"],
    [{ resting_breaths_per_min: 0 }, "resting_breaths_per_min"],
    [{ resting_heart_per_min: 400 }, "resting_heart_per_min"],
  ])("%j is refused at %s", (change, path) => {
    const checked = horse(change);
    expect(checked.ok).toBe(false);
    if (!checked.ok) {
      expect(checked.problems.map((p) => p.path)).toContain(path);
      for (const { message } of checked.problems) expect(message).not.toMatch(/undefined|NaN|\[object|must be a/);
    }
  });

  it("gives every problem at once", () => {
    const checked = horse({ name: "", mass_kg: 0, birth_year: 3000 });
    expect(checked.ok ? [] : checked.problems.map((p) => p.path).sort()).toEqual(["birth_year", "mass_kg", "name"]);
  });
});

describe("other forms", () => {
  it("refuse a place of 0 m, a nameless behaviour, a session without an id", () => {
    expect(check(placeSchema, { name: "pen", shape: "round", length_m: 0 }).ok).toBe(false);
    expect(check(placeSchema, { name: "pen", shape: "star" }).ok).toBe(false);
    expect(check(behaviourSchema, { name: "" }).ok).toBe(false);
    expect(check(newSessionSchema, { id: testId(1), start_rung: 1 }, { strict: true }).ok).toBe(false);
    expect(check(newSessionSchema, { id: testId(1), horse: "h", started_ms: -1 }, { strict: true }).ok).toBe(false);
    expect(check(newSessionSchema, { id: "one", horse: "h", ladder: "l", start_rung: 1 }, { strict: true }).ok).toBe(false);
  });
});

describe("a restriction", () => {
  const restriction = (change: object) => check(restrictionSchema, { kind: "no-circling", given_by: "vet", ...change });

  it("keeps what its kind needs and drops what it does not", () => {
    expect(restriction({ amount: 7, detail: "trot", reason: "hock" })).toMatchObject({
      ok: true,
      value: { kind: "no-circling", amount: null, detail: "", reason: "hock", from_day: null, until_day: null },
    });
    expect(restriction({ kind: "weight-limit", amount: "5" })).toMatchObject({ ok: true, value: { amount: 5 } });
    expect(restriction({ kind: "highest-gait", detail: "walk" })).toMatchObject({ ok: true, value: { detail: "walk" } });
    expect(restriction({ until_day: "2026-11-01", from_day: "2026-11-01" }).ok).toBe(true);
  });

  it.each([
    [{ kind: "no-fun" }, "kind"],
    [{ kind: "work-minutes" }, "amount"],
    [{ kind: "work-minutes", amount: 0 }, "amount"],
    [{ kind: "work-minutes", amount: 5000 }, "amount"],
    [{ kind: "weight-limit", amount: -1 }, "amount"],
    [{ kind: "weight-limit", amount: "much" }, "amount"],
    [{ kind: "highest-gait", detail: "" }, "detail"],
    [{ kind: "highest-gait", detail: "piaffe" }, "detail"],
    [{ kind: "one-side", detail: "both" }, "detail"],
    [{ kind: "touch-off", detail: "soul" }, "detail"],
    [{ kind: "other", reason: " " }, "reason"],
    [{ given_by: " ", reason: "" }, "reason"],
    [{ reason: LONG }, "reason"],
    [{ given_by: { a: 1 } }, "given_by"],
    [{ from_day: "2026-13-01" }, "from_day"],
    [{ from_day: "2026-11-20", until_day: "2026-11-19" }, "until_day"],
  ])("%j is refused at %s", (change, path) => {
    const checked = restriction(change);
    expect(checked.ok ? [] : checked.problems.map((p) => p.path)).toContain(path);
  });
});

describe("a place", () => {
  const item = { name: "gate", kind: "gate", x_m: 5, y_m: 9, across_m: 2, down_m: 1 };
  const place = (change: object) => check(placeSchema, { name: "pen", shape: "rectangle", length_m: 20, width_m: 10, ...change });
  const paths = (change: object) => {
    const checked = place(change);
    return checked.ok ? [] : checked.problems.map((p) => p.path);
  };

  it("takes zones inside it, and a name without a drawing", () => {
    expect(place({ items: [item] }).ok).toBe(true);
    expect(place({ length_m: null, width_m: null }).ok).toBe(true);
  });

  it.each([
    ["0 m long", { length_m: 0 }, "length_m"],
    ["0 m wide", { width_m: 0 }, "width_m"],
    ["5 km long", { length_m: 5000 }, "length_m"],
    ["a zone outside", { items: [{ ...item, x_m: 25 }] }, "items[0].x_m"],
    ["a zone over the edge", { items: [item, { ...item, name: "two", y_m: 9.8 }] }, "items[1].x_m"],
    ["a zone of no size", { items: [{ ...item, across_m: 0 }] }, "items[0].across_m"],
    ["a nameless zone", { items: [{ ...item, name: "" }] }, "items[0].name"],
    ["one name twice", { items: [item, { ...item, name: "GATE", x_m: 9 }] }, "items[1].name"],
    ["zones in a place without size", { length_m: null, items: [item] }, "length_m"],
    ["a kind nobody knows", { items: [{ ...item, kind: "moat" }] }, "items[0].kind"],
    ["too many zones", { items: Array.from({ length: 41 }, (_, i) => ({ ...item, name: `z${i}` })) }, "items"],
  ])("refuses %s", (_, change, path) => {
    expect(paths(change)).toContain(path);
  });

  it("cuts a round one by its circle", () => {
    const round = { shape: "round", length_m: 20, width_m: 20 };
    expect(place({ ...round, items: [{ ...item, x_m: 10, y_m: 19.5 }] }).ok).toBe(true);
    expect(paths({ ...round, items: [{ ...item, x_m: 1.2, y_m: 1.2 }] })).toEqual(["items[0].x_m"]);
  });
});

describe("kit, practice, putting away", () => {
  it("refuse what cannot be", () => {
    expect(check(kitSchema, { name: "line", kind: "line", length_m: 0 }).ok).toBe(false);
    expect(check(kitSchema, { name: "", kind: "line" }).ok).toBe(false);
    expect(check(kitSchema, { name: "x", kind: "spur" }).ok).toBe(false);
    expect(check(practiceSchema, { day: "2026-11-26", what: "line", minutes: 5 }, { context: TODAY }).ok).toBe(false);
    expect(check(practiceSchema, { day: null, what: "line", minutes: 5 }, { context: TODAY }).ok).toBe(false);
    expect(check(practiceSchema, { day: "2026-11-20", what: "line", minutes: 0 }, { context: TODAY }).ok).toBe(false);
    expect(check(practiceSchema, { day: "2026-11-20", what: "line", minutes: 5 }, { context: TODAY }).ok).toBe(true);
    expect(check(awaySchema, { kind: "sulking" }, { context: TODAY }).ok).toBe(false);
    expect(check(awaySchema, { kind: "resting", since: "2027-01-01" }, { context: TODAY }).ok).toBe(false);
  });
});

describe("a session that is not work", () => {
  it("needs no ladder; work begins free or on a rung of one", () => {
    const session = (change: object) => check(newSessionSchema, { id: testId(1), horse: "h", ...change }, { strict: true }).ok;
    expect(session({ kind: "first-look" })).toBe(true);
    expect(session({ kind: "touch", ladder: null, start_rung: null })).toBe(true);
    expect(session({ kind: "work" })).toBe(true);
    expect(session({ kind: "work", ladder: "" })).toBe(false);
    expect(session({ kind: "work", ladder: "l" })).toBe(false);
    expect(session({ kind: "work", ladder: "l", start_rung: 1 })).toBe(true);
    expect(session({ kind: "race" })).toBe(false);
    expect(session({ kind: "touch", kit: [1] })).toBe(false);
  });
});

describe("a ladder plan", () => {
  const plan = (change: Partial<Record<keyof LadderPlan, unknown>> = {}) => ({ ...emptyDraft().plan, ...change }) as LadderPlan;

  it("of the editor's first draft is good", () => {
    expect(checkLadderPlan(plan()).ok).toBe(true);
  });

  it.each<[string, Partial<Record<keyof LadderPlan, unknown>>, string]>([
    ["one rung", { rungs: plan().rungs.slice(0, 1) }, "rungs"],
    ["forty-one rungs", { rungs: Array.from({ length: 41 }, () => plan().rungs[0]) }, "rungs"],
    ["no strand", { strands: [] }, "strands"],
    ["a strand twice", { strands: [plan().strands[0], plan().strands[0]] }, "strands"],
    ["no phase", { phases: [] }, "phases"],
    ["six phases", { phases: Array.from({ length: 6 }, () => plan().phases[0]) }, "phases"],
    ["a nameless phase", { phases: [{ ...plan().phases[0], label: "" }] }, "phases[0].label"],
    ["a dwell of 0", { phases: [{ ...plan().phases[0], dwellSeconds: 0 }] }, "phases[0].dwellSeconds"],
    ["an unknown method", { method: "luck" }, "method"],
    ["an unknown rule", { mastery: { kind: "mood" } }, "mastery.kind"],
    ["9 of 8", { mastery: { kind: "share", met: 9, of: 8, window: "moving" } }, "mastery.met"],
    ["a window of 13", { mastery: { kind: "share", met: 9, of: 13, window: "moving" } }, "mastery.of"],
    ["on no day", { mastery: { kind: "run", length: 3, days: 0 } }, "mastery.days"],
    ["a run of 0", { mastery: { kind: "run", length: 0 } }, "mastery.length"],
    ["sure by 2", { mastery: { kind: "posterior", target: 0.8, confidence: 2, least: 5 } }, "mastery.confidence"],
    ["every first", { schedule: { kind: "fixed", ratio: 1 } }, "schedule.ratio"],
    ["no repetitions", { plannedRepetitions: 0 }, "plannedRepetitions"],
    ["a longest ask of a day", { maximumSeconds: 86_400 }, "maximumSeconds"],
    ["a level nobody wrote", { rungs: [{ values: { form: "moonwalk", latency: 5 } }, plan().rungs[1]] }, "rungs[0].values.form"],
    ["a value missing", { rungs: [{ values: { form: "weight shift" } }, plan().rungs[1]] }, "rungs[0].values.latency"],
    ["a latency of −1", { rungs: [{ values: { form: "weight shift", latency: -1 } }, plan().rungs[1]] }, "rungs[0].values.latency"],
    ["a counted strand that is none", { workingStrandId: "form" }, "workingStrandId"],
    ["nothing at all", { strands: undefined, rungs: undefined, phases: undefined }, "strands"],
  ])("with %s is refused", (_, change, path) => {
    const checked = checkLadderPlan(plan(change));
    expect(checked.ok ? [] : checked.problems.map((p) => p.path)).toContain(path);
  });

  it("leaves the values of gone strands out", () => {
    const checked = checkLadderPlan(plan({ rungs: plan().rungs.map((rung) => ({ values: { ...rung.values, ghost: 3 } })) }));
    expect(checked.ok && Object.keys(checked.value.rungs[0]?.values ?? {})).toEqual(["form", "latency"]);
  });

  it.each([[null], ["plan"], [3], [[]]])("is not %j", (value) => {
    expect(checkLadderPlan(value).ok).toBe(false);
  });
});

const event = (type: EventType, payload: object, change: object = {}) => ({
  id: testId(1),
  session: testId(2),
  recorder: "phone:a",
  load: testId(3),
  seq: 0,
  mono_ms: 1.5,
  wall_ms: Date.UTC(2026, 4, 4),
  type,
  payload,
  ...change,
});

/** A good payload of every type, as the formats document gives them. */
const GOOD: Record<EventType, object> = {
  "session.start": { horse: "h", handler: "a", place: "p", plan: "x", method: "combined" },
  preflight: {
    air_c: 21,
    humidity: 60,
    wind: "light",
    gear: { helmet: true, gloves: true, boots: true },
    checks: ["calm"],
    skipped: false,
  },
  "block.start": {
    block: 1,
    behaviour: "b",
    ladder: "l",
    version: 1,
    rung: 2,
    criterion: { sentence: "x" },
    side: "L",
    kind: "work",
    planned: 8,
  },
  ask: { phase: 1 },
  phase: { phase: 2, by: "press" },
  response: { answer: "met", phase: 2 },
  criterion: {},
  release: {},
  mark: { heard: 0.83 },
  wrong: { did: "left", met: "moved on", began: "far off", zone: "corner", metres: 4, goes_on: true },
  "wrong.end": {},
  "own.start": { what: "looks", at: "the flag" },
  "own.end": { what: "looks", ended_by: "horse" },
  handler: { act: "steps", n: 2 },
  with: { who: "Bo", person: "p", part: "handles" },
  retreat: { distance_m: 1.5, zone: "gate" },
  rig: { checks: ["quick release tried"], open: [], side: "L", skipped: false },
  "run.start": { chain: "c", name: "Loads", direction: "backward", links: ["to the ramp", "in"], from: 2 },
  link: { link: 1 },
  "run.end": { link: 2, reason: "left", did: "asked again" },
  feed: { pieces: 1, where: "shoulder" },
  reinforce: { what: "scratch" },
  trial: { outcome: "met", side: "R", phase: 1, latency_s: 2.5, reinforced: 1, ease: 3, logged: "tally" },
  offer: { earned: "settled" },
  measure: { strand: "steps", value: 3, unit: "" },
  stay: { ended_by: "left", handler_distance_m: 2 },
  signal: { name: "rears", class: "danger" },
  depart: { to: "gate", from: "handler" },
  return: { to: "handler" },
  zone: { zone: "plate" },
  sample: { question: "near", answer: "companion", observer: "a" },
  touch: { zone: "poll", side: "L", tool: "hand", grade: 3 },
  gait: { gait: "trot", direction: "left", radius_m: 8 },
  "circle.start": {
    plan: {
      form: "circle",
      radius_m: 8,
      radius_by: "line",
      segments: [{ gait: "walk", side: "L", minutes: 8 }],
      transitions: { by: "lap", every: 2, to: "walk" },
      obstacles: ["a pole"],
      led_first: true,
      ways: "turn",
      kit: "k",
      kit_stage: "led in hand",
      lines: null,
    },
    overrides: [{ key: "visits", why: "vet said so" }],
  },
  "circle.go": { segment: 2 },
  "circle.more": { seconds: 60 },
  aid: { aid: "whip", to: "trot" },
  "circle.out": {},
  lap: {},
  "slack.start": {},
  "slack.end": {},
  "circle.rated": { easy: true },
  cool: { did: "handed", who: "Bo" },
  "lines.step": { what: "turn, wide", side: "L", metres: 12 },
  breath: { taps_ms: [0, 3000, 6100] },
  "break.start": { reason: "rest" },
  "break.end": {},
  word: { word: "Stay", reason: "x", numbers: { met: 3 }, taken: false },
  override: { of: testId(5), from: "try", to: "met", reason: "seen" },
  note: { text: "soft" },
  safety: { what: "pulled back", then: "go on easier" },
  "block.end": {},
  "session.end": {},
  aftercare: { breathing: [{ wall_ms: 1, per_min: 20 }], legs: "cool", kit: "fine", food_g: 200 },
  correct: { event: testId(5), strike: true, payload: { phase: 2 }, reason: "slip" },
  undo: { event: testId(5) },
};

describe("an event", () => {
  it.each(EVENT_TYPES.map((type) => [type]))("of type %s is taken", (type) => {
    expect(checkEvent(event(type, GOOD[type]))).toMatchObject({ ok: true });
  });

  it.each<[EventType, object, string]>([
    ["response", { answer: "maybe" }, "payload.answer"],
    ["response", {}, "payload.answer"],
    ["phase", { phase: "2" }, "payload.phase"],
    ["phase", { phase: 1.5 }, "payload.phase"],
    ["phase", { phase: 2, by: "timer" }, "payload.by"],
    ["trial", { outcome: "won" }, "payload.outcome"],
    ["trial", { outcome: "met", ease: 5 }, "payload.ease"],
    ["trial", { outcome: "met", latency_s: -1 }, "payload.latency_s"],
    ["trial", { outcome: "met", reinforced: 2 }, "payload.reinforced"],
    ["block.start", { behaviour: "b", rung: 1 }, "payload.block"],
    ["block.start", { block: 1, behaviour: "b" }, "payload.rung"],
    ["block.start", { block: 1, behaviour: "b", rung: 1, criterion: { max_phase: 1 } }, "payload.criterion.sentence"],
    ["note", { text: LONG }, "payload.text"],
    ["undo", { event: "that one" }, "payload.event"],
    ["breath", { taps_ms: [1] }, "payload.taps_ms"],
    ["feed", { pieces: 1000 }, "payload.pieces"],
  ])("%s with %j is refused at %s", (type, payload, path) => {
    const checked = checkEvent(event(type, payload));
    expect(checked.ok ? [] : checked.problems.map((p) => p.path)).toContain(path);
  });

  it.each([
    [{ id: "x" }],
    [{ session: undefined }],
    [{ seq: -1 }],
    [{ seq: 1.5 }],
    [{ mono_ms: -1 }],
    [{ mono_ms: "soon" }],
    [{ wall_ms: Number.NaN }],
    [{ type: "jump" }],
    [{ payload: null }],
    [{ payload: "x" }],
    [{ recorder: LONG }],
  ])("with the envelope %j is refused", (change) => {
    expect(checkEvent(event("mark", {}, change)).ok).toBe(false);
  });

  it("keeps keys the product does not know, within a size", () => {
    expect(checkEvent(event("mark", { colour: "red" }))).toMatchObject({ ok: true, value: { payload: { colour: "red" } } });
    expect(checkEvent(event("mark", { colour: "x".repeat(30_000) })).ok).toBe(false);
  });
});

describe("a batch", () => {
  const NOW = Date.UTC(2026, 4, 5);
  const batch = (change: object = {}) =>
    checkBatch({ store: "s", recorder: "phone:a", clocks: {}, events: [event("mark", {})], ...change }, NOW);

  it("is taken whole, or refused naming the event", () => {
    expect(batch().ok).toBe(true);
    const bad = batch({ events: [event("mark", {}), event("phase", {})] });
    expect(bad.ok ? [] : bad.problems[0]?.path).toBe("events[1].payload.phase");
  });

  it("refuses times before 1980 and in the future, by the corrected clock", () => {
    expect(batch({ events: [event("mark", {}, { wall_ms: Date.UTC(1979, 0, 1) })] }).ok).toBe(false);
    expect(batch({ events: [event("mark", {}, { wall_ms: NOW + 3 * 86_400_000 })] }).ok).toBe(false);
    // A phone whose clock stands in 1970 knows its offset to the server: nothing is lost.
    expect(batch({ events: [event("mark", {}, { wall_ms: 5000 })], clocks: { [testId(3)]: NOW } }).ok).toBe(true);
    // A load in capitals is the same load: its clock is found by its taps.
    const load = "0ABCDEF0-0000-4000-8000-00000000000A";
    expect(batch({ events: [event("mark", {}, { load, wall_ms: 5000 })], clocks: { [load]: NOW } })).toMatchObject({
      value: { clocks: { [load.toLowerCase()]: NOW }, events: [{ load: load.toLowerCase() }] },
    });
  });

  it.each([
    [{ events: "all" }],
    [{ events: undefined }],
    [{ store: 3 }],
    [{ clocks: { x: 1 } }],
    [{ clocks: { [testId(3)]: "late" } }],
    [{ events: [null] }],
    [{ events: [[]] }],
  ])("refuses %j", (change) => {
    expect(batch(change).ok).toBe(false);
  });

  it.each([[null], [3], ["events"], [[]]])("is not %j", (value) => {
    expect(checkBatch(value, NOW).ok).toBe(false);
  });
});

describe("what is put right of a session", () => {
  it("takes a reason that is text, and says so of anything else", () => {
    const right = (reason: unknown) => check(putRightSchema, { place: null, reason });
    expect(right(" wrong pen ")).toMatchObject({ ok: true, value: { reason: "wrong pen" } });
    for (const reason of [["a", 1], { trim: 1 }, 5, true, null, "", "  ", undefined]) expect(right(reason).ok).toBe(false);
  });
});

describe("a session with names given in passing", () => {
  const begun = { id: "00000000-0000-4000-8000-000000000001", horse: "h" };
  it("takes one line of text for each, and nothing else", () => {
    const named = (person_name: unknown) => check(newSessionSchema, { ...begun, person_name }, { strict: true }).ok;
    expect([named("Nell"), named(" Nell "), named(undefined), named("")]).toEqual([true, true, true, true]);
    for (const wrong of [5, ["Nell"], {}, "a\nb", "a\u0000b", "x".repeat(81)]) expect(named(wrong)).toBe(false);
  });
});

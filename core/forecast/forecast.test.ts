import { describe, expect, it } from "vitest";
import { goBackThresholds } from "../advice";
import { mixedChance } from "../chance";
import {
  AllOrNoneLearner,
  FearfulLearner,
  LEARNER_KINDS,
  type Learner,
  LinearLearner,
  learnerOf,
  OTHER_LEARNER_KINDS,
  PractisingLearner,
  SouringLearner,
  SuccessLearner,
  WanderingLearner,
} from "../learner";
import { DEFAULT_MASTERY_RULE, type MasteryRule } from "../mastery";
import { DEFAULT_SETTINGS } from "../settings";
import { climb, climbByBar, type KindOutcome, MOST_ASKS_A_RUNG, ruleBand, ruleBandSentence, USUAL_HABITS, type YardHabits } from ".";

const NEVER = { run: 1e6, misses: 1e6, window: 1, refusals: 1e6, refusalWindow: 1 };
/** A horse that never changes. */
const constant = (p: number): Learner => ({
  chanceOfMet: () => p,
  chanceOn: () => p,
  goToRung: () => undefined,
  take: () => undefined,
  rest: () => undefined,
});

describe("the learners", () => {
  it("linear: 1 − (1 − p)(1 − α)ⁿ after n successes (Bush & Mosteller 1955): 0.2, 0.28, 0.352, 0.4168", () => {
    const learner = new LinearLearner({ floor: 0.2, learning: 0.1, unlearning: 0.05, kept: 0.5, forgettingDays: 20 });
    for (const p of [0.2, 0.28, 0.352, 0.4168]) {
      expect(learner.chanceOfMet()).toBeCloseTo(p, 12);
      learner.take("success");
    }
    learner.take("neither");
    expect(learner.chanceOfMet()).toBeCloseTo(0.47512, 12);
    learner.take("failure");
    expect(learner.chanceOfMet()).toBeCloseTo(0.47512 * 0.95, 12);
    // Half way between two rungs keeps the root of what a rung keeps.
    learner.goToRung(1.5);
    expect(learner.chanceOfMet()).toBeCloseTo(0.2 + (0.47512 * 0.95 - 0.2) * Math.SQRT1_2, 12);
  });

  it("souring: the j-th failure running takes j times as much, until a success", () => {
    const learner = new SouringLearner({ floor: 0.5, learning: 0, unlearning: 0.1, kept: 1, forgettingDays: 1e9, mostRunning: 3 });
    const after = [0.9, 0.9 ** 3, 0.9 ** 6, 0.9 ** 9];
    for (const share of after) {
      learner.take("failure");
      expect(learner.chanceOfMet()).toBeCloseTo(0.5 * share, 12);
    }
    learner.take("success");
    learner.take("failure");
    expect(learner.chanceOfMet()).toBeCloseTo(0.5 * 0.9 ** 10, 12);
  });

  it("success: gains and loses on the logit, and a harder rung takes a step", () => {
    const learner = new SuccessLearner({ floor: 0.5, gain: 0.2, loss: 0.3, step: 1, forgettingDays: 1e9 });
    const at = (logit: number) => 1 / (1 + Math.exp(-logit));
    learner.take("success");
    expect(learner.chanceOfMet()).toBeCloseTo(at(0.2), 12);
    learner.take("failure");
    expect(learner.chanceOfMet()).toBeCloseTo(at(-0.1), 12);
    learner.goToRung(3);
    expect(learner.chanceOfMet()).toBeCloseTo(at(-2.1), 12);
    learner.goToRung(1);
    expect(learner.chanceOfMet()).toBeCloseTo(at(-0.1), 12);
  });

  it("fearful: a failure takes from every rung, successes and days give it back", () => {
    const learner = new FearfulLearner({
      floor: 0.5,
      gain: 0,
      loss: 0,
      step: 1,
      forgettingDays: 1e9,
      startle: 0.6,
      mostFear: 1,
      soothed: 0.5,
      calmingDays: 10,
    });
    const at = (logit: number) => 1 / (1 + Math.exp(-logit));
    learner.take("failure");
    expect(learner.chanceOfMet()).toBeCloseTo(at(-0.6), 12);
    expect(learner.chanceOn(3)).toBeCloseTo(at(-2.6), 12);
    // A second one frightens no further than the most.
    learner.take("failure");
    expect(learner.chanceOfMet()).toBeCloseTo(at(-1), 12);
    learner.take("neither");
    learner.take("success");
    expect(learner.chanceOfMet()).toBeCloseTo(at(-0.5), 12);
    learner.rest(10);
    expect(learner.chanceOfMet()).toBeCloseTo(at(-0.5 / Math.E), 12);
  });

  it("all or none, by practice alone, in waves", () => {
    const one = new AllOrNoneLearner({ guess: 0.3, known: 0.9, successes: 2 });
    one.take("success");
    one.take("failure");
    expect(one.chanceOfMet()).toBe(0.3);
    one.take("success");
    expect(one.chanceOfMet()).toBe(0.9);
    expect(one.chanceOn(2)).toBe(0.3);
    one.goToRung(2);
    one.goToRung(1);
    one.rest();
    expect(one.chanceOfMet()).toBe(0.9);

    const temper = { floor: 0.2, learning: 0.1, unlearning: 0.5, kept: 0.5, forgettingDays: 20 };
    const practising = new PractisingLearner(temper);
    practising.take("failure");
    practising.take("success");
    expect(practising.chanceOfMet()).toBeCloseTo(0.352, 12);

    const wandering = new WanderingLearner({ ...temper, learning: 0, unlearning: 0, wave: 1, asksAWave: 4 });
    const shares = [0, 1, 2, 3].map(() => {
      const p = wandering.chanceOfMet();
      wandering.take("success");
      return Math.log(p / (1 - p)) - Math.log(0.25);
    });
    for (const [i, logits] of [0, 1, 0, -1].entries()) expect(shares[i]).toBeCloseTo(logits, 12);
  });

  it("say the chance on another rung without going there", () => {
    for (const kind of [...LEARNER_KINDS, ...OTHER_LEARNER_KINDS]) {
      const learner = learnerOf(kind);
      for (let n = 0; n < 12; n++) learner.take(n % 4 === 3 ? "failure" : "success");
      const here = learner.chanceOfMet();
      const there = learner.chanceOn(3.5);
      expect(learner.chanceOfMet(), kind).toBe(here);
      expect(learner.chanceOn(1), kind).toBeCloseTo(here, 12);
      learner.goToRung(3.5);
      expect(learner.chanceOfMet(), kind).toBeCloseTo(there, 12);
    }
  });

  it("all forget by days, towards where they began", () => {
    for (const kind of LEARNER_KINDS) {
      const learner = learnerOf(kind);
      const before = learner.chanceOfMet();
      for (let n = 0; n < 20; n++) learner.take("success");
      const learned = learner.chanceOfMet();
      expect(learned, kind).toBeGreaterThan(before + 0.1);
      learner.rest(100_000);
      expect(learner.chanceOfMet(), kind).toBeCloseTo(before, 6);
    }
  });
});

describe("climb", () => {
  it("takes as many asks as the rule's own mean says, rung by rung, with a horse that never changes", () => {
    // Feller 1968: three in a row at 0.5 take 14 on average; four rungs 56. Ten seeds of 400 climbs: three standard errors.
    const plan = {
      rungs: 4,
      rule: { kind: "run", length: 3 } as MasteryRule,
      asksPerSession: 30,
      daysBetween: 1,
      ease: NEVER,
      mostAsks: 1e5,
    };
    const asks = Array.from({ length: 4000 }, (_, i) => climb(constant(0.5), plan, mixedChance(`climb ${i}`)).asks);
    const mean = asks.reduce((sum, n) => sum + n, 0) / asks.length;
    // The variance of one wait is 142 (Feller's formula), so the mean of 4000 sums of four is known to ±0.38.
    expect(Math.abs(mean - 56)).toBeLessThan(3 * Math.sqrt((4 * 142) / 4000));
  });

  it("goes a rung back where its failures say so, and gives up in the end", () => {
    const visited: number[] = [];
    const horse: Learner = { ...constant(0.02), goToRung: (rung) => visited.push(rung) };
    const first: Learner = { ...horse, chanceOfMet: () => (visited.length === 0 ? 0.97 : 0.02) };
    const ease = { run: 3, misses: 4, window: 7, refusals: 2, refusalWindow: 5 };
    const rule: MasteryRule = { kind: "run", length: 3 };
    const result = climb(first, { rungs: 5, rule, asksPerSession: 40, daysBetween: 1, ease, mostAsks: 200 }, mixedChance("back"));
    expect(visited.slice(0, 2)).toEqual([2, 1]);
    expect(result).toMatchObject({ reached: false, asks: 200, sessions: 5 });
  });
});

describe("a yard's days", () => {
  const plan = {
    rungs: 1,
    rule: { kind: "run", length: 1e6 } as unknown as MasteryRule,
    asksPerSession: 20,
    daysBetween: 1,
    ease: NEVER,
    mostAsks: 40_000,
  };
  const still = { cold: 0, tires: 0, daySpread: 0, daysAlike: 0, stopsAfter: 1e6 };
  const met = (habits: typeof still) => {
    const { asks, failures } = climb(constant(0.5), { ...plan, habits }, mixedChance("days"));
    return 1 - failures / asks;
  };

  it("begin cold and tire by so many logits", () => {
    // Cold: Σ over twenty asks of 1/(1 + e^{1.2(1 − n/6)}), n from 0 to 5, and fourteen of a half.
    const cold = (Array.from({ length: 6 }, (_, n) => 1 / (1 + Math.exp(1.2 * (1 - n / 6)))).reduce((a, b) => a + b, 0) + 7) / 20;
    expect(met({ ...still, cold: 1.2 })).toBeCloseTo(cold, 2);
    const tired = Array.from({ length: 20 }, (_, n) => 1 / (1 + Math.exp(n / 20))).reduce((a, b) => a + b, 0) / 20;
    expect(met({ ...still, tires: 1 })).toBeCloseTo(tired, 2);
    expect(met(still)).toBeCloseTo(0.5, 2);
  });

  it("end where the trainer has had enough failures running", () => {
    const habits = { ...still, stopsAfter: 2 };
    const none: Learner = { ...constant(0) };
    const { sessions, asks } = climb(none, { ...plan, mostAsks: 400, habits }, mixedChance("stops"));
    // 55 of 100 answers that are not met are tries, which end no patience: far fewer than twenty asks a day.
    expect(asks / sessions).toBeLessThan(12);
  });
});

describe("a bar that follows", () => {
  const plan = {
    rungs: 5,
    rule: DEFAULT_MASTERY_RULE,
    asksPerSession: 40,
    daysBetween: 1,
    ease: NEVER,
    mostAsks: 5000,
    lookBack: 10,
    wantedShare: 0.6,
  };

  it("brings a learner up, and the top is held by its rule", () => {
    const outcomes = Array.from({ length: 40 }, (_, i) => climbByBar(learnerOf("linear"), plan, mixedChance(`bar ${i}`)));
    expect(outcomes.every(({ reached }) => reached)).toBe(true);
    // Ten values before the median says anything, and ten more before the rule can hold.
    expect(Math.min(...outcomes.map(({ asks }) => asks))).toBeGreaterThanOrEqual(19);
  });

  it("never brings up a horse that cannot do the top", () => {
    // Met on the first two rungs always, never beyond.
    const horse: Learner = { ...constant(0), chanceOn: (rung) => (rung <= 2 ? 1 : 0) };
    expect(climbByBar(horse, { ...plan, mostAsks: 500 }, mixedChance("low"))).toMatchObject({ reached: false, asks: 500 });
  });
});

const share = (met: number, of = 10): MasteryRule => ({ kind: "share", met, of, window: "moving" });
const CHOICE = { rungs: 12, asksPerSession: 40, horses: 60 };

describe("rules over kinds of horse", () => {
  it("finds haste free with one kind and dear with another, so that the default is chosen for the worst", () => {
    const reached = (rule: MasteryRule) => Object.fromEntries(ruleBand(rule, CHOICE).kinds.map(({ kind, reached: up }) => [kind, up]));
    const hasty = reached(share(6));
    expect(hasty.linear).toBe(1);
    expect(hasty.success).toBeLessThan(0.1);
    const common = reached(share(8));
    expect(common.success).toBeLessThan(0.85);
    const chosen = reached(DEFAULT_MASTERY_RULE);
    for (const kind of LEARNER_KINDS) expect(chosen[kind], kind).toBeGreaterThan(0.9);
  });

  it("finds haste dear with a horse that takes fright, and the default no worse in a yard than the rules beside it", () => {
    const of = (rule: MasteryRule, habits?: YardHabits) => ruleBand(rule, habits === undefined ? CHOICE : { ...CHOICE, habits });
    const notMet = (rule: MasteryRule) => of(rule).kinds.find(({ kind }) => kind === "fearful")?.notMet?.[1] ?? 0;
    expect(notMet({ kind: "run", length: 3 })).toBeGreaterThan(3 * notMet(DEFAULT_MASTERY_RULE));
    const worst = (rule: MasteryRule) => of(rule, USUAL_HABITS).worst.reached;
    expect(worst(DEFAULT_MASTERY_RULE)).toBeGreaterThan(worst(share(8)));
    expect(worst(share(8))).toBeGreaterThan(worst(share(6)));
  });

  it("finds a softer rule quicker with horses that nothing can spoil", () => {
    const asks = (rule: MasteryRule) => ruleBand(rule, { ...CHOICE, kinds: OTHER_LEARNER_KINDS }).kinds.map((one) => one.asks?.[1] ?? 0);
    const [soft, hard] = [asks(share(8)), asks(DEFAULT_MASTERY_RULE)];
    for (const [i, n] of soft.entries()) expect(n, OTHER_LEARNER_KINDS[i]).toBeLessThan(hard[i] ?? 0);
  });

  it("chooses a session's plan that costs no kind of horse its way up, where twice as long does", () => {
    const worst = (asksPerSession: number) => ruleBand(DEFAULT_MASTERY_RULE, { ...CHOICE, asksPerSession }).worst.reached;
    const planned = 8 * DEFAULT_SETTINGS.planBlocks;
    expect(worst(planned)).toBeGreaterThan(0.9);
    expect(worst(2.4 * planned)).toBeLessThan(0.5);
  });

  it("says what it came to, the worst kind first where it mostly fails", () => {
    const kind = (change: Partial<KindOutcome>): KindOutcome => ({
      kind: "linear",
      reached: 1,
      asks: [201, 252, 388],
      notMet: [41, 80, 97],
      ...change,
    });
    const band = (...kinds: KindOutcome[]) => ({ rungs: 12, kinds, worst: kinds.at(-1) as KindOutcome });
    expect(ruleBandSentence(band(kind({}), kind({ kind: "success", asks: [154, 170, 431], notMet: [12, 15, 61] })))).toBe(
      "12 rungs: 150 to 430 asks, 10 to 95 of them not met, whatever kind of horse.",
    );
    expect(ruleBandSentence(band(kind({}), kind({ kind: "success", reached: 0.53 })))).toBe(
      `12 rungs: of 100 horses of the kind that gains by success, loses by failure, 53 get up within ${12 * MOST_ASKS_A_RUNG} asks; others take 200 to 390.`,
    );
    expect(() => ruleBand(share(8), { ...CHOICE, rungs: 0 })).toThrow(RangeError);
    expect(ruleBand(share(8), { ...CHOICE, rungs: 1, horses: 5 })).toEqual(ruleBand(share(8), { ...CHOICE, rungs: 1, horses: 5 }));
    expect(goBackThresholds(DEFAULT_MASTERY_RULE, DEFAULT_SETTINGS).run).toBe(DEFAULT_SETTINGS.easeRun);
  });
});

import { describe, expect, it } from "vitest";
import { seededChance } from "../chance";
import { SimulatedHorse, type Temper } from "./learner";

const TEMPER: Temper = {
  floor: 0.3,
  learning: 0.1,
  unlearning: 0.05,
  kept: 0.7,
  forgettingDays: 20,
  weakSide: "L",
  weakLearning: 0.5,
  meanWaitSeconds: 2,
  freshTrials: 1000,
  tension: 0.2,
  stallsAtRung: null,
  stallTrials: 0,
};
const horse = (change: Partial<Temper> = {}, seed = 1) => new SimulatedHorse({ ...TEMPER, ...change }, seededChance(seed));

describe("the simulated horse", () => {
  it("learns by the linear operator: p after n reinforced met answers is 1 − (1 − p₁)(1 − α)ⁿ (Bush & Mosteller 1955)", () => {
    const h = horse();
    for (let n = 1; n <= 8; n++) {
      h.learn("R", "met", true);
      expect(h.chanceOfMet("R")).toBeCloseTo(1 - 0.7 * 0.9 ** n, 12);
    }
  });

  it("leaves p alone on a try or an unreinforced met, and loses on a miss or a refusal", () => {
    const h = horse();
    h.learn("R", "try", true);
    h.learn("R", "met", false);
    expect(h.chanceOfMet("R")).toBeCloseTo(0.3, 12);
    h.learn("R", "miss", false);
    h.learn("R", "refused", false);
    expect(h.chanceOfMet("R")).toBeCloseTo(0.3 * 0.95 ** 2, 12);
  });

  it("has a weaker side that begins lower and learns slower", () => {
    const h = horse();
    const before = h.chanceOfMet("L");
    h.learn("L", "met", true);
    h.learn("R", "met", true);
    expect(before).toBeLessThan(0.3);
    expect(h.chanceOfMet("L") - before).toBeLessThan(h.chanceOfMet("R") - 0.3);
  });

  it("keeps a share on a harder rung, gets it back on the easier one, and forgets by days", () => {
    const h = horse();
    for (let n = 0; n < 10; n++) h.learn("R", "met", true);
    const strong = h.chanceOfMet("R");
    h.goToRung(2);
    expect(h.chanceOfMet("R")).toBeCloseTo(0.3 + 0.7 * (strong - 0.3), 12);
    h.goToRung(1);
    expect(h.chanceOfMet("R")).toBeCloseTo(strong, 12);
    h.rest(20);
    expect(h.chanceOfMet("R")).toBeCloseTo(0.3 + (strong - 0.3) / Math.E, 12);
  });

  it("stalls where its temper says", () => {
    const stalled = horse({ stallsAtRung: 1, stallTrials: 50 });
    const free = horse();
    for (const h of [stalled, free]) {
      h.ask("R", [3], 20);
      h.learn("R", "met", true);
    }
    expect(stalled.chanceOfMet("R")).toBeLessThan(free.chanceOfMet("R"));
  });

  it("meets as often as its strength says, within sampling error, and gives times that can be", () => {
    const h = horse({ floor: 0.6 }, 9);
    let met = 0;
    for (let i = 0; i < 4000; i++) {
      const answer = h.ask("R", [3, 3, 4], 20);
      if (answer.outcome === "met") met++;
      expect(answer.latencySeconds).toBeGreaterThan(0);
      expect(answer.latencySeconds).toBeLessThanOrEqual(20);
      expect(answer.phase).toBeLessThanOrEqual(3);
      expect([0, 1, 2, 3, 4]).toContain(answer.ease);
    }
    // Past its fresh trials it tires; the first thousand are at full strength.
    expect(met / 4000).toBeLessThan(0.62);
    const fresh = horse({ floor: 0.6 }, 10);
    const share = Array.from({ length: 1000 }, () => fresh.ask("R", [3], 20).outcome).filter((o) => o === "met").length / 1000;
    expect(Math.abs(share - 0.6)).toBeLessThan(4 * Math.sqrt(0.24 / 1000));
  });

  it("is the same for the same seed", () => {
    const run = () => Array.from({ length: 20 }, () => horse({}, 3).ask("R", [3, 3], 20));
    expect(run()).toEqual(run());
  });
});

describe("a horse handled well", () => {
  it("answers lightly and softly once it has learned, so that a rung that asks for both is met nine times in ten", () => {
    const asks = (handledWell: boolean) => {
      const h = horse({ floor: 0.95, tension: 0.15, ...(handledWell ? { handledWell: true as const } : {}) }, 3);
      const answers = Array.from({ length: 600 }, () => h.ask("R", [3, 3, 4], 20)).filter(({ outcome }) => outcome === "met");
      return answers.filter(({ phase, ease }) => phase === 1 && ease >= 3).length / answers.length;
    };
    expect(asks(true)).toBeGreaterThan(0.88);
    expect(asks(false)).toBeLessThan(0.8);
  });
});

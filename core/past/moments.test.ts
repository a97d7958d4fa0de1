import { describe, expect, it } from "vitest";
import { seededChance } from "@/core/chance";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";
import { beforeItGoes, goodMoment, type Moment, turnsWithin } from ".";

const flat = (p: number, n: number, chance: () => number) => Array.from({ length: n }, () => (chance() < p ? "m" : "x")).join("");

describe("the good moment to stop", () => {
  it("counts good answers until two running are worse, and cuts off what was stopped before", () => {
    const past = writePast([
      { day: 0, trials: "mmmmmxx" },
      { day: 1, trials: "mmmmm" },
      { day: 2, trials: "mm" },
      { day: 3, trials: [1, 1, 1, 1, 2, 2].map((latencySeconds) => ({ outcome: "met" as const, latencySeconds })) },
      { day: 4, trials: [3, 3, 3, 3, 2, 2].map((ease) => ({ outcome: "met" as const, ease })) },
    ]);
    expect(goodMoment(past).turns).toEqual([
      { session: 0, good: 5, turned: true },
      { session: 1, good: 5, turned: false },
      { session: 3, good: 4, turned: true },
      { session: 4, good: 4, turned: true },
    ]);
  });

  it("takes a new rung or the other side for no turn", () => {
    const trials = [
      ..."mmmmmm".split("").map(() => ({ outcome: "met" as const, side: "R" as const })),
      ..."xxmmmm".split("").map((one) => ({ outcome: one === "m" ? ("met" as const) : ("miss" as const), side: "L" as const })),
    ];
    expect(goodMoment(writePast([{ day: 0, trials }])).turns).toEqual([{ session: 0, good: 10, turned: false }]);
  });

  it("is said of a horse that tires, and of one that does not at most as often as it says", () => {
    const chance = seededChance(9);
    const tired = goodMoment(
      writePast(Array.from({ length: 20 }, (_, day) => ({ day, trials: `${flat(0.95, 8, chance)}${flat(0.3, 6, chance)}` }))),
    );
    expect(tired.shown).toBe(true);
    expect(tired.usually?.[0]).toBeGreaterThanOrEqual(6);
    expect(tired.usually?.[1]).toBeLessThanOrEqual(11);
    expect(tired.sentence).toMatch(/^Usually turns after \d+ to \d+ good answers/);
    let said = 0;
    for (let run = 0; run < 150; run++) {
      const steady = writePast(Array.from({ length: 20 }, (_, day) => ({ day, trials: flat(0.75, 12, chance) })));
      if (goodMoment(steady).usually !== null) said++;
    }
    expect(said).toBeLessThanOrEqual(6);
  });

  /**
   * The same test written another way: chances one after the other, the beta
   * by going through a grid, the slopes by moving each parameter, p by counting
   * the area under Student's curve in small steps.
   */
  const naively = (lists: readonly string[]): number => {
    const chances = (trials: string, a: number, b: number) =>
      [...trials].map((_, i) => (a + [...trials.slice(0, i)].filter((one) => one === "x").length) / (a + b + i));
    const log = (trials: string, a: number, b: number) =>
      chances(trials, a, b).reduce((sum, p, i) => sum + Math.log(trials[i] === "x" ? p : 1 - p), 0);
    const all = (a: number, b: number) => lists.reduce((sum, trials) => sum + log(trials, a, b), 0);
    let best = { log: Number.NEGATIVE_INFINITY, a: 1, b: 1 };
    const look = (share: number, alike: number) => {
      const [a, b] = [share * alike, (1 - share) * alike];
      const found = all(a, b);
      if (found > best.log) best = { log: found, a, b };
    };
    for (let share = 0.02; share < 1; share += 0.02) for (let n = 0.5; n <= 500; n *= 1.3) look(share, Math.min(500, n));
    const { a, b } = best;
    const [share, alike] = [a / (a + b), a + b];
    for (let s = share - 0.02; s < share + 0.02; s += 0.0005)
      for (let n = alike / 1.4; n < alike * 1.4; n *= 1.01) if (s > 0 && s < 1 && n >= 0.5 && n <= 500) look(s, n);
    const u = lists.map((trials) => chances(trials, best.a, best.b).reduce((sum, p, i) => sum + i * ((trials[i] === "x" ? 1 : 0) - p), 0));
    const by = (x: number, y: number) =>
      lists.map((trials) => (log(trials, best.a * (1 + x), best.b * (1 + y)) - log(trials, best.a * (1 - x), best.b * (1 - y))) / 2e-5);
    const [v, w] = [by(1e-5, 0), by(0, 1e-5)];
    // What two lists explain of a third, by taking one off after the other.
    const times = (x: number[], y: number[]) => x.reduce((sum, one, i) => sum + one * (y[i] ?? 0), 0);
    const off = (x: number[], y: number[]) => x.map((one, i) => one - (times(x, y) / times(y, y)) * (y[i] ?? 0));
    const left = off(off(u, v), off(w, v));
    const t = left.reduce((x, y) => x + y, 0) / Math.sqrt(times(left, left));
    const degrees = lists.length - 1;
    const density = (x: number) => (1 + (x * x) / degrees) ** (-(degrees + 1) / 2);
    let [above, whole] = [0, 0];
    for (let x = -400; x < 400; x += 0.002) {
      whole += density(x);
      if (x > t) above += density(x);
    }
    return above / whole;
  };

  it.each([
    ["mmmx mmxx mmmxmx mmmx mmxm mmmmxx"],
    ["xmmm mxmmm mmxmxx mxmm mmxm mxmmmmmx"],
    ["xmxx mxxx xmxx xxxm mxxx xmxxxm"],
    ["mmxmxxx mxmxmmmm mmmxx xmmmxxx mmxxmx mxmxmmm mmmmmmx"],
    ["mmmmmmxx mmmmmxmx mmmmmmmxx mxmmmmx mmmmxxx mmmmmmmmxx mmmmxx"],
  ])("holds later answers against what the session so far lets expect: %s", (text) => {
    const lists = text.split(" ");
    const { p } = goodMoment(writePast(lists.map((trials, day) => ({ day, trials }))));
    const naive = naively(lists);
    expect(Math.abs((p ?? Number.NaN) - naive)).toBeLessThan(0.004 + 0.03 * naive);
  });

  it("gives the asks within which it usually turns, from where a session stands", () => {
    // Of four sessions one turns after 5, 6, 8 and 9 good answers.
    const { curve } = goodMoment(writePast([5, 6, 8, 9].map((good, day) => ({ day, trials: `${"m".repeat(good)}xx` }))));
    if (curve === null) throw new Error("there is a curve");
    expect(turnsWithin(curve.steps, 4)).toEqual([1, 2]);
    expect(turnsWithin(curve.steps, 6)).toEqual([2, 2]);
    expect(turnsWithin(curve.steps, 0)).toEqual([5, 6]);
    expect(turnsWithin(curve.steps, 9)).toBeNull();
  });

  it("does not take a hard rung for what going on too long did to the next day", () => {
    const chance = seededChance(31);
    let said = 0;
    for (let run = 0; run < 60; run++) {
      // Easy and hard rungs by turns of five sessions; the day before plays no part.
      const past = writePast(
        Array.from({ length: 40 }, (_, day): WrittenSession => {
          const hard = Math.floor(day / 5) % 2 === 1;
          return { day, trials: flat(hard ? 0.45 : 0.9, 10, chance), all: { rung: hard ? 2 : 1 } };
        }),
      );
      if (goodMoment(past).next?.sentence.startsWith("A difference")) said++;
    }
    expect(said).toBeLessThanOrEqual(4);
  });
});

describe("what comes before it goes", () => {
  /** Ten minutes with signs at random and departures, each of ten seconds; some follow a sign. */
  const session = (chance: () => number, follows: number) => {
    const moments: Moment[] = [];
    const away: [number, number][] = [];
    for (let s = 20; s < 570; s += 30 + Math.floor(chance() * 30)) {
      const sign = chance() < 0.5 ? "head high" : "tail swishes";
      moments.push([s * 1000, "tension", sign]);
      if (sign === "head high" && chance() < follows) {
        moments.push([(s + 8) * 1000, "left", ""]);
        away.push([(s + 8) * 1000, (s + 14) * 1000]);
      } else if (chance() < 0.1) {
        moments.push([(s + 25) * 1000, "left", ""]);
        away.push([(s + 25) * 1000, (s + 29) * 1000]);
      }
    }
    return { moments: moments.sort((a, b) => a[0] - b[0]), away };
  };
  it("is found, with how often one follows and how often by chance", () => {
    const chance = seededChance(4);
    const past = writePast(Array.from({ length: 14 }, (_, day) => ({ day, trials: "m", facts: session(chance, 0.7) })));
    const { precursors, sentence } = beforeItGoes(past);
    const high = precursors.find(({ name }) => name === "head high");
    expect(high).toMatchObject({ called: true, prompts: true });
    expect(high?.share).toBeGreaterThan(0.5);
    expect(precursors.find(({ name }) => name === "tail swishes")?.called).toBe(false);
    expect(sentence).toMatch(/^After head high it left or showed danger within 20 s in \d+ of \d+; by chance it would be \d+ of 100\.$/);
  });

  it("is called where nothing is there at most as often as it says", () => {
    const chance = seededChance(8);
    let called = 0;
    for (let run = 0; run < 150; run++) {
      const facts = () => {
        const moments: Moment[] = [];
        const away: [number, number][] = [];
        for (let i = 0; i < 12; i++) moments.push([Math.floor(chance() * 590_000), "tension", i % 3 === 0 ? "head high" : "tail swishes"]);
        for (let i = 0; i < 5; i++) {
          const ms = Math.floor(chance() * 580_000);
          moments.push([ms, "left", ""]);
          away.push([ms, ms + 5000]);
        }
        return { moments: moments.sort((a, b) => a[0] - b[0]), away };
      };
      const past = writePast(Array.from({ length: 10 }, (_, day) => ({ day, trials: "m", facts: facts() })));
      if (beforeItGoes(past).precursors.some((one) => one.called)) called++;
    }
    expect(called).toBeLessThanOrEqual(13);
  });

  it("takes nothing for coming before that came with the going or just after it", () => {
    // It leaves, and lifts its head 0.7 s later, in the same second of the clock.
    const facts = (at: number) => ({
      moments: [
        [at + 200, "left", ""],
        [at + 900, "tension", "head high"],
        [at + 60_000, "tension", "head high"],
      ] as Moment[],
      away: [[at + 200, at + 6000]] as [number, number][],
    });
    const past = writePast(Array.from({ length: 8 }, (_, day) => ({ day, trials: "m", facts: facts(100_000 + 7000 * day) })));
    expect(beforeItGoes(past).precursors.find(({ name }) => name === "head high")).toMatchObject({ bouts: 8, followed: 0 });
  });

  it("takes what repeats in a bout for one, and counts nothing while it is away or at rest", () => {
    const moments: Moment[] = [
      [10_000, "tension", "head high"],
      [15_000, "tension", "head high"],
      [20_000, "left", ""],
      [22_000, "tension", "head high"],
      [100_000, "tension", "head high"],
    ];
    const past = writePast(
      Array.from({ length: 6 }, (_, day) => ({ day, trials: "", facts: { moments, away: [[20_000, 60_000]] as [number, number][] } })),
    );
    const [high] = beforeItGoes(past).precursors.filter(({ name }) => name === "head high");
    expect(high).toMatchObject({ bouts: 12, followed: 6, share: 0.5 });
    expect(beforeItGoes(writePast([{ day: 0, trials: "m" }])).sentence).toBe(
      "It did not leave, and there was no danger sign, in this span.",
    );
  });

  it("knows a wait in which nothing was asked", () => {
    const trials = [0, 10_000, 60_000].map((askMs) => ({ outcome: "met" as const, askMs, endMs: askMs + 4000 }));
    const past = writePast(
      Array.from({ length: 6 }, (_, day) => ({
        day,
        trials,
        facts: { moments: [[40_000, "left", ""] as Moment], away: [[40_000, 50_000]] as [number, number][] },
      })),
    );
    expect(beforeItGoes(past).precursors.find(({ kind }) => kind === "waited")).toMatchObject({ bouts: 6, followed: 6, called: true });
  });
});

import { type Chance, drawNormal } from "@/core/chance";
import { type Arm, drawOrder, ordersOf, tryResult } from "@/core/experiment";
import {
  beforeItGoes,
  contrastSets,
  goodMoment,
  type Moment,
  overWeeks,
  type Past,
  raisesOf,
  raiseTold,
  savingsOf,
  trialsFor,
} from "@/core/past";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";
import { TRIED } from "../yard";
import { type Claim, DAY_SPREAD, logit, share, upTo } from "./claim";

const DAYS = 24;
const row = (chance: Chance, n: number, p: number) =>
  upTo(n)
    .map(() => (chance() < p ? "m" : "x"))
    .join("");

/** Sessions of two handlers or in wind and calm, as chance has it; one is behind by so much on the logit. */
function twoSets(chance: Chance, behind: number): Past {
  return writePast(
    upTo(DAYS).map((day): WrittenSession => {
      const windy = chance() < 0.4;
      const today = logit(0.65) + drawNormal(chance, 0, DAY_SPREAD) - (windy ? behind : 0);
      return { day, trials: row(chance, 12, share(today)), facts: { wind: windy ? "gusts" : "still" } };
    }),
  );
}
const windCalled = (past: Past) => {
  const set = (wind: string) => ({ past, trials: trialsFor(past, { wind }) });
  return contrastSets(set("calm"), set("windy")).share.called;
};

const PLAN = { mastery: { kind: "share", met: 8, of: 10, window: "moving" } } as never;

/** Seven rungs, each learned on one side and then on the other; the second takes so much of the first's misses. */
function learnedTwice(chance: Chance, left: number): Past {
  return writePast(
    upTo(7).flatMap((rung) =>
      (["L", "R"] as const).map((side, i): WrittenSession => {
        // It learns within the block: misses grow rarer from ask to ask.
        const trials = upTo(60).map((n) => (chance() < 1 - 0.7 * Math.exp(-n / (side === "L" ? 14 : 14 * left)) ? "m" : "x"));
        return { day: 2 * rung + i, trials: trials.join(""), all: { rung: rung + 1, side } };
      }),
    ),
  );
}

/** Sessions that grow worse after so many asks; never where that is infinite. */
const tiring = (chance: Chance, after: number) =>
  writePast(
    upTo(DAYS).map((day): WrittenSession => {
      const today = logit(0.8) + drawNormal(chance, 0, DAY_SPREAD);
      return {
        day,
        trials: upTo(14)
          .map((n) => (chance() < share(today - (n >= after ? 2 : 0)) ? "m" : "x"))
          .join(""),
      };
    }),
  );

/** Signs at random; departures at random, and after one of the signs with a chance of their own. */
function going(chance: Chance, follows: number): Past {
  return writePast(
    upTo(14).map((day): WrittenSession => {
      const moments: Moment[] = [];
      const away: [number, number][] = [];
      const leave = (ms: number) => {
        moments.push([ms, "left", ""]);
        away.push([ms, ms + 5000]);
      };
      for (let i = 0; i < 12; i++) {
        const ms = Math.floor(chance() * 560_000);
        const name = (["head high", "tail swishes", "calls"] as const)[i % 3] as string;
        moments.push([ms, "tension", name]);
        if (name === "head high" && chance() < follows) leave(ms + 7000);
      }
      for (let i = 0; i < 3; i++) leave(Math.floor(chance() * 580_000));
      return { day, trials: "m", facts: { moments: moments.sort((a, b) => a[0] - b[0]), away } };
    }),
  );
}

/** Twelve blocks on a horse that gets better as it goes and has days; B is better by so much on the logit. */
function tried(chance: Chance, better: number): string {
  const arms = drawOrder(chance, 12, 2) as Arm[];
  let today = 0;
  const blocks = arms.map((worked, i) => {
    if (i % 3 === 0) today = drawNormal(chance, 0, DAY_SPREAD);
    const p = share(logit(0.5) + today + i * 0.08 + (worked === "B" ? better : 0));
    return { number: i + 1, worked, value: upTo(8).filter(() => chance() < p).length / 8, session: "", startedMs: 0, asks: 8 };
  });
  return tryResult({ ...TRIED, arms }, blocks).sentence;
}

/** The same with both ways alike, ended after the first block from the sixth on at which the means lie 30 points apart, or at its end. */
function triedAndEnded(chance: Chance): boolean {
  const arms = drawOrder(chance, 12, 2) as Arm[];
  let today = 0;
  const blocks: { number: number; worked: Arm; value: number; session: string; startedMs: number; asks: number }[] = [];
  for (const [i, worked] of arms.entries()) {
    if (i % 3 === 0) today = drawNormal(chance, 0, DAY_SPREAD);
    const p = share(logit(0.5) + today);
    blocks.push({ number: i + 1, worked, value: upTo(8).filter(() => chance() < p).length / 8, session: "", startedMs: 0, asks: 8 });
    const mean = (arm: Arm) => {
      const of = blocks.filter((block) => block.worked === arm);
      return of.reduce((sum, { value }) => sum + value, 0) / of.length;
    };
    if (i >= 5 && Math.abs(mean("A") - mean("B")) >= 0.3)
      return /did better/.test(tryResult({ ...TRIED, arms, endedMs: 1, endedWhy: "seen" }, blocks).sentence);
  }
  return /did better/.test(tryResult({ ...TRIED, arms }, blocks).sentence);
}

/** A step up, taken as soon as nine of the last ten were right, onto a rung that is met so much less often; by the app's own reading of the trials. */
function raisedAfterAGoodRun(chance: Chance, drop: number, p = 0.8) {
  const last: boolean[] = [];
  do last.push(chance() < p);
  while (last.length < 10 || last.slice(-10).filter(Boolean).length < 9);
  const trial = (rung: number) => (met: boolean) => ({ outcome: met ? ("met" as const) : ("miss" as const), rung });
  const after = upTo(10).map(() => chance() < p - drop);
  // Days of some sixteen asks; the step is on the last of them.
  const days = upTo(Math.ceil(last.length / 16)).map((day) => last.slice(16 * day, 16 * day + 16).map(trial(1)));
  const past = writePast(
    days.map((trials, day): WrittenSession => ({ day, trials: day === days.length - 1 ? [...trials, ...after.map(trial(2))] : trials })),
  );
  const [raise] = raisesOf(past, () => undefined);
  return raise !== undefined && raiseTold(raise).fell;
}

const change = (chance: Chance, perWeek: number) => {
  const past = writePast(
    upTo(12).map((i): WrittenSession => {
      const p = share(logit(0.4) + drawNormal(chance, 0, DAY_SPREAD) + (perWeek * i) / 2);
      return { day: 3.5 * i, trials: upTo(14).map(() => ({ outcome: "met" as const, phase: chance() < p ? 1 : 2 })) };
    }),
  );
  const interval = overWeeks(past, {}, new Map()).lightnessChange?.interval ?? [0, 0];
  return interval[0] > 0 || interval[1] < 0;
};

/** What is said over weeks, where nothing is there and where something is. */
export const WEEKS: readonly Claim[] = [
  {
    sentence: "B is met so much less often",
    horses: "wind and calm alike, days differ",
    asks: "false",
    atMost: 0.03,
    run: (chance) => windCalled(twoSets(chance, 0)),
  },
  {
    sentence: "B is met so much less often",
    horses: "wind about 30 points behind",
    asks: "found",
    atLeast: 0.6,
    run: (chance) => windCalled(twoSets(chance, 1.5)),
  },
  {
    sentence: "lighter / less light, a week",
    horses: "no change over twelve sessions, days differ",
    asks: "false",
    atMost: 0.08,
    run: (chance) => change(chance, 0),
  },
  {
    sentence: "lighter / less light, a week",
    horses: "from 40 to 90 % in six weeks",
    asks: "found",
    // Days in moods look like a change; what is not taken for one costs a part of those that are.
    atLeast: 0.4,
    run: (chance) => change(chance, 0.5),
  },
  {
    sentence: "The second side takes fewer / more asks",
    horses: "both sides learn alike, seven rungs",
    asks: "false",
    atMost: 0.07,
    run: (chance) => /takes/.test(savingsOf("side", learnedTwice(chance, 1), () => PLAN).sentence),
  },
  {
    sentence: "The second side takes fewer / more asks",
    horses: "the second side learns three times as fast, seven rungs",
    asks: "found",
    atLeast: 0.55,
    run: (chance) => /takes .* fewer/.test(savingsOf("side", learnedTwice(chance, 1 / 3), () => PLAN).sentence),
  },
  {
    sentence: "Usually turns after",
    horses: "never tires, days differ",
    asks: "false",
    atMost: 0.04,
    run: (chance) => goodMoment(tiring(chance, Number.POSITIVE_INFINITY)).usually !== null,
  },
  {
    sentence: "Usually turns after",
    horses: "much worse from the ninth ask on",
    asks: "found",
    atLeast: 0.8,
    run: (chance) => goodMoment(tiring(chance, 8)).usually !== null,
  },
  {
    sentence: "After head high it left",
    horses: "three signs, departures at random",
    asks: "false",
    atMost: 0.08,
    run: (chance) => beforeItGoes(going(chance, 0)).precursors.some(({ called }) => called),
  },
  {
    sentence: "After head high it left",
    horses: "it leaves after six in ten of one sign",
    asks: "found",
    atLeast: 0.8,
    run: (chance) => beforeItGoes(going(chance, 0.6)).precursors.some(({ called, name }) => called && name === "head high"),
  },
  {
    sentence: "did better in how often it gets it right",
    horses: "twelve blocks, both ways alike, days differ",
    asks: "false",
    atMost: 0.08,
    run: (chance) => /did better/.test(tried(chance, 0)),
  },
  {
    sentence: "did better in how often it gets it right",
    horses: "twelve blocks, one about 40 points better",
    asks: "found",
    atLeast: 0.7,
    run: (chance) => /a scratch did better/.test(tried(chance, 2.2)),
  },
  {
    sentence: "did better in how often it gets it right",
    horses: "both ways alike; the trainer ends it where it would be said",
    asks: "false",
    atMost: 0.08,
    run: (chance) => triedAndEnded(chance),
  },
  {
    sentence: "Too soon or too big",
    horses: "raised after nine of ten onto a rung as easy",
    asks: "false",
    atMost: 0.12,
    run: (chance) => raisedAfterAGoodRun(chance, 0),
  },
  ...[0.55, 0.65].map(
    (p): Claim => ({
      sentence: "Too soon or too big",
      horses: `raised at nine of ten onto a rung as easy, true share ${p}`,
      asks: "false",
      atMost: 0.12,
      run: (chance) => raisedAfterAGoodRun(chance, 0, p),
    }),
  ),
  {
    sentence: "Too soon or too big",
    horses: "raised after nine of ten onto one met 2 in 10",
    asks: "found",
    atLeast: 0.8,
    run: (chance) => raisedAfterAGoodRun(chance, 0.6),
  },
];

/** As it would be without drawing the order: ways by turns of half the blocks, on a horse that gets better. */
export const NOT_DRAWN: Claim = {
  sentence: "did better, with the first half of the blocks one way",
  horses: "both ways alike, the horse gets better",
  asks: "false",
  atMost: 0.08,
  run: (chance) => {
    const arms = [..."AAAAAABBBBBB"] as Arm[];
    const values = arms.map((_, i) => 0.3 + i * 0.05 + drawNormal(chance, 0, 0.1));
    const orders = ordersOf(12, 3);
    const mean = (of: Arm, order: readonly Arm[]) => values.filter((_, i) => order[i] === of).reduce((a, b) => a + b, 0) / 6;
    const seen = Math.abs(mean("B", arms) - mean("A", arms));
    return orders.filter((order) => Math.abs(mean("B", order) - mean("A", order)) >= seen).length / orders.length < 0.05;
  },
};

import type { Chance } from "@/core/chance";
import { drawExponential, drawNormal } from "@/core/chance";
import { rightAnswers, weeklyTrend } from "@/core/evidence";
import { compareSigns, connectionOf, noNames, type SignCounts, signRate } from "@/core/know";
import { breathingOver, breathingRate, breathSums, recoveryOf } from "@/core/welfare";
import { type Claim, holds, poisson, upTo } from "./claim";

/** Asks with hazards of a right and a wrong answer a second, waited for at most 8 s. */
function asks(chance: Chance, n: number, right: number, wrong: number) {
  const times = { right: [] as number[], wrong: [] as number[], refused: [] as number[] };
  for (let i = 0; i < n; i++) {
    const at = drawExponential(chance, 1 / (right + wrong));
    if (at > 8) times.refused.push(8);
    else (chance() < right / (right + wrong) ? times.right : times.wrong).push(at);
  }
  for (const list of Object.values(times)) list.sort((a, b) => a - b);
  return rightAnswers(times).halfSeconds;
}

export const WAITING: Claim[] = [
  {
    sentence: "half answered after … s",
    // F(t) = 0.6·(1 − e^(−t/2)) reaches a half at 2·ln 6.
    horses: "0.3 right and 0.2 wrong a second: 3.58 s, within a quarter from 400 asks",
    asks: "covers",
    atLeast: 0.9,
    run: (chance) => {
      const half = asks(chance, 400, 0.3, 0.2);
      return half !== null && Math.abs(half / (2 * Math.log(6)) - 1) < 0.25;
    },
  },
  {
    sentence: "half answered after … s",
    horses: "0.3 right and 0.35 wrong a second: it never comes to half, 400 asks",
    asks: "false",
    atMost: 0.1,
    run: (chance) => asks(chance, 400, 0.3, 0.35) !== null,
  },
];

/** Signs of sessions in bouts, with days of their own; `more` multiplies the last. */
function signSessions(chance: Chance, sessions: number, more = 1): SignCounts[] {
  return upTo(sessions).map((i) => {
    const minutes = 10 + 10 * chance();
    const rate = 0.15 * Math.exp(drawNormal(chance, 0, 0.6)) * (i === sessions - 1 ? more : 1);
    const bouts = poisson(chance, rate * minutes);
    let count = 0;
    for (let b = 0; b < bouts; b++) count += 1 + poisson(chance, 1.5);
    return { minutes, byClass: { ease: 0, tension: count, danger: 0, pain: 0 }, byName: noNames() };
  });
}

const unusual = (chance: Chance, sessions: number, more: number) => {
  const all = signSessions(chance, sessions, more);
  const last = all.at(-1) as SignCounts;
  return compareSigns(last, all.slice(0, -1), "tension")?.unusual ?? null;
};

/** Looks of a horse that stays with what it is at: each look is the one before it, or drawn anew. */
function watch(chance: Chance, looks: number, shares: readonly [string, number][]): string[] {
  const draw = () => {
    let at = chance();
    for (const [answer, p] of shares) {
      at -= p;
      if (at < 0) return answer;
    }
    return "none";
  };
  const out: string[] = [];
  for (let i = 0; i < looks; i++) out.push(i > 0 && chance() < 0.7 ? (out[i - 1] as string) : draw());
  return out;
}

/** What a watch was said to lead to. */
const called = (looks: readonly string[]): string | null =>
  connectionOf(looks.map((answer, i) => ({ beep: i + 1, answer, observer: "one" }))).leading;

/** Taps of breaths: each its own length, and a finger that is early or late. */
function taps(chance: Chance, perMinute: number, breaths: number): number[] {
  let at = 0;
  const moments = [drawNormal(chance, 0, 60)];
  for (let i = 0; i < breaths; i++) {
    at += (60_000 / perMinute) * Math.exp(drawNormal(chance, 0, 0.12));
    moments.push(at + drawNormal(chance, 0, 60));
  }
  return moments;
}

export const SIGNS: Claim[] = [4, 8, 20].map(
  (earlier): Claim => ({
    sentence: "9.0 tension signs in ten minutes …: more than usual",
    horses: `a day like the others, in bouts, ${earlier} earlier sessions`,
    asks: "false",
    atMost: 0.05,
    run: (chance) => unusual(chance, earlier + 1, 1),
  }),
);
SIGNS.push(
  {
    sentence: "9.0 tension signs in ten minutes …: more than usual",
    horses: "six times as many as usual, 8 earlier sessions",
    asks: "found",
    atLeast: 0.6,
    run: (chance) => unusual(chance, 9, 6),
  },
  {
    sentence: "3.9 in ten minutes, could be … to …",
    horses: "signs in bouts and days, 10 sessions, of the long-run rate",
    asks: "covers",
    atLeast: 0.88,
    run: (chance) => {
      // Mean of a lognormal day 0.15·e^0.18, times 2.5 signs a bout.
      return holds(signRate(signSessions(chance, 10), "tension")?.interval ?? null, 10 * 0.15 * Math.exp(0.18) * 2.5);
    },
  },
  {
    sentence: "other horses: 16 of 20 looks in one watch",
    horses: "two things alike, looks that last, 40 looks",
    asks: "false",
    atMost: 0.05,
    run: (chance) =>
      called(
        watch(chance, 40, [
          ["people", 0.4],
          ["other horses", 0.4],
          ["a place", 0.2],
        ]),
      ) !== null,
  },
  {
    sentence: "other horses: 16 of 20 looks in one watch",
    horses: "80 % at other horses, looks that last, 60 looks",
    asks: "found",
    atLeast: 0.4,
    run: (chance) =>
      called(
        watch(chance, 60, [
          ["other horses", 0.8],
          ["people", 0.2],
        ]),
      ) === "other horses",
  },
  {
    sentence: "12 a minute, could be anywhere from … to …",
    horses: "12 breaths tapped",
    asks: "covers",
    atLeast: 0.93,
    run: (chance) => holds(breathingRate(taps(chance, 12, 12))?.interval ?? null, 12),
  },
  {
    sentence: "breathing at rest 12.0, … to …, 5 readings",
    horses: "days differ by 8 %",
    asks: "covers",
    atLeast: 0.93,
    run: (chance) => {
      const readings = upTo(5).map(() => {
        const sums = breathSums(taps(chance, 12 + drawNormal(chance, 0, 1), 12));
        if (sums === null) throw new Error("twelve breaths have sums");
        return sums;
      });
      return holds(breathingOver(readings)?.interval ?? null, 12);
    },
  },
  {
    sentence: "Half of the rise is gone about each 4 min",
    horses: "4 min, resting 12, five readings known to 1 a minute; within a quarter",
    asks: "covers",
    atLeast: 0.9,
    run: (chance) => {
      const at = [0, 3, 6, 10, 15];
      const readings = at.map((minutes) => ({
        wallMs: minutes * 60_000,
        perMinute: 12 + 40 * 2 ** (-minutes / 4) + drawNormal(chance, 0, 1),
      }));
      const half = recoveryOf(readings, 12).halfTimeMinutes;
      return half !== null && Math.abs(half / 4 - 1) < 0.25;
    },
  },
  ...[5, 10].map(
    (sessions): Claim => ({
      sentence: "× 1.2 a week, … to …",
      horses: `rates with days of their own, ${sessions} sessions`,
      asks: "covers",
      atLeast: 0.93,
      run: (chance) => {
        const points = upTo(sessions).map((i) => ({ days: i * 3, rate: 3 * 1.2 ** ((i * 3) / 7) * 10 ** drawNormal(chance, 0, 0.12) }));
        return holds(weeklyTrend(points)?.interval ?? null, 1.2);
      },
    }),
  ),
);

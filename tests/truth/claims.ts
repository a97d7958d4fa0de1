import { type Chance, drawExponential, drawNormal } from "@/core/chance";
import { type SideSession, sidePicture, toldShare } from "@/core/compare";
import { type Counted, effectiveLooks, leads, rightAnswers, sumsOfSessions, weeklyTrend, wilsonInterval } from "@/core/evidence";
import { compareSigns, reliefMap, type SessionRelief, type SignCounts, signRate } from "@/core/know";
import { DEFAULT_MASTERY_RULE } from "@/core/mastery";
import type { EvidenceTrial } from "@/core/record";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { breathingOver, breathingRate, recoveryOf } from "@/core/welfare";
import { likelyShareWords, theWord, type WordInput } from "@/core/word";

/** What is asked of a sentence on horses whose truth is known. */
export interface Claim {
  readonly sentence: string;
  /** The horses it was tried on. */
  readonly horses: string;
  /** Said though nothing is there; said where something is; or the truth lies in the range said. */
  readonly asks: "false" | "found" | "covers";
  readonly atMost?: number;
  readonly atLeast?: number;
  /** A whole season a horse: tried on fewer of them in the short form. */
  readonly long?: boolean;
  /** One horse: whether it was so; null where the sentence was not said and nothing is asked. */
  readonly run: (chance: Chance) => boolean | null;
}

const SEASON = 24;
/** Days differ by so much on the logit: at 0.7 from about 0.52 to 0.83 in two days of three. */
const DAY_SPREAD = 0.7;
const logit = (p: number) => Math.log(p / (1 - p));
const share = (x: number) => 1 / (1 + Math.exp(-x));
const upTo = (n: number) => Array.from({ length: n }, (_, i) => i);
const trialsOf = (chance: Chance, n: number, p: number): Counted => ({ met: upTo(n).filter(() => chance() < p).length, of: n });
const poisson = (chance: Chance, mean: number) => {
  let n = 0;
  for (let left = mean; ; n++) {
    left -= drawExponential(chance, 1);
    if (left < 0) return n;
  }
};

// Sides.

type Work = "both sides a session" | "one side a day" | "one side on the harder rung";

/** A season of sessions; the side is behind by so much on the logit. */
function sideSeason(chance: Chance, work: Work, behind: number): SideSession[] {
  return upTo(SEASON).map((day) => {
    // The horse gets better over the season, and each day is its own; sides have their days too.
    const today = logit(0.6) + day * 0.04 + drawNormal(chance, 0, DAY_SPREAD);
    const side = (which: "L" | "R") => today + drawNormal(chance, 0, 0.3) - (which === "L" ? behind : 0);
    const cell = (stratum: string, left: number, right: number, harder = 0) => ({
      stratum,
      first: trialsOf(chance, left, share(side("L") - harder)),
      second: trialsOf(chance, right, share(side("R") - harder)),
    });
    if (work === "both sides a session") return [cell("a", 8, 8)];
    if (work === "one side a day") return [day % 2 === 0 ? cell("a", 12, 0) : cell("a", 0, 12)];
    return [cell("a", 3, 8), cell("b", 8, 3, 0.8)];
  });
}

const SEASON_LOOKS = `looked at after each of ${SEASON} sessions`;

/** Looked at after every session of a season: whether a side is ever called weaker. */
const everCalled = (sessions: readonly SideSession[]) => upTo(SEASON).some((n) => sidePicture(sessions.slice(0, n + 1)).weaker !== null);

const SIDES: Claim[] = (["both sides a session", "one side a day", "one side on the harder rung"] as const).map((work) => ({
  sentence: "Left is weaker",
  horses: `equal sides, ${work}, ${SEASON_LOOKS}`,
  long: true,
  asks: "false",
  atMost: 0.05,
  run: (chance) => everCalled(sideSeason(chance, work, 0)),
}));
SIDES.push({
  sentence: "Left is weaker",
  horses: `left about 25 points behind, both sides a session, after ${SEASON} sessions`,
  asks: "found",
  atLeast: 0.8,
  run: (chance) => sidePicture(sideSeason(chance, "both sides a session", 1.1)).weaker === "L",
});

// Places.

function placeSeason(chance: Chance, easier: number): SessionRelief[] {
  return upTo(SEASON).map(() => {
    const today = drawNormal(chance, 0, DAY_SPREAD);
    const zones = ["gate", "middle", "corner"].map((zone, i) => {
      const seconds = 60 + 120 * chance();
      const pressure = share(logit(0.35) + today + drawNormal(chance, 0, 0.5) - (i === 0 ? easier : 0));
      const counts = { releases: 4, reinforcers: 4, departuresFrom: 0, departuresTo: 0, trials: 4, met: 3, easeSigns: 0, tensionSigns: 0 };
      return { zone, seconds, pressureSeconds: seconds * pressure, untimed: 0, ...counts };
    });
    return { zones, stays: [], secondsElsewhere: 0, departures: 0 };
  });
}

const PLACES: Claim[] = [
  {
    sentence: "Easier at the gate / Harder at the gate",
    horses: `three zones alike, ${SEASON_LOOKS}`,
    long: true,
    asks: "false",
    atMost: 0.05,
    run: (chance) => {
      const sessions = placeSeason(chance, 0);
      return upTo(SEASON).some((n) => /^(Easier|Harder)/.test(reliefMap(sessions.slice(0, n + 1)).sentence));
    },
  },
  {
    sentence: "Easier at the gate / Harder at the gate",
    horses: `the gate easier by about 20 points, after ${SEASON} sessions`,
    asks: "found",
    atLeast: 0.8,
    run: (chance) => reliefMap(placeSeason(chance, 1.2)).sentence.startsWith("Easier at gate"),
  },
];

// Shares.

/** Sessions of a horse whose days differ, and the share it has in the long run. */
function shareSessions(chance: Chance, days: number, p: number): Counted[] {
  return upTo(days).map(() => trialsOf(chance, 8 + Math.floor(chance() * 9), share(logit(p) + drawNormal(chance, 0, DAY_SPREAD))));
}

/** The long-run share: the mean of the days' shares, by the normal distribution of their logits. */
function longRun(p: number): number {
  let sum = 0;
  let weight = 0;
  for (let z = -5; z <= 5; z += 0.01) {
    const w = Math.exp(-z * z * 0.5);
    sum += w * share(logit(p) + z * DAY_SPREAD);
    weight += w;
  }
  return sum / weight;
}

const holds = (interval: readonly [number, number] | null, truth: number) =>
  interval === null ? null : interval[0] <= truth && truth <= interval[1];

const SHARES: Claim[] = [3, 5, 8, 16].flatMap((days) =>
  [0.5, 0.75].map(
    (p): Claim => ({
      sentence: "18 of 30 in 3 sessions, could be anywhere from … to …",
      horses: `days differ, ${p} in the middle, ${days} sessions`,
      asks: "covers",
      atLeast: 0.93,
      // Over few sessions the range is wider than it would have to be.
      ...(days >= 8 ? { atMost: 0.975 } : {}),
      run: (chance) => holds(toldShare(sumsOfSessions(shareSessions(chance, days, p))).interval, longRun(p)),
    }),
  ),
);
SHARES.push(
  {
    sentence: "8 of 10 in one session: there, … to …",
    horses: "of that session's own share",
    asks: "covers",
    atLeast: 0.93,
    run: (chance) => {
      const today = share(logit(0.7) + drawNormal(chance, 0, DAY_SPREAD));
      return holds(toldShare(sumsOfSessions([trialsOf(chance, 12, today)])).interval, today);
    },
  },
  {
    sentence: "(the plain interval of pooled trials, which is no longer said)",
    horses: "days differ, 0.75 in the middle, 8 sessions",
    asks: "covers",
    run: (chance) => {
      const { met, of } = sumsOfSessions(shareSessions(chance, 8, 0.75));
      return holds(wilsonInterval(met, of), longRun(0.75));
    },
  },
);

// Half answered after.

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

const WAITING: Claim[] = [
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

// Signs, watches, breathing, recovery, trend.

/** Signs of sessions in bouts, with days of their own; `more` multiplies the last. */
function signSessions(chance: Chance, sessions: number, more = 1): SignCounts[] {
  return upTo(sessions).map((i) => {
    const minutes = 10 + 10 * chance();
    const rate = 0.15 * Math.exp(drawNormal(chance, 0, 0.6)) * (i === sessions - 1 ? more : 1);
    const bouts = poisson(chance, rate * minutes);
    let count = 0;
    for (let b = 0; b < bouts; b++) count += 1 + poisson(chance, 1.5);
    return { minutes, byClass: { ease: 0, tension: count, danger: 0 }, byName: {} };
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

function called(looks: readonly string[]): string | null {
  const counts = [...new Set(looks)]
    .map((answer) => [answer, looks.filter((one) => one === answer).length] as const)
    .sort((a, b) => b[1] - a[1]);
  const [top, next] = counts;
  if (top === undefined) return null;
  return leads(top[1] / looks.length, (next?.[1] ?? 0) / looks.length, effectiveLooks(looks).effective) ? top[0] : null;
}

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

const SIGNS: Claim[] = [4, 8, 20].map(
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
        const moments = taps(chance, 12 + drawNormal(chance, 0, 1), 12).sort((a, b) => a - b);
        const steps = moments.slice(1).map((at, i) => (at - (moments[i] as number)) / 1000);
        const sum = (of: (s: number) => number) => steps.reduce((all, s) => all + of(s), 0);
        return { breaths: steps.length, seconds: sum((s) => s), squares: sum((s) => s * s) };
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
      atMost: 0.97,
      run: (chance) => {
        const points = upTo(sessions).map((i) => ({ days: i * 3, rate: 3 * 1.2 ** ((i * 3) / 7) * 10 ** drawNormal(chance, 0, 0.12) }));
        return holds(weeklyTrend(points)?.interval ?? null, 1.2);
      },
    }),
  ),
);

// The word.

const SHARES_OF_FAILURE = { try: 0.55, miss: 0.3 };

function trialsAt(chance: Chance, n: number, p: number, session: string, block: string): EvidenceTrial[] {
  return upTo(n).map(() => {
    const kind = chance() < p ? "met" : chance();
    const outcome =
      kind === "met"
        ? "met"
        : kind < SHARES_OF_FAILURE.try
          ? "try"
          : kind < SHARES_OF_FAILURE.try + SHARES_OF_FAILURE.miss
            ? "miss"
            : "refused";
    return {
      session,
      wallMs: 0,
      ladder: "l",
      version: 1,
      rung: 2,
      kind: "work",
      blockKey: block,
      side: "L",
      outcome,
      // Who refuses was asked up to the clearest cue.
      phase: outcome === "refused" ? 4 : 2,
      ease: null,
      value: null,
      clean: false,
      comparable: true,
    };
  });
}

const WORD: WordInput = {
  rule: DEFAULT_MASTERY_RULE,
  bothSides: false,
  rung: 2,
  rungCount: 8,
  earlier: [],
  block: [],
  counts: true,
  minutesSinceRest: 1,
  trialsSinceRest: 1,
  workMinutes: 5,
  fullPhase: 4,
  splittable: true,
};

/** Whether a word came at any trial of a block of ten. */
function heard(chance: Chance, p: number, word: "Ease" | "Split", history: readonly EvidenceTrial[] = []): boolean {
  const block = trialsAt(chance, 10, p, "now", "now:0");
  return upTo(10).some(
    (n) => theWord({ ...WORD, history, earlier: history, block: block.slice(0, n + 1) }, DEFAULT_SETTINGS).word === word,
  );
}

/** Three sessions of two blocks of ten before this one, each at its own share. */
const before = (chance: Chance, shares: readonly number[]) =>
  shares.flatMap((p, s) => [...trialsAt(chance, 10, p, `s${s}`, `s${s}:0`), ...trialsAt(chance, 10, p, `s${s}`, `s${s}:1`)]);

/** The two numbers of "likelier 6 to 9 in 10". */
const likelier = (met: readonly boolean[]): readonly [number, number] => {
  const [, low, high] = /likelier (\d+) to (\d+) in 10/.exec(likelyShareWords(met)) ?? [];
  return [Number(low), Number(high)];
};

const THE_WORD: Claim[] = [
  {
    sentence: "Ease",
    horses: "true share 0.8, a block of ten",
    asks: "false",
    atMost: 0.1,
    run: (chance) => heard(chance, 0.8, "Ease"),
  },
  {
    sentence: "Ease",
    horses: "true share 0.9, a block of ten",
    asks: "false",
    atMost: 0.05,
    run: (chance) => heard(chance, 0.9, "Ease"),
  },
  {
    sentence: "Ease",
    // More than half of what is not met are tries, which call for nothing: a short block hears little.
    horses: "true share 0.3, a block of ten",
    asks: "found",
    atLeast: 0.3,
    run: (chance) => heard(chance, 0.3, "Ease"),
  },
  {
    sentence: "Split",
    horses: "true share 0.8 in three sessions before and now",
    asks: "false",
    atMost: 0.1,
    run: (chance) => heard(chance, 0.8, "Split", before(chance, [0.8, 0.8, 0.8])),
  },
  {
    sentence: "Split",
    horses: "gains 0.4, 0.55, 0.7 over three sessions, 0.8 now",
    asks: "false",
    atMost: 0.1,
    run: (chance) => heard(chance, 0.8, "Split", before(chance, [0.4, 0.55, 0.7])),
  },
  {
    sentence: "Split",
    horses: "stays at 0.4 over three sessions and now",
    asks: "found",
    atLeast: 0.4,
    run: (chance) => heard(chance, 0.4, "Split", before(chance, [0.4, 0.4, 0.4])),
  },
  {
    sentence: "Raise: its true share is likelier 6 to 9 in 10",
    horses: "when the rule is first met, true share from 0.5 to 0.95",
    asks: "covers",
    atLeast: 0.75,
    run: (chance) => {
      const p = 0.5 + 0.45 * chance();
      const met: boolean[] = [];
      for (let n = 0; n < 300; n++) {
        met.push(chance() < p);
        const rule = DEFAULT_MASTERY_RULE;
        if (rule.kind !== "share" || met.length < rule.of || met.slice(-rule.of).filter(Boolean).length < rule.met) continue;
        const [low, high] = likelier(met);
        // In tenths: 6 to 9 in 10 means from 5.5 to 9.5.
        return p * 10 >= low - 0.5 && p * 10 <= high + 0.5;
      }
      return null;
    },
  },
];

/** Every kind of sentence the app says from its numbers, on horses whose truth is known. */
export const CLAIMS: readonly Claim[] = [...SIDES, ...PLACES, ...SHARES, ...WAITING, ...SIGNS, ...THE_WORD];

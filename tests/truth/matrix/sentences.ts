import { type Chance, mixedChance } from "@/core/chance";
import { sidePicture, toldShare } from "@/core/compare";
import { wrongChoiceCaution } from "@/core/conversation";
import { sumsOfSessions } from "@/core/evidence";
import { compareSigns, reliefMap, type SignCounts } from "@/core/know";
import { beforeItGoes, contrastSets, goodMoment, type OverWeeks, overWeeks, type Past, savingsOf, sideCells, trialsFor } from "@/core/past";
import type { SessionRecord } from "@/core/record";
import {
  type Dials,
  goings,
  learnedTwice,
  pastOf,
  season,
  signSeason,
  steppedUp,
  triedBoth,
  wrongsAndSigns,
  type YardDay,
  type YardHorse,
  zoneSeason,
} from "../yard";
import { only, type Sentence, type Yard, yard } from "./yards";

const SEASON = 24;
/** Whether a thing is ever said when one looks after every session of a season, or after every so many. */
const ever = <T>(sessions: readonly T[], said: (soFar: readonly T[]) => boolean, from = 4, every = 1): boolean => {
  for (let n = from; n <= sessions.length; n += every) if (said(sessions.slice(0, n))) return true;
  return false;
};

const ASKS = { share: 0.7 };
const WITHIN = ["cold", "tires", "learnsWithin", "asksAlike"] as const;
const OF_ASKS = [...WITHIN, "learnsOver", "moods", "daySpread", "trainer", "harder", "missing"] as const;
const changes = ({ learnsOver, harder }: Partial<Dials>) => learnsOver !== undefined || harder !== undefined;
const excludes = (interval: readonly [number, number] | null | undefined, nothing: number) =>
  interval != null && (interval[0] > nothing || interval[1] < nothing);

const truths = new Map<string, number>();
/**
 * The share a yard of these habits has over the first so many days of very many
 * seasons. What it leaves out for good (bad days not written down) is no error
 * of the range: the truth is that of the days there are. By each ask of many
 * days: those of a day that went on longer count oftener, as they do in the sum.
 */
function truthOf(dials: Dials, days: number): number {
  const key = JSON.stringify([dials, days]);
  const known = truths.get(key);
  if (known !== undefined) return known;
  const chance = mixedChance(`truth ${key}`);
  let met = 0;
  let of = 0;
  for (let n = 0; n < 1500; n++)
    for (const day of season(chance, dials, ASKS, SEASON).slice(0, days)) {
      met += day.met.filter(Boolean).length;
      of += day.met.length;
    }
  truths.set(key, met / of);
  return met / of;
}

/** A season of asks, and the past of its first so many sessions: each made once for all that is asked of it. */
interface Asked {
  readonly days: readonly YardDay[];
  readonly past: (n?: number) => Past;
  readonly weeks: (n: number) => OverWeeks;
}

function once<T>(make: (n: number) => T): (n: number) => T {
  const made = new Map<number, T>();
  return (n) => {
    const found = made.get(n) ?? make(n);
    made.set(n, found);
    return found;
  };
}

const askedSeason =
  (horse: YardHorse, n = SEASON) =>
  (chance: Chance, dials: Dials): Asked => {
    const days = season(chance, dials, horse, n);
    const whole = pastOf(days);
    const first = once((sessions) => ({
      sessions: whole.sessions.slice(0, sessions),
      trials: whole.trials.filter(({ session }) => session < sessions),
    }));
    return {
      days,
      past: (sessions = days.length) => first(sessions),
      weeks: once((sessions) => overWeeks(first(sessions), {}, new Map())),
    };
  };

/** Whether a thing is ever said of the first so many sessions of a season. */
const everOf = ({ days, past }: Asked, said: (soFar: Past) => boolean, from: number, every: number): boolean =>
  ever(days, (soFar) => said(past(soFar.length)), from, every);

/** Sessions of six weeks, over which a change a week is said. */
const SIX_WEEKS = 12;

const windCalled = (past: Past) => {
  const set = (wind: string) => ({ past, trials: trialsFor(past, { wind }) });
  return contrastSets(set("calm"), set("windy")).share;
};

const asks = yard<Asked>("asks", only(...OF_ASKS, "values"), askedSeason(ASKS), [
  ...[5, 8, 16].map((days) => ({
    name: `could be anywhere from … to …, ${days} sessions`,
    limit: 5,
    falsely: ({ days: drawn }: Asked, dials: Dials) => {
      const counts = drawn.slice(0, days).map(({ met }) => ({ met: met.filter(Boolean).length, of: met.length }));
      const { interval } = toldShare(sumsOfSessions(counts));
      if (interval === null) return null;
      const truth = truthOf(dials, days);
      return !(interval[0] <= truth && truth <= interval[1]);
    },
  })),
  ...[SIX_WEEKS, SEASON].flatMap((n): Sentence<Asked>[] => [
    {
      name: `lighter / less light, a week, ${n} sessions`,
      limit: 8,
      trueWhere: changes,
      falsely: (drawn) => excludes(drawn.weeks(n).lightnessChange?.interval, 0),
      found: {
        what: "from 40 to 85 % light",
        draw: askedSeason({ share: 0.7, lighter: 2.2 }, n),
        said: (drawn) => (drawn.weeks(n).lightnessChange?.interval[0] ?? 0) > 0,
      },
    },
    {
      name: `calmer / less calm, a week, ${n} sessions`,
      limit: 8,
      trueWhere: changes,
      falsely: (drawn) => excludes(drawn.weeks(n).easeChange?.interval, 0),
    },
    {
      name: `right answers × … a week, ${n} sessions`,
      limit: 8,
      trueWhere: changes,
      falsely: (drawn) => excludes(drawn.weeks(n).responseTrend?.interval, 1),
    },
  ]),
  {
    name: "met so much less often in wind",
    limit: 5,
    falsely: (drawn) => everOf(drawn, (past) => windCalled(past).called, 8, 4),
    found: {
      what: "about 30 points less often",
      draw: askedSeason({ share: 0.75, windBehind: 1.5 }),
      said: (drawn) => windCalled(drawn.past()).called,
    },
  },
  {
    name: "usually turns after",
    limit: 4,
    trueWhere: ({ tires }) => tires !== undefined,
    falsely: (drawn) => everOf(drawn, (past) => goodMoment(past).usually !== null, 6, 3),
    found: {
      what: "30 points worse by the twentieth ask",
      draw: askedSeason({ share: 0.85, tires: 2 }),
      said: (drawn) => goodMoment(drawn.past()).usually !== null,
    },
  },
]);

const ofSides = (leftBehind: number) => (chance: Chance, dials: Dials) =>
  sideCells(pastOf(season(chance, dials, { share: 0.65, leftBehind }, SEASON)));
const sides = yard("sides", only(...OF_ASKS, "order"), ofSides(0), [
  {
    name: "left / right is weaker",
    limit: 5,
    falsely: (drawn) => ever(drawn, (sessions) => sidePicture(sessions).weaker !== null),
    found: {
      what: "left about 22 points behind",
      draw: ofSides(1),
      said: (drawn) => ever(drawn, (sessions) => sidePicture(sessions).weaker === "L"),
    },
  },
]);

const ofZones = (easier: number) => (chance: Chance, dials: Dials) => zoneSeason(chance, dials, easier, SEASON);
const zones = yard("zones", only("cold", "tires", "learnsWithin", "moods", "daySpread", "missing", "order"), ofZones(0), [
  {
    name: "easier / harder at",
    limit: 5,
    falsely: (drawn) => ever(drawn, (sessions) => /^(Easier|Harder)/.test(reliefMap(sessions).sentence)),
    found: {
      what: "the gate easier by about 25 points",
      draw: ofZones(1.2),
      said: (drawn) => ever(drawn, (sessions) => /^Easier at gate/.test(reliefMap(sessions).sentence)),
    },
  },
]);

const going = yard<Past>("goings", only("bouts", "late"), (chance, dials) => goings(chance, dials, 14), [
  {
    name: "after head high it left",
    limit: 8,
    falsely: (drawn) => beforeItGoes(drawn).precursors.some(({ called }) => called),
    found: {
      what: "half of the heads high lead to leaving",
      draw: (chance, dials) => goings(chance, dials, 14, 0.5),
      said: (drawn) => beforeItGoes(drawn).precursors.some(({ called, name }) => called && name === "head high"),
    },
  },
]);

const moreThanUsual = (drawn: readonly SignCounts[]): boolean | null => {
  const last = drawn.at(-1);
  return last === undefined ? null : (compareSigns(last, drawn.slice(0, -1), "tension")?.unusual ?? null);
};
const signs = yard<SignCounts[]>(
  "signs",
  only("bouts", "moods", "daySpread", "missing"),
  (chance, dials) => signSeason(chance, dials, 9, 1),
  [
    {
      name: "signs in ten minutes: more than usual",
      limit: 5,
      falsely: moreThanUsual,
      found: {
        what: "six times as many",
        draw: (chance, dials) => signSeason(chance, dials, 9, 6),
        said: (drawn) => moreThanUsual(drawn) === true,
      },
    },
  ],
);

/** Whether the caution was there at any wrong choice, as the recorder looks at them. */
const tensionComes = (record: SessionRecord): boolean =>
  record.timeLine.wrongs.some(({ startMs }) => {
    const wrongs = record.timeLine.wrongs.filter((one) => one.startMs <= startMs);
    const until = { ...record, finishMs: startMs, timeLine: { ...record.timeLine, wrongs } };
    return wrongChoiceCaution(until, null)?.kind === "tension";
  });
const wrongs = yard<SessionRecord>("wrong choices", only("bouts", "late"), (chance, dials) => wrongsAndSigns(chance, dials, 0), [
  {
    name: "tension comes with wrong choices",
    limit: 5,
    falsely: tensionComes,
    found: { what: "after eight of ten of them", draw: (chance, dials) => wrongsAndSigns(chance, dials, 0.8), said: tensionComes },
  },
]);

const steps = [0.55, 0.65, 0.8].map((share) =>
  yard<boolean | null>(
    `a step up, ${share}`,
    only(...WITHIN, "learnsOver", "moods", "daySpread"),
    (chance, dials) => steppedUp(chance, dials, share, 0),
    [
      {
        name: `too soon or too big: raised at nine of ten, rung as easy, true share ${share}`,
        limit: 12,
        falsely: (said) => said,
        ...(share === 0.8
          ? {
              found: {
                what: "onto one met 2 in 10",
                draw: (chance: Chance, dials: Dials) => steppedUp(chance, dials, share, 2.8),
                said: (said: boolean | null) => said === true,
              },
            }
          : {}),
      },
    ],
  ),
);

const tried = yard<string>(
  "both ways",
  only(...WITHIN, "learnsOver", "moods", "daySpread", "trainer", "harder", "missing"),
  (chance, dials) => triedBoth(chance, dials, 0),
  [
    {
      name: "did better in how often it gets it right",
      limit: 8,
      falsely: (said) => /did better/.test(said),
      found: {
        what: "one way about 40 points better",
        draw: (chance, dials) => triedBoth(chance, { ...dials, trainer: "habit" }, 2.2),
        said: (said) => /a scratch did better/.test(said),
      },
    },
  ],
);

const RULE = { mastery: { kind: "share", met: 8, of: 10, window: "moving" } } as never;
const second = yard<Past>(
  "two sides learned",
  only(...WITHIN, "moods", "daySpread", "order"),
  (chance, dials) => learnedTwice(chance, dials, 1),
  [
    {
      name: "the second side takes fewer / more asks",
      limit: 5,
      falsely: (past) => /takes/.test(savingsOf("side", past, () => RULE).sentence),
      found: {
        what: "it learns three times as fast, seven rungs",
        draw: (chance, dials) => learnedTwice(chance, dials, 1 / 3),
        said: (past) => /takes .* fewer/.test(savingsOf("side", past, () => RULE).sentence),
      },
    },
  ],
);

/** Every kind of yard, with all that is asked of it. */
export const YARDS: readonly Yard[] = [zones, sides, asks, going, signs, wrongs, ...steps, tried, second];

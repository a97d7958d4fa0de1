import { type Chance, mixedChance } from "@/core/chance";
import { sidePicture, toldShare } from "@/core/compare";
import { sumsOfSessions } from "@/core/evidence";
import { reliefMap } from "@/core/know";
import { beforeItGoes, goodMoment, overWeeks, sideCells } from "@/core/past";
import { DIALS, type Dials, goings, pastOf, STILL, season, zoneSeason } from "./yard";

/** One sentence of the app on a yard where nothing is there, or its range where something is. */
export interface Sentence {
  readonly name: string;
  /** Said falsely, or the truth left out, in at most so many of 100. */
  readonly limit: number;
  /** What of a yard's habits it can have to do with. */
  readonly of: "asks" | "sides" | "zones" | "goings";
  /** Dials under which it is true, so that it is not asked there. */
  readonly trueWhere?: (change: Partial<Dials>) => boolean;
  /** One horse over its season: whether it was so. Null where nothing was said that could be wrong. */
  readonly run: (chance: Chance, dials: Dials) => boolean | null;
  /** The same where something is there, of a size worth a trainer's while. */
  readonly found?: { readonly what: string; readonly run: (chance: Chance, dials: Dials) => boolean };
}

const changed = (interval: readonly [number, number] | null | undefined) => interval != null && (interval[0] > 0 || interval[1] < 0);

const SEASON = 24;
/** Whether a thing is ever said when one looks after every session of a season, or after every so many. */
const ever = <T>(sessions: readonly T[], said: (soFar: readonly T[]) => boolean, from = 4, every = 1): boolean => {
  for (let n = from; n <= sessions.length; n += every) if (said(sessions.slice(0, n))) return true;
  return false;
};

const sidesOf = (chance: Chance, dials: Dials, leftBehind: number) =>
  sideCells(pastOf(season(chance, dials, { share: 0.65, leftBehind }, SEASON)));

/** The sentences that were tried so far, each on every dial. */
export const SENTENCES: readonly Sentence[] = [
  {
    name: "easier / harder at",
    limit: 5,
    of: "zones",
    run: (chance, dials) => ever(zoneSeason(chance, dials, 0, SEASON), (sessions) => /^(Easier|Harder)/.test(reliefMap(sessions).sentence)),
    found: {
      what: "the gate easier by about 25 points",
      run: (chance, dials) =>
        ever(zoneSeason(chance, dials, 1.2, SEASON), (sessions) => /^Easier at gate/.test(reliefMap(sessions).sentence)),
    },
  },
  {
    name: "left / right is weaker",
    limit: 5,
    of: "sides",
    run: (chance, dials) => ever(sidesOf(chance, dials, 0), (sessions) => sidePicture(sessions).weaker !== null),
    found: {
      what: "left about 22 points behind",
      run: (chance, dials) => ever(sidesOf(chance, dials, 1), (sessions) => sidePicture(sessions).weaker === "L"),
    },
  },
  ...[5, 8, 16].map(
    (days): Sentence => ({
      name: `could be anywhere from … to …, ${days} sessions`,
      limit: 5,
      of: "asks",
      run: (chance, dials) => {
        const asks = season(chance, dials, { share: 0.7 }, days).map(({ met }) => ({ met: met.filter(Boolean).length, of: met.length }));
        const { interval } = toldShare(sumsOfSessions(asks));
        if (interval === null) return null;
        const truth = truthOf(dials, days);
        return !(interval[0] <= truth && truth <= interval[1]);
      },
    }),
  ),
  {
    name: "lighter / less light, a week",
    limit: 8,
    of: "asks",
    trueWhere: ({ learnsOver, harder }) => learnsOver !== undefined || harder !== undefined,
    run: (chance, dials) => changed(overWeeks(pastOf(season(chance, dials, { share: 0.6 }, 12)), {}, new Map()).lightnessChange?.interval),
  },
  {
    name: "usually turns after",
    limit: 4,
    of: "asks",
    trueWhere: ({ tires }) => tires !== undefined,
    run: (chance, dials) => ever(season(chance, dials, { share: 0.75 }, SEASON), (days) => goodMoment(pastOf(days)).usually !== null, 6, 3),
    found: {
      what: "30 points worse by the twentieth ask",
      run: (chance, dials) => goodMoment(pastOf(season(chance, { ...dials, tires: 2 }, { share: 0.85 }, SEASON))).usually !== null,
    },
  },
  {
    name: "after head high it left",
    limit: 8,
    of: "goings",
    run: (chance, dials) => beforeItGoes(goings(chance, dials, 14)).precursors.some(({ called }) => called),
    found: {
      what: "half of the heads high lead to leaving",
      run: (chance, dials) =>
        beforeItGoes(goings(chance, dials, 14, 0.5)).precursors.some(({ called, name }) => called && name === "head high"),
    },
  },
];

const truths = new Map<string, number>();
/**
 * The share a yard of these habits has over very many seasons of so many
 * days. What it leaves out for good (bad days not written down) is no error of
 * the range: the truth is that of the days there are.
 */
function truthOf(dials: Dials, days: number): number {
  const key = JSON.stringify([dials, days]);
  const known = truths.get(key);
  if (known !== undefined) return known;
  // By each ask of many days: those of a day that went on longer count oftener, as they do in the sum.
  const chance = mixedChance(`truth ${key}`);
  let met = 0;
  let of = 0;
  for (let n = 0; n < 20_000 / days; n++)
    for (const day of season(chance, { ...dials, moods: 0 }, { share: 0.7 }, days)) {
      met += day.met.filter(Boolean).length;
      of += day.met.length;
    }
  const truth = met / of;
  truths.set(key, truth);
  return truth;
}

/** One cell of the matrix. */
export interface Cell {
  readonly sentence: string;
  readonly dial: string;
  readonly limit: number;
  readonly share: number;
  readonly of: number;
  /** How often it is said where something is there; null where that is not asked. */
  readonly found: number | null;
  /** Over its limit by more than two standard errors of the simulation, within them, or under it. */
  readonly state: "holds" | "near" | "over";
}

/** A cell on so many horses. The seed draws the horses: limits are never tuned on the one that judges them. */
export function cellOf({ name, limit, run, found }: Sentence, [dial, change]: (typeof DIALS)[number], horses: number, seed: number): Cell {
  const dials = { ...STILL, ...change };
  let so = 0;
  let of = 0;
  let there = 0;
  // What is found needs no such precision as what is false.
  const asked = Math.ceil(horses / 5);
  for (let i = 0; i < horses; i++) {
    const was = run(mixedChance(`${seed} ${name} ${dial} ${i}`), dials);
    if (found !== undefined && i < asked && found.run(mixedChance(`${seed} there ${name} ${dial} ${i}`), dials)) there++;
    if (was === null) continue;
    of++;
    if (was) so++;
  }
  const share = of === 0 ? 0 : so / of;
  const most = limit / 100;
  const error = Math.sqrt((most * (1 - most)) / Math.max(1, of));
  return {
    sentence: name,
    dial,
    limit,
    share,
    of,
    found: found === undefined ? null : there / asked,
    state: share > most + 2 * error ? "over" : share > most ? "near" : "holds",
  };
}

const touches = (change: Partial<Dials>, names: readonly (keyof Dials)[]) => names.some((name) => change[name] !== undefined);

/** Which dials a sentence has to do with: signs and departures know nothing of asks, and the other way round. */
export const dialsOf = ({ of, trueWhere }: Sentence): (typeof DIALS)[number][] =>
  DIALS.filter(([, change]) => {
    if (trueWhere?.(change)) return false;
    const ofSigns = touches(change, ["bouts", "late"]);
    if (of === "goings") return ofSigns || Object.keys(change).length === 0;
    if (ofSigns) return false;
    if (of === "asks") return change.order === undefined;
    return of === "sides" || !touches(change, ["asksAlike", "trainer", "harder", "learnsOver"]);
  });

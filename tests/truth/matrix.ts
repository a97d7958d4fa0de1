import { type Chance, mixedChance } from "@/core/chance";
import { toldShare } from "@/core/compare";
import { sumsOfSessions } from "@/core/evidence";
import { beforeItGoes, goodMoment, overWeeks } from "@/core/past";
import { DIALS, type Dials, goings, longRun, pastOf, STILL, season } from "./yard";

/** One sentence of the app on a yard where nothing is there, or its range where something is. */
export interface Sentence {
  readonly name: string;
  /** Said falsely, or the truth left out, in at most so many of 100. */
  readonly limit: number;
  /** One horse over its season: whether it was so. Null where nothing was said that could be wrong. */
  readonly run: (chance: Chance, dials: Dials) => boolean | null;
}

const changed = (interval: readonly [number, number] | null | undefined) => interval != null && (interval[0] > 0 || interval[1] < 0);

/** The sentences that were tried so far, each on every dial. */
export const SENTENCES: readonly Sentence[] = [
  ...[5, 8, 16].map(
    (days): Sentence => ({
      name: `could be anywhere from … to …, ${days} sessions`,
      limit: 5,
      run: (chance, dials) => {
        const asks = season(chance, dials, 0.7, days).map(({ met }) => ({ met: met.filter(Boolean).length, of: met.length }));
        const { interval } = toldShare(sumsOfSessions(asks));
        if (interval === null) return null;
        const truth = truthOf(dials);
        return !(interval[0] <= truth && truth <= interval[1]);
      },
    }),
  ),
  {
    name: "lighter / less light, a week",
    limit: 8,
    run: (chance, dials) => changed(overWeeks(pastOf(season(chance, dials, 0.6, 12)), {}, new Map()).lightnessChange?.interval),
  },
  {
    name: "usually turns after",
    limit: 4,
    run: (chance, dials) => goodMoment(pastOf(season(chance, dials, 0.75, 24))).usually !== null,
  },
  {
    name: "after head high it left",
    limit: 8,
    run: (chance, dials) => beforeItGoes(goings(chance, dials, 14)).precursors.some(({ called }) => called),
  },
];

const truths = new Map<string, number>();
/**
 * The share a yard of these habits has over very many days. What it leaves out
 * for good (bad days not written down) is no error of the range: the truth is
 * that of the days there are.
 */
function truthOf(dials: Dials): number {
  const key = JSON.stringify(dials);
  const known = truths.get(key);
  if (known !== undefined) return known;
  // By each ask of many days: those of a day that went on longer count oftener, as they do in the sum.
  const chance = mixedChance(`truth ${key}`);
  const days = season(chance, { ...dials, moods: 0 }, 0.7, 20_000);
  const met = days.reduce((sum, day) => sum + day.met.filter(Boolean).length, 0);
  const of = days.reduce((sum, day) => sum + day.met.length, 0);
  const truth = dials === STILL ? longRun(dials, 0.7) : met / of;
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
  /** Over its limit by more than two standard errors of the simulation, within them, or under it. */
  readonly state: "holds" | "near" | "over";
}

/** A cell on so many horses. The seed draws the horses: limits are never tuned on the one that judges them. */
export function cellOf({ name, limit, run }: Sentence, [dial, change]: (typeof DIALS)[number], horses: number, seed: number): Cell {
  const dials = { ...STILL, ...change };
  let so = 0;
  let of = 0;
  for (let i = 0; i < horses; i++) {
    const was = run(mixedChance(`${seed} ${name} ${dial} ${i}`), dials);
    if (was === null) continue;
    of++;
    if (was) so++;
  }
  const share = of === 0 ? 0 : so / of;
  const most = limit / 100;
  const error = Math.sqrt((most * (1 - most)) / Math.max(1, of));
  return { sentence: name, dial, limit, share, of, state: share > most + 2 * error ? "over" : share > most ? "near" : "holds" };
}

/** Which dials a sentence has to do with: signs and departures know nothing of asks, and the other way round. */
export const dialsOf = (sentence: Sentence): (typeof DIALS)[number][] =>
  DIALS.filter(([, change]) => {
    const ofSigns = "bouts" in change || "late" in change;
    const plain = Object.keys(change).length === 0;
    return plain || ofSigns === sentence.name.startsWith("after");
  });

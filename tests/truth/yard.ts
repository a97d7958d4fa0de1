import { type Chance, drawNormal } from "@/core/chance";
import type { Moment, Past } from "@/core/past";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";

/**
 * A yard with habits: what a real one has beside its horses' own shares. Each
 * dial is off in {@link STILL}; logits are added to that of the true share.
 */
export interface Dials {
  /** Logits lower at the first ask, gone after six. */
  readonly cold: number;
  /** Logits lower by the twentieth ask than by the first. */
  readonly tires: number;
  /** Logits higher by the twentieth ask than by the first. */
  readonly learnsWithin: number;
  /** Logits higher by the last session than by the first. */
  readonly learnsOver: number;
  /** How alike neighbouring days are, 0 to under 1. */
  readonly moods: number;
  /** Days differ by so much on the logit. */
  readonly daySpread: number;
  /** How alike neighbouring asks are beyond their session, 0 to under 1. */
  readonly asksAlike: number;
  /** Signs and departures come in so many at once. */
  readonly bouts: number;
  /** Both signs and departures are commoner late in the session, by so many times. */
  readonly late: number;
  /** What ends a session: so many asks, two misses running, nine of ten, or the app's own word. */
  readonly trainer: "habit" | "failure" | "success" | "word";
  /** Of the days, so many are not written down: at random, or the bad ones first. */
  readonly missing: "none" | "random" | "bad days";
}

export const STILL: Dials = {
  cold: 0,
  tires: 0,
  learnsWithin: 0,
  learnsOver: 0,
  moods: 0,
  daySpread: 0.7,
  asksAlike: 0,
  bouts: 1,
  late: 1,
  trainer: "habit",
  missing: "none",
};

/** Every dial at two strengths, by name. */
export const DIALS: readonly (readonly [name: string, change: Partial<Dials>])[] = [
  ["nothing turned", {}],
  ["begins cold, a little", { cold: 0.8 }],
  ["begins cold", { cold: 1.6 }],
  ["learns within the session, a little", { learnsWithin: 0.6 }],
  ["learns within the session", { learnsWithin: 1.2 }],
  ["days in moods, 0.5", { moods: 0.5 }],
  ["days in moods, 0.8", { moods: 0.8 }],
  ["neighbouring asks alike, 0.3", { asksAlike: 0.3 }],
  ["neighbouring asks alike, 0.6", { asksAlike: 0.6 }],
  ["bouts of two", { bouts: 2 }],
  ["bouts of three", { bouts: 3 }],
  ["commoner late, twice", { late: 2 }],
  ["commoner late, four times", { late: 4 }],
  ["commoner late and in twos", { late: 3, bouts: 2 }],
  ["stops after two misses running", { trainer: "failure" }],
  ["ends at nine of ten", { trainer: "success" }],
  ["follows the app's word", { trainer: "word" }],
  ["days missing at random", { missing: "random" }],
  ["bad days missing", { missing: "bad days" }],
];

export const logit = (p: number) => Math.log(p / (1 - p));
export const shareOf = (x: number) => 1 / (1 + Math.exp(-x));

/** A row of values in which neighbours are alike by so much, each of spread 1. */
function alike(chance: Chance, likeness: number): () => number {
  let now = drawNormal(chance, 0, 1);
  return () => {
    const value = now;
    now = likeness * now + Math.sqrt(1 - likeness * likeness) * drawNormal(chance, 0, 1);
    return value;
  };
}

/** Whether a trainer ends here. */
function ends({ trainer }: Dials, met: readonly boolean[], planned: number): boolean {
  const last = (n: number) => met.slice(-n);
  const misses = (n: number) => last(n).filter((one) => !one).length;
  if (met.length >= (trainer === "habit" ? planned : 30)) return true;
  if (trainer === "failure") return met.length >= 2 && misses(2) === 2;
  if (trainer === "success") return met.length >= 10 && misses(10) <= 1;
  // As the word says: three misses running, or four in the last seven.
  if (trainer === "word") return (met.length >= 3 && misses(3) === 3) || (met.length >= 7 && misses(7) >= 4) || met.length >= planned + 6;
  return false;
}

/** A day of one horse: its asks in order, and how it was on that day. */
export interface YardDay {
  readonly day: number;
  readonly met: readonly boolean[];
  /** Whether each met ask came at the lightest phase. */
  readonly light: readonly boolean[];
}

const FULL_BY = 20;

/**
 * The days of a season: a horse of a true share, in a yard of these habits.
 * @param share of its asks, in the middle of its days.
 */
export function season(chance: Chance, dials: Dials, share: number, days: number): YardDay[] {
  const mood = alike(chance, dials.moods);
  const found: YardDay[] = [];
  for (let day = 0; day < days; day++) {
    const today = mood() * dials.daySpread;
    const left =
      dials.missing === "none" ? false : dials.missing === "random" ? chance() < 0.3 : today < -0.4 * dials.daySpread && chance() < 0.7;
    const ask = alike(chance, dials.asksAlike);
    const planned = 10 + Math.floor(chance() * 7);
    const met: boolean[] = [];
    const light: boolean[] = [];
    const middle = logit(share) + today + dials.learnsOver * (day / Math.max(1, days - 1) - 0.5);
    do {
      const n = met.length;
      const within =
        -dials.cold * Math.max(0, 1 - n / 6) +
        (dials.learnsWithin - dials.tires) * Math.min(1, n / FULL_BY) +
        (dials.asksAlike > 0 ? ask() : 0);
      met.push(chance() < shareOf(middle + within));
      light.push(chance() < shareOf(middle - 0.4));
    } while (!ends(dials, met, planned));
    if (!left) found.push({ day: 2 * day, met, light });
  }
  return found;
}

/** The same as a past of the app's own. */
export const pastOf = (days: readonly YardDay[]): Past =>
  writePast(
    days.map(
      ({ day, met, light }): WrittenSession => ({
        day,
        trials: met.map((good, i) => ({ outcome: good ? ("met" as const) : ("miss" as const), phase: good ? (light[i] ? 1 : 2) : null })),
      }),
    ),
  );

/** The share a season has in the long run, by many asks of many days of the same yard: what a range has to hold. */
export function longRun(dials: Dials, share: number): number {
  let sum = 0;
  let weight = 0;
  for (let z = -5; z <= 5; z += 0.05) {
    const w = Math.exp(-z * z * 0.5);
    sum += w * shareOf(logit(share) + z * dials.daySpread);
    weight += w;
  }
  return sum / weight;
}

/** Signs and departures of a season that have nothing to do with one another. */
export function goings(chance: Chance, { bouts, late }: Dials, days: number): Past {
  const end = 600_000;
  // Later in the session is likelier by so many times, rising evenly.
  const when = () => {
    for (;;) {
      const at = chance();
      if (chance() < (1 + (late - 1) * at) / late) return Math.floor(at * (end - 30_000));
    }
  };
  return writePast(
    Array.from({ length: days }, (_, day): WrittenSession => {
      const moments: Moment[] = [];
      const away: [number, number][] = [];
      for (const name of ["head high", "tail swishes", "calls"])
        for (let i = 0; i < Math.max(1, Math.round(4 / bouts)); i++) {
          const at = when();
          for (let k = 0; k < bouts; k++) moments.push([at + k * (3000 + Math.floor(chance() * 9000)), "tension", name]);
        }
      for (let i = 0; i < Math.max(1, Math.round(3 / bouts)); i++) {
        const at = when();
        for (let k = 0; k < bouts; k++) {
          const ms = at + k * 15_000;
          moments.push([ms, "left", ""]);
          away.push([ms, ms + 5000]);
        }
      }
      return { day, trials: "m", facts: { moments: moments.sort((a, b) => a[0] - b[0]), away } };
    }),
  );
}

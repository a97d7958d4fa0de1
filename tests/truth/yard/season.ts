import { type Chance, drawNormal } from "@/core/chance";
import type { Past } from "@/core/past";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";
import type { Dials } from "./dials";

export const logit = (p: number) => Math.log(p / (1 - p));
export const shareOf = (x: number) => 1 / (1 + Math.exp(-x));

/** A row of values in which neighbours are alike by so much, each of spread 1. */
export function alike(chance: Chance, likeness: number): () => number {
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

export type Side = "L" | "R";

/** A day of one horse: its asks in order, and how it was on that day. */
export interface YardDay {
  readonly day: number;
  readonly met: readonly boolean[];
  /** Whether each met ask came at the lightest phase. */
  readonly light: readonly boolean[];
  /** Of each ask; null where sides are not worked. */
  readonly sides: readonly (Side | null)[];
  /** How calm it was at each, 0 tense to 2 soft; null where it was not said. */
  readonly calm: readonly (number | null)[];
  readonly rung: number;
  readonly windy: boolean;
}

/** What there is to find of a horse. */
export interface YardHorse {
  /** Met of its asks, in the middle of its days. */
  readonly share: number;
  /** Both sides are worked, one after the other, the left behind by so many logits; left out where no side is noted. */
  readonly leftBehind?: number;
  /** Behind in wind by so many logits. */
  readonly windBehind?: number;
  /** Logits at which answers come at the lightest phase oftener by the last session than by the first. */
  readonly lighter?: number;
  /** So much worse by the twentieth ask than by the first, beside what the yard's dials say. */
  readonly tires?: number;
}

/** By this ask tiring and getting better have come to their full size. */
const FULL_BY = 20;
/** Wind and calm come in spells: a day is like the one before it so often. */
const SPELL = 0.6;
const WINDY = 0.4;
/** Each side has its own days, on the logit. */
const SIDE_SPREAD = 0.3;

/** Which of several comes first, second and so on, on a day after these. */
export function orderOn<T extends string>(
  dials: Dials,
  chance: Chance,
  names: readonly T[],
  day: number,
  lastTime: ReadonlyMap<T, number> | null,
): T[] {
  if (dials.order === "always the same") return [...names];
  if (dials.order === "worse first" && lastTime !== null)
    return names
      .map((name) => ({ name, went: lastTime.get(name) ?? 1, lot: chance() }))
      .sort((a, b) => a.went - b.went || a.lot - b.lot)
      .map(({ name }) => name);
  if (names.length === 2) return day % 2 === 0 ? [...names] : [...names].reverse();
  return names
    .map((name) => ({ name, lot: chance() }))
    .sort((a, b) => a.lot - b.lot)
    .map(({ name }) => name);
}

/** How far within a session the logit lies off its middle, at the n-th ask of it, from 0. */
export const withinSession = ({ cold, learnsWithin, tires }: Dials, n: number): number =>
  -cold * Math.max(0, 1 - n / 6) + (learnsWithin - tires) * Math.min(1, n / FULL_BY);

/** The moods of a season, and whether a day is left out of the book. */
export function dayOf(chance: Chance, dials: Dials): () => { readonly today: number; readonly written: boolean } {
  const mood = alike(chance, dials.moods);
  return () => {
    const today = mood() * dials.daySpread;
    const lost =
      dials.missing === "none" ? false : dials.missing === "random" ? chance() < 0.3 : today < -0.4 * dials.daySpread && chance() < 0.7;
    return { today, written: !lost };
  };
}

/** The days of a season: one horse in a yard of these habits. */
export function season(chance: Chance, habits: Dials, horse: YardHorse, days: number): YardDay[] {
  const { share, leftBehind, windBehind = 0, lighter = 0, tires = 0 } = horse;
  const dials = { ...habits, tires: habits.tires + tires };
  let windy = chance() < WINDY;
  const next = dayOf(chance, dials);
  const found: YardDay[] = [];
  let lastTime: ReadonlyMap<Side, number> | null = null;
  for (let day = 0; day < days; day++) {
    const { today, written } = next();
    const ask = alike(chance, dials.asksAlike);
    const planned = 10 + Math.floor(chance() * 7);
    const order = leftBehind === undefined ? [null] : orderOn(dials, chance, ["L", "R"] as const, day, lastTime);
    const own = new Map(order.map((side) => [side, side === null ? 0 : drawNormal(chance, 0, SIDE_SPREAD)]));
    const met: boolean[] = [];
    const light: boolean[] = [];
    const calm: (number | null)[] = [];
    if (chance() >= SPELL) windy = chance() < WINDY;
    const sides: (Side | null)[] = [];
    const late = 2 * day >= days;
    const middle =
      logit(share) + today + dials.learnsOver * (day / Math.max(1, days - 1) - 0.5) - (late ? dials.harder : 0) - (windy ? windBehind : 0);
    do {
      const n = met.length;
      const side = order[Math.min(order.length - 1, Math.floor((order.length * n) / planned))] ?? null;
      const behind = side === "L" ? (leftBehind ?? 0) : 0;
      const now = middle + withinSession(dials, n) + (own.get(side) ?? 0) - behind + (dials.asksAlike > 0 ? ask() : 0);
      const good = chance() < shareOf(now);
      met.push(good);
      light.push(chance() < shareOf(middle - 0.4 + lighter * (day / Math.max(1, days - 1) - 0.5)));
      const felt = Math.max(0, Math.min(2, Math.round(1 + 0.6 * (now - logit(share)) + drawNormal(chance, 0, 0.6))));
      const said = dials.values === "all" || chance() < (dials.values === "random" ? 0.5 : good ? 0.8 : 0.2);
      calm.push(said ? felt : null);
      sides.push(side);
    } while (!ends(dials, met, planned));
    lastTime = new Map(
      (["L", "R"] as const).flatMap((side) => {
        const asked = met.filter((_, i) => sides[i] === side);
        return asked.length === 0 ? [] : [[side, asked.filter(Boolean).length / asked.length]];
      }),
    );
    if (written) found.push({ day: 2 * day, met, light, sides, calm, windy, rung: late && dials.harder !== 0 ? 2 : 1 });
  }
  return found;
}

/** The same as a past of the app's own. */
export const pastOf = (days: readonly YardDay[]): Past =>
  writePast(
    days.map(
      ({ day, met, light, sides, calm, windy, rung }): WrittenSession => ({
        day,
        // An ask every half a minute.
        minutes: met.length / 2,
        facts: { wind: windy ? "gusts" : "still" },
        all: { rung },
        trials: met.map((good, i) => ({
          outcome: good ? ("met" as const) : ("miss" as const),
          phase: good ? (light[i] ? 1 : 2) : null,
          side: sides[i] ?? null,
          ease: calm[i] ?? null,
        })),
      }),
    ),
  );

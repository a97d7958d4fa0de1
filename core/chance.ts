import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";

/**
 * A source of chance that is a plain function, so that core never touches
 * `Math.random` and the same seed always gives the same run.
 * Each call returns a number in [0, 1).
 */
export type Chance = () => number;

/** Seeded chance (xoroshiro128+). @example seededChance(7) */
export function seededChance(seed: number): Chance {
  const generator = xoroshiro128plus(seed);
  return () => uniformFloat64(generator);
}

/** A draw from the exponential distribution with the given mean, same unit as the mean. @example drawExponential(chance, 7) // 4.3 */
export function drawExponential(chance: Chance, mean: number): number {
  return -Math.log(1 - chance()) * mean;
}

/** A draw from the normal distribution (Box & Muller 1958). @example drawNormal(chance, 5, 2) // 7.2 */
export function drawNormal(chance: Chance, mean: number, deviation: number): number {
  const radius = Math.sqrt(-2 * Math.log(1 - chance()));
  return mean + deviation * radius * Math.cos(2 * Math.PI * chance());
}

/** One element of a non-empty list. @example pick(chance, ["L", "R"]) // "R" */
export function pick<T>(chance: Chance, list: readonly T[]): T {
  const index = Math.min(list.length - 1, Math.floor(chance() * list.length));
  const item = list[index];
  if (item === undefined) throw new RangeError("pick: the list is empty");
  return item;
}

/** Draws thrown away before the first that counts: the generator's first one hangs on the seed alone and is near 1 for every small seed. */
const WARM_UP_DRAWS = 16;

/**
 * Chance from a text, fit for a single draw: the text is hashed (FNV-1a), the
 * hash finished so that every bit of it counts (the 32-bit finaliser of
 * MurmurHash3, Appleby, public domain, from memory), and the first draws are
 * thrown away. Texts that differ by one sign give chances that have nothing to
 * do with each other.
 * @example mixedChance("block:1")() // from 0 to 1, the same each time
 */
export function mixedChance(text: string): Chance {
  const chance = seededChance(finished(seedFromText(text)));
  for (let i = 0; i < WARM_UP_DRAWS; i++) chance();
  return chance;
}

/** The finaliser of MurmurHash3: each bit of the hash changes half of the bits of the result. @example finished(16863883) // 813355522 */
export function finished(hash: number): number {
  let h = hash >>> 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/**
 * A seed from a text, so that the same session always draws the same lists (FNV-1a, 32 bits).
 * @example seedFromText("a") // 3826002220
 */
export function seedFromText(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

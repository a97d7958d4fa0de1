import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";

/**
 * A source of chance that is a plain function, so that core never touches
 * `Math.random` and the same seed always gives the same run.
 * Each call returns a number in [0, 1).
 */
export type Chance = () => number;

/** Seeded chance (xoroshiro128+). */
export function seededChance(seed: number): Chance {
  const generator = xoroshiro128plus(seed);
  return () => uniformFloat64(generator);
}

/** A draw from the exponential distribution with the given mean, same unit as the mean. */
export function drawExponential(chance: Chance, mean: number): number {
  return -Math.log(1 - chance()) * mean;
}

/** A draw from the normal distribution (Box & Muller 1958). */
export function drawNormal(chance: Chance, mean: number, deviation: number): number {
  const radius = Math.sqrt(-2 * Math.log(1 - chance()));
  return mean + deviation * radius * Math.cos(2 * Math.PI * chance());
}

/** One element of a non-empty list. */
export function pick<T>(chance: Chance, list: readonly T[]): T {
  const index = Math.min(list.length - 1, Math.floor(chance() * list.length));
  const item = list[index];
  if (item === undefined) throw new RangeError("pick: the list is empty");
  return item;
}

/** A seed from a text, so that the same session always draws the same lists (FNV-1a, 32 bits). */
export function seedFromText(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

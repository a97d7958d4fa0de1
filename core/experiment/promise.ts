import { drawNormal, mixedChance } from "../chance";
import { type Arm, ordersOf } from "./orders";

/** What an experiment can show with so many blocks, before it starts. */
export interface Promised {
  readonly orders: number;
  /** The smallest p it can give. */
  readonly leastP: number;
  /** Differences, in spreads from block to block, that are found eight times in ten; null where none is. */
  readonly foundSpreads: number | null;
}

const FOUND = 0.8;
const CALLED_AT = 0.05;
const RUNS = 300;
/** Orders an experiment is judged by while its promise is worked out: more would change the figure by less than it is known. */
const MOST_ORDERS = 600;
const STEPS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.5, 3, 4] as const;

function thinned(orders: readonly (readonly Arm[])[], seed: string): readonly (readonly Arm[])[] {
  if (orders.length <= MOST_ORDERS) return orders;
  const chance = mixedChance(seed);
  return Array.from({ length: MOST_ORDERS }, () => orders[Math.floor(chance() * orders.length)] as readonly Arm[]);
}

/**
 * What so many blocks can show: how many orders could be drawn, the smallest p
 * among them, and by simulation (blocks that differ by chance with a normal
 * spread of 1) which difference is found eight times in ten at p under 0.05.
 * Cost: at most a million block sums.
 * @example promiseOf(6, 2).leastP // 0.1428…: six blocks can show nothing
 */
export function promiseOf(blocks: number, mostAlike: number): Promised {
  const orders = ordersOf(blocks, mostAlike);
  const leastP = 2 / orders.length;
  if (leastP >= CALLED_AT) return { orders: orders.length, leastP, foundSpreads: null };
  const seed = `promise:${blocks}:${mostAlike}`;
  const few = thinned(orders, seed);
  const signs = few.map((arms) => Float64Array.from(arms, (arm) => (arm === "B" ? 1 : -1)));
  const sumOf = (values: Float64Array, order: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < blocks; i++) sum += (values[i] as number) * (order[i] as number);
    return Math.abs(sum);
  };
  const chance = mixedChance(`${seed}:runs`);
  const runs = Array.from({ length: RUNS }, () => ({
    drawn: signs[Math.floor(chance() * signs.length)] as Float64Array,
    noise: Float64Array.from({ length: blocks }, () => drawNormal(chance, 0, 1)),
  }));
  for (const step of STEPS) {
    const found = runs.filter(({ drawn, noise }) => {
      const values = noise.map((one, i) => one + ((drawn[i] as number) > 0 ? step : 0));
      const seen = sumOf(values, drawn) - 1e-9;
      const asMuch = signs.reduce((sum, order) => sum + (sumOf(values, order) >= seen ? 1 : 0), 0);
      return asMuch / signs.length < CALLED_AT;
    }).length;
    if (found >= FOUND * RUNS) return { orders: orders.length, leastP, foundSpreads: step };
  }
  return { orders: orders.length, leastP, foundSpreads: null };
}

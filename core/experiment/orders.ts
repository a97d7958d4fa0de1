import { type Chance, pick } from "../chance";

/** One of the two things that are tried. */
export type Arm = "A" | "B";

/** Fewest and most blocks of an experiment; as many of each arm, so it is even. */
export const BLOCKS = { least: 4, most: 16, usual: 12 } as const;
/** How often running the same arm may come, where nothing else is said. */
export const MOST_ALIKE = 2;

/**
 * Every order in which half of the blocks are A and half B, and none comes more
 * than so often running: the orders that could have been drawn (alternating
 * treatments, Barlow & Hayes 1979, from memory).
 * @param blocks an even number from 4 to 16.
 * @throws RangeError where it is not.
 * @example ordersOf(4, 2).length // 6
 */
export function ordersOf(blocks: number, mostAlike: number): readonly (readonly Arm[])[] {
  if (!Number.isInteger(blocks) || blocks % 2 !== 0 || blocks < BLOCKS.least || blocks > BLOCKS.most)
    throw new RangeError(`ordersOf: the number of blocks is even, from ${BLOCKS.least} to ${BLOCKS.most}`);
  if (!Number.isInteger(mostAlike) || mostAlike < 1) throw new RangeError("ordersOf: at least one of an arm can come running");
  const orders: Arm[][] = [];
  const order: Arm[] = [];
  const left = { A: blocks / 2, B: blocks / 2 };
  const grow = (run: number) => {
    if (order.length === blocks) {
      orders.push([...order]);
      return;
    }
    for (const arm of ["A", "B"] as const) {
      const running = order.at(-1) === arm ? run + 1 : 1;
      if (left[arm] === 0 || running > mostAlike) continue;
      left[arm]--;
      order.push(arm);
      grow(running);
      order.pop();
      left[arm]++;
    }
  };
  grow(0);
  return orders;
}

/** One of the orders, each as likely as another. @example drawOrder(chance, 4, 2) // ["B", "B", "A", "A"] */
export const drawOrder = (chance: Chance, blocks: number, mostAlike: number): readonly Arm[] => pick(chance, ordersOf(blocks, mostAlike));

/** An order with how many of the orders that could have been drawn begin so. */
export interface WeighedOrder {
  readonly arms: readonly Arm[];
  readonly weight: number;
}

/**
 * The first blocks of every order, each once, with how often it could have been drawn: for what was cut short.
 * @example beginnings(orders, 4) // 6 of them
 */
export function beginnings(orders: readonly (readonly Arm[])[], blocks: number): readonly WeighedOrder[] {
  const found = new Map<string, { arms: readonly Arm[]; weight: number }>();
  for (const order of orders) {
    const arms = order.slice(0, blocks);
    const key = arms.join("");
    const one = found.get(key);
    if (one === undefined) found.set(key, { arms, weight: 1 });
    else one.weight++;
  }
  return [...found.values()];
}

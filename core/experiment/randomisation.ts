import type { Arm, WeighedOrder } from "./orders";

/** The exact test over the orders that could have been drawn. */
export interface RandomisationTest {
  /** Mean of B less mean of A. */
  readonly effect: number;
  /** Two-sided. */
  readonly p: number;
  /** Differences that cannot be ruled out at 0.05; null where there are too few orders to rule any out. An end may be infinite. */
  readonly interval: readonly [number, number] | null;
  /** The smallest p that could have come out. */
  readonly leastP: number;
  readonly orders: number;
}

const TOLERANCE = 1e-9;

/** Mean of the B places less mean of the A places, missing values passed over; null where an arm has none. */
function effectOf(values: readonly (number | null)[], arms: readonly Arm[]): number | null {
  let a = 0;
  let b = 0;
  let ofA = 0;
  let ofB = 0;
  for (const [i, value] of values.entries()) {
    if (value === null) continue;
    if (arms[i] === "A") {
      a += value;
      ofA++;
    } else {
      b += value;
      ofB++;
    }
  }
  return ofA === 0 || ofB === 0 ? null : b / ofB - a / ofA;
}

/**
 * Randomisation test of a single horse's alternating blocks (Edgington &
 * Onghena 2007, from memory): p is the share of the orders that could have been
 * drawn, each by its weight, under which the values give as large a difference
 * of means, either way. The interval holds every constant difference the test
 * does not reject at 0.05, found by taking it off the B blocks (test inversion):
 * under order s the difference changes by c·δ, c the effect of having been B, so
 * s rejects nothing between (T − Tₛ)/(1 − c) and (T + Tₛ)/(1 + c), and all ends
 * are exact.
 * @param values one a block in the order they were worked; null where a block gave none.
 * @param drawn the arms as they were drawn.
 * @param orders every order that could have been, `drawn` among them.
 * @returns null where an arm holds no value.
 * @example randomisationTest([1, 2, 1, 2], ["A", "B", "A", "B"], beginnings(ordersOf(4, 2), 4))?.effect // 1
 */
export function randomisationTest(
  values: readonly (number | null)[],
  drawn: readonly Arm[],
  orders: readonly WeighedOrder[],
): RandomisationTest | null {
  const effect = effectOf(values, drawn);
  if (effect === null) return null;
  const asB = values.map((value, i) => (value === null ? null : drawn[i] === "B" ? 1 : 0));
  const scale = Math.max(1, ...values.map((value) => Math.abs(value ?? 0)));
  let all = 0;
  let asMuch = 0;
  let always = 0;
  // Between its two ends an order is as extreme as the one drawn; at its ends it stops being so.
  const ends: [at: number, weight: number][] = [];
  for (const { arms, weight } of orders) {
    const t = effectOf(values, arms);
    const c = effectOf(asB, arms);
    if (t === null || c === null) continue;
    all += weight;
    if (Math.abs(t) >= Math.abs(effect) - TOLERANCE * scale) asMuch += weight;
    const low = 1 - c < TOLERANCE ? null : (effect - t) / (1 - c);
    const high = 1 + c < TOLERANCE ? null : (effect + t) / (1 + c);
    // The order drawn, and the one that turns every arm about, are as extreme whatever the difference is.
    if (low === null || high === null) always += weight;
    else ends.push([Math.min(low, high), weight], [Math.max(low, high), -weight]);
  }
  if (all === 0) return null;
  const leastP = always / all;
  return { effect, p: asMuch / all, interval: leastP > 0.05 ? null : intervalOf(ends, always, all), leastP, orders: all };
}

/** Where more than one in twenty of the orders are as extreme: every order's stretch holds the effect seen, so it is one stretch. */
function intervalOf(ends: readonly (readonly [number, number])[], always: number, all: number): readonly [number, number] {
  const wanted = 0.05 * all + TOLERANCE;
  const reach = (side: 1 | -1) => {
    const own = ends
      .filter(([, weight]) => (side === 1 ? weight < 0 : weight > 0))
      .map(([at, weight]) => [at, Math.abs(weight)] as const)
      .sort((a, b) => side * (b[0] - a[0]));
    let held = always;
    for (const [at, weight] of own) {
      held += weight;
      if (held > wanted) return at;
    }
    return side * Number.POSITIVE_INFINITY;
  };
  return [reach(-1), reach(1)];
}

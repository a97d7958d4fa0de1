import { logGamma } from "./special";

const logFactorial = (n: number) => logGamma(n + 1);

/**
 * Fisher's exact test on a two-by-two table, two-sided: the sum of all tables
 * with the same margins that are no more probable than the one seen, with a
 * relative tolerance of 1e-7 (Fisher 1935; the tolerance is the one R uses).
 * Rows are groups, columns are met and not met.
 * @throws RangeError where a count is not a whole number of 0 or more.
 * @example fisherExact(3, 1, 1, 3) // 0.4857
 */
export function fisherExact(a: number, b: number, c: number, d: number): number {
  for (const n of [a, b, c, d]) {
    if (!Number.isInteger(n) || n < 0) throw new RangeError("fisherExact: counts must be whole numbers, 0 or more");
  }
  const rowOne = a + b;
  const rowTwo = c + d;
  const columnOne = a + c;
  const total = rowOne + rowTwo;
  const margins =
    logFactorial(rowOne) + logFactorial(rowTwo) + logFactorial(columnOne) + logFactorial(total - columnOne) - logFactorial(total);
  const logChance = (x: number) =>
    margins - logFactorial(x) - logFactorial(rowOne - x) - logFactorial(columnOne - x) - logFactorial(rowTwo - columnOne + x);
  const lowest = Math.max(0, columnOne - rowTwo);
  const highest = Math.min(rowOne, columnOne);
  const seen = logChance(a) + Math.log1p(1e-7);
  let p = 0;
  for (let x = lowest; x <= highest; x++) {
    const here = logChance(x);
    if (here <= seen) p += Math.exp(here);
  }
  return Math.min(1, p);
}

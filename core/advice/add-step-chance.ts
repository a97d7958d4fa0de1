import { chanceOfGoBack, type GoBackThresholds } from "./go-back-chance";

/** Binomial chances of 0…n successes. */
function binomial(n: number, p: number): number[] {
  let row = [1];
  for (let trial = 0; trial < n; trial++) {
    const next = new Array<number>(row.length + 1).fill(0);
    row.forEach((chance, k) => {
      next[k] = (next[k] as number) + chance * (1 - p);
      next[k + 1] = (next[k + 1] as number) + chance * p;
    });
    row = next;
  }
  return row;
}

/**
 * Exact chance that Ease comes in at least so many of some blocks of ten, each
 * on its own: what Split by Ease lets through.
 * @example chanceOfAddStep({ run: 3, misses: 4, window: 7 }, 0.8, 1, 3) // 0.2434
 */
export function chanceOfAddStep(thresholds: GoBackThresholds, p: number, times: number, blocks: number): number {
  const each = chanceOfGoBack(thresholds, p);
  return binomial(blocks, each).reduce((sum, chance, k) => (k >= times ? sum + chance : sum), 0);
}

/**
 * Exact chance that no later session has a higher share met than the first:
 * what Split by no gain hears, whatever the horse has really gained.
 * @param p true share of each session, oldest first.
 * @param trials of each session.
 * @example chanceOfNoGain([0.4], 10) // 1
 */
export function chanceOfNoGain(p: readonly number[], trials: number): number {
  const [first, ...later] = p.map((one) => binomial(trials, one));
  if (first === undefined) return 0;
  const upTo = later.map((row) => {
    let sum = 0;
    return row.map((chance) => {
      sum += chance;
      return sum;
    });
  });
  return first.reduce((sum, chance, k) => sum + chance * upTo.reduce((product, row) => product * (row[k] as number), 1), 0);
}

/** How many steps the fixed loop takes. */
const STEPS = 1_000_000;
/** A table of the size of a rule's states: what is worked on lies in memory, as it does there. */
const SIZE = 1024;
const RUNS = 25;

/**
 * How long a fixed loop of arithmetic takes on this machine now, in
 * milliseconds: the median of some runs. Each step waits for the one before,
 * so it says how fast the machine is and not how clever its compiler.
 */
export function arithmeticMs(): number {
  const times: number[] = [];
  const table = new Float64Array(SIZE).fill(0.4);
  for (let run = 0; run < RUNS; run++) {
    const started = performance.now();
    let at = 0;
    for (let i = 0; i < STEPS; i++) {
      const next = (at * 5 + 1) & (SIZE - 1);
      const x = table[at] as number;
      table[next] = 3.9 * x * (1 - x) * 0.999 + 0.001 * (table[next] as number);
      at = next;
    }
    times.push(performance.now() - started);
  }
  // Used, so that the loop is not left out.
  if (!table.every((x) => x > 0 && x < 1)) throw new Error("the loop has left its interval");
  return times.sort((a, b) => a - b)[Math.floor(RUNS / 2)] as number;
}

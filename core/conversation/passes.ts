import type { SessionRecord, Trial } from "../record";

/** Grades of the first time through a rung in a session, and of later times. */
export interface Passes {
  readonly first: { readonly n: number; readonly mean: number };
  readonly later: { readonly n: number; readonly mean: number };
}

/**
 * First pass against second: grades of the first block on a rung, side by
 * side, and of every later block on it in the same session. Only rungs that
 * were worked more than once count.
 * @param what which grade.
 * @returns null where nothing was graded in both.
 * @example passesOf(record, "ease")?.later.mean // 2.5
 */
export function passesOf({ trials, blocks }: SessionRecord, what: "ease" | "movement"): Passes | null {
  const seen = new Map<string, number>();
  const passOf = blocks.map(({ ladder, version, rung, side }) => {
    const key = JSON.stringify([ladder, version, rung, side]);
    const pass = (seen.get(key) ?? 0) + 1;
    seen.set(key, pass);
    return { key, pass };
  });
  const graded = (of: Trial) => (what === "ease" ? of.ease : of.movement);
  const sums = { first: { n: 0, sum: 0 }, later: { n: 0, sum: 0 } };
  for (const trial of trials) {
    const grade = graded(trial);
    const block = trial.blockIndex === null ? undefined : passOf[trial.blockIndex];
    if (grade === null || block === undefined || (seen.get(block.key) ?? 0) < 2) continue;
    const sum = block.pass === 1 ? sums.first : sums.later;
    sum.n++;
    sum.sum += grade;
  }
  const { first, later } = sums;
  if (first.n === 0 || later.n === 0) return null;
  return { first: { n: first.n, mean: first.sum / first.n }, later: { n: later.n, mean: later.sum / later.n } };
}

import type { SessionSum } from "./session-permutation";
import { chiSquaredQuantile, chiSquaredUpperTail } from "./special";

/** A session of one of two lots, by when it was. */
export interface DatedSum extends SessionSum {
  readonly startedMs: number;
  readonly second: boolean;
}

/**
 * How alike neighbouring sessions are where few tell, for how many sessions that
 * counts, and what is put on for caution: as for a change a week, less what
 * chance within sessions takes of it. Chosen on simulated yards of other seeds
 * than those that judge it; no published source.
 */
const USUAL_LIKENESS = 0.35;
const USUAL_COUNTS = 8;
const CAUTION = 0.08;
const MOST_LIKENESS = 0.9;

/** The correlation of each with the next, values about their mean. */
function autocorrelation(values: readonly number[], lag: number): number {
  const squares = values.reduce((sum, one) => sum + one * one, 0);
  return squares === 0 ? 0 : values.reduce((sum, one, i) => sum + one * (values[i + lag] ?? 0), 0) / squares;
}

/**
 * How many times the variance of independent sessions a difference of two lots
 * has where both come in spells: wind and still days in runs of days, moods in
 * runs too. f = 1 + 2Σ aⱼρʲ, aⱼ the likeness of lots j sessions apart, ρ that of
 * neighbouring sessions beyond their lot (after Bartlett 1946, from memory).
 * Where the lots take turns or are drawn it is about 1, and never less.
 * @example spellFactor([]) // 1
 */
export function spellFactor(sessions: readonly DatedSum[]): number {
  const inOrder = sessions.filter(({ of }) => of > 0).sort((a, b) => a.startedMs - b.startedMs);
  const n = inOrder.length;
  const seconds = inOrder.filter(({ second }) => second).length;
  if (seconds === 0 || seconds === n) return 1;
  const mean = (second: boolean) =>
    inOrder.reduce((sum, one) => sum + (one.second === second ? one.sum / one.of : 0), 0) / (second ? seconds : n - seconds);
  const [ofFirst, ofSecond] = [mean(false), mean(true)];
  const residuals = inOrder.map((one) => one.sum / one.of - (one.second ? ofSecond : ofFirst));
  // Two means were taken off, so neighbours look less alike by two of n.
  const seen = n < 2 ? USUAL_LIKENESS : autocorrelation(residuals, 1) * (n / (n - 1)) + 2 / n;
  const likeness = Math.min(MOST_LIKENESS, Math.max(0, (n * seen + USUAL_COUNTS * USUAL_LIKENESS) / (n + USUAL_COUNTS) + CAUTION));
  const lots = inOrder.map(({ second }) => (second ? 1 : 0) - seconds / n);
  let factor = 1;
  for (let lag = 1; lag < n; lag++) factor += 2 * autocorrelation(lots, lag) * likeness ** lag;
  return Math.max(1, factor);
}

/** The p of a difference whose variance is so many times what it was worked out with: its χ² divided by that. @example acrossSpells(0.05, 1) // 0.05 */
export const acrossSpells = (p: number, factor: number): number =>
  factor <= 1 || p >= 1 ? p : chiSquaredUpperTail(chiSquaredQuantile(1 - p, 1) / factor, 1);

import { templateOf } from "./catalogue";
import { sensibleBetween } from "./sensible";
import type { Strand, StrandValue } from "./strand";

/** How a number may climb. */
export interface ClimbRule {
  /** Most a step may grow, as a ratio. */
  readonly maxRatio: number;
  /** The step from zero, or down to it, in the strand's unit. */
  readonly leastStep: number;
  readonly wholeNumbers: boolean;
}

const SLACK = 1e-9;

/** Magnitudes from low to high, both there, in as few steps as the rule allows, spread evenly and rounded to sensible values. */
function climb(low: number, high: number, { maxRatio, leastStep, wholeNumbers }: ClimbRule): number[] {
  if (high === low) return [low];
  const path = [low];
  let from = low;
  if (from === 0) {
    from = Math.min(high, leastStep);
    path.push(from);
  }
  if (wholeNumbers) {
    while (from < high) {
      from = from < 4 ? from + 1 : Math.min(high, Math.max(from + 1, Math.floor(from * maxRatio)));
      path.push(from);
    }
    return path;
  }
  const steps = Math.ceil(Math.log(high / from) / Math.log(maxRatio) - SLACK);
  const ratio = (high / from) ** (1 / Math.max(1, steps));
  let last = from;
  for (let i = 1; i < steps; i++) {
    const even = from * ratio ** i;
    // Not so low that the goal could no longer be reached in the steps left, not so high that this step is too large.
    const least = Math.max(last * (1 + 1e-6), high / maxRatio ** (steps - i));
    last = sensibleBetween(Math.min(Math.max(even, least), last * maxRatio), least, Math.min(high, last * maxRatio));
    path.push(last);
  }
  if (last < high) path.push(high);
  return path;
}

/**
 * Every number on the way from one to another, both there, each step within
 * the rule, rounded to sensible values. Zero is passed by the least step.
 * @example numberPath(5, 5, rule) // [5]
 */
export function numberPath(from: number, to: number, rule: ClimbRule): number[] {
  if (from < 0 && to <= 0) return numberPath(-from, -to, rule).map((value) => -value + 0);
  if (from < 0 !== to < 0 && from !== 0 && to !== 0) return [...numberPath(from, 0, rule), ...numberPath(0, to, rule).slice(1)];
  if (to < 0) return numberPath(-from, -to, rule).map((value) => -value + 0);
  return from <= to ? climb(from, to, rule) : climb(to, from, rule).reverse();
}

/**
 * Every value of a strand on the way from one to another, both there: level by
 * level, or in steps the step rule allows.
 * @param maxRatio most a number may grow in a step.
 * @throws RangeError where a level is not one of the strand's.
 * @example valuePath(strand, 2, 3, 2) // [2, 3]
 */
export function valuePath(strand: Strand, from: StrandValue, to: StrandValue, maxRatio: number): StrandValue[] {
  if (strand.kind === "levels") {
    const [a, b] = [strand.levels.indexOf(String(from)), strand.levels.indexOf(String(to))];
    if (a < 0 || b < 0) throw new RangeError(`${strand.name}: both ends must be among its levels`);
    return a <= b ? strand.levels.slice(a, b + 1) : strand.levels.slice(b, a + 1).reverse();
  }
  const { leastStep, wholeNumbers } = templateOf(strand.key);
  return numberPath(Number(from), Number(to), { maxRatio, leastStep, wholeNumbers });
}

import { templateOf } from "./catalogue";
import { difficulty } from "./height";
import type { Strand, StrandValue } from "./strand";

/** The digits a trainer would pick: 1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8 times a power of ten. */
const SENSIBLE = [1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8] as const;

/** Whether a value lies between two others, both included, to rounding. */
const between = (value: number, low: number, high: number) => value >= low * (1 - 1e-12) && value <= high * (1 + 1e-12);

/** Sensible values around a positive one, within a power of ten on either side, in order. */
function sensibleAround(wanted: number): number[] {
  const power = 10 ** Math.floor(Math.log10(wanted));
  return [power / 10, power, power * 10].flatMap((p) => SENSIBLE.map((step) => Number((step * p).toPrecision(6))));
}

/**
 * A value near the wanted one, between two bounds, all above 0: a sensible one
 * where one fits, otherwise the wanted one with as few digits as the bounds allow.
 * @example sensibleBetween(2, 2, 2) // 2
 */
export function sensibleBetween(wanted: number, low: number, high: number): number {
  const fitting = sensibleAround(wanted)
    .filter((value) => between(value, low, high))
    .sort((a, b) => Math.abs(Math.log(a / wanted)) - Math.abs(Math.log(b / wanted)));
  if (fitting[0] !== undefined) return fitting[0];
  for (let digits = 2; digits <= 9; digits++) {
    const value = Number(wanted.toPrecision(digits));
    if (between(value, low, high)) return value;
  }
  return wanted;
}

/** The next larger sensible number, with 0 and the strand's least step between the signs. */
function nextUp(value: number, leastStep: number): number {
  const slack = 1e-9;
  if (value < -leastStep - slack) {
    const smaller = sensibleAround(-value).filter((v) => v < -value - slack && v >= leastStep - slack);
    return -(smaller.at(-1) ?? leastStep);
  }
  if (value < -slack) return 0;
  if (value < leastStep - slack) return leastStep;
  return sensibleAround(value).find((v) => v > value + slack) ?? value * 2;
}

/**
 * The value one notch harder (+1) or easier (−1): the next level, the next
 * whole number, or the next sensible number of the unit. Stays where the
 * strand ends.
 * @param bounds least and greatest value allowed; the catalogue's range by default.
 * @throws RangeError where the value is not of the strand's kind.
 * @example notch(strand, 2, 1) // 3
 */
export function notch(strand: Strand, value: StrandValue, harder: 1 | -1, bounds?: readonly [number, number]): StrandValue {
  if (strand.kind === "levels") {
    const next = difficulty(strand, value) + harder;
    return strand.levels[Math.min(strand.levels.length - 1, Math.max(0, next))] ?? value;
  }
  difficulty(strand, value);
  const template = templateOf(strand.key);
  const [least, most] = bounds ?? template.range;
  const up = (harder === 1) === (strand.harder === "more");
  const from = Number(value);
  let next: number;
  if (template.wholeNumbers) next = Math.round(from) + (up ? 1 : -1);
  else next = up ? nextUp(from, template.leastStep) : -nextUp(-from, template.leastStep);
  // −0 would read as a value of its own.
  return Math.min(most, Math.max(least, next)) + 0;
}

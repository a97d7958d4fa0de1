import { difficulty, notch, type Strand, type StrandValue } from "../strands";
import type { Rung } from "./ladder";
import { splitStep } from "./split";

/** The notches from one value to another, both left out: what lies between them. */
function valuesBetween(strand: Strand, from: StrandValue, to: StrandValue): StrandValue[] {
  const between: StrandValue[] = [];
  const goal = difficulty(strand, to);
  let at = from;
  // A strand has few notches between two rungs; the bound only guards against a value off its own scale.
  for (let n = 0; n < 200; n++) {
    const next = notch(strand, at, 1);
    if (next === at || difficulty(strand, next) >= goal) break;
    between.push(next);
    at = next;
  }
  return between;
}

/** The one of the values between that lies nearest to half way: by ratio for numbers above 0, otherwise by its place. */
function middleOf(between: readonly StrandValue[], from: StrandValue, to: StrandValue): StrandValue | undefined {
  const [low, high] = [Number(from), Number(to)];
  if (!(low > 0 && high > 0)) return between[Math.floor((between.length - 1) / 2)];
  const off = (value: StrandValue) => Math.abs(Math.log(Number(value) / Math.sqrt(low * high)));
  return [...between].sort((a, b) => off(a) - off(b))[0];
}

/** Strands that may be eased where a step has no value in between, in this order. */
const EASED_INSTEAD = ["lightness", "latency", "stay", "reach"] as const;

/**
 * Rungs that fit between a rung and the one before it, easiest first; none
 * where nothing does. A step with a fault is split as the step rules ask. A
 * step of one strand gets the value half way; where there is no value in
 * between, the new value is kept and another strand is eased by a notch.
 * @param number the upper rung, counted from 1.
 * @param phaseCount how many cue phases the plan has: lightness eases no further.
 * @example rungsBetween(strands, rungs, 4, 3) // 2 of them
 */
export function rungsBetween(strands: readonly Strand[], rungs: readonly Rung[], number: number, phaseCount: number): Rung[] {
  const before = rungs[number - 2];
  const here = rungs[number - 1];
  if (before === undefined || here === undefined) return [];
  const split = splitStep(strands, rungs, number);
  if (split.length > rungs.length) return split.slice(number - 1, number - 1 + split.length - rungs.length);
  const { kept: _, ...settings } = here;
  const withValue = (strand: Strand, value: StrandValue): Rung => ({ ...settings, values: { ...here.values, [strand.id]: value } });
  const harder = strands.filter(
    (strand) => difficulty(strand, here.values[strand.id] as StrandValue) > difficulty(strand, before.values[strand.id] as StrandValue),
  );
  for (const strand of harder) {
    const between = valuesBetween(strand, before.values[strand.id] as StrandValue, here.values[strand.id] as StrandValue);
    const middle = middleOf(between, before.values[strand.id] as StrandValue, here.values[strand.id] as StrandValue);
    if (middle !== undefined) return [withValue(strand, middle)];
  }
  for (const key of EASED_INSTEAD) {
    const strand = strands.find((one) => one.key === key && !harder.includes(one));
    if (strand === undefined) continue;
    const value = here.values[strand.id] as StrandValue;
    // Only what the rung before had, or less: easing must never ask for more than either neighbour.
    const easier = key === "lightness" ? notch(strand, value, -1, [1, phaseCount]) : notch(strand, value, -1);
    if (difficulty(strand, easier) < difficulty(strand, value)) return [withValue(strand, easier)];
  }
  return [];
}

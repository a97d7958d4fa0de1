import { mixedChance } from "../chance";
import { DRAWS, drawnEnough } from "./draws";

/** A difference seen in one session (or one pair of days), with its weight. */
export interface WeighedDifference {
  readonly difference: number;
  readonly weight: number;
}

/** The exact test of differences that lie about nothing. */
export interface SignFlip {
  /** Differences taken in: those with a weight. */
  readonly n: number;
  /** Weighted mean difference. */
  readonly mean: number;
  /** Two-sided p. */
  readonly p: number;
}

/** Up to here every pattern of signs is gone through. */
export const EXACT_UP_TO = 16;
const TOLERANCE = 1e-12;

function exactP(terms: readonly number[], seen: number): number {
  const k = terms.length;
  // The last sign is held: flipping all of them gives the same size. Gray code, so that each pattern changes one sign.
  const patterns = 2 ** (k - 1);
  const signs = new Int8Array(k).fill(1);
  let sum = terms.reduce((all, one) => all + one, 0);
  let asMuch = Math.abs(sum) >= seen - TOLERANCE ? 1 : 0;
  for (let i = 1; i < patterns; i++) {
    let at = 0;
    while (((i >> at) & 1) === 0) at++;
    signs[at] = -(signs[at] as number);
    sum += 2 * (signs[at] as number) * (terms[at] as number);
    if (Math.abs(sum) >= seen - TOLERANCE) asMuch++;
  }
  return asMuch / patterns;
}

function drawnP(terms: readonly number[], seen: number): number {
  const chance = mixedChance(`signs:${terms.length}:${seen.toPrecision(12)}`);
  let asMuch = 0;
  let draws = 0;
  while (draws < DRAWS) {
    if (drawnEnough(draws, asMuch)) break;
    let sum = 0;
    let bits = 0;
    let left = 0;
    for (const term of terms) {
      if (left === 0) {
        bits = Math.floor(chance() * 0x40000000);
        left = 30;
      }
      sum += bits & 1 ? term : -term;
      bits >>= 1;
      left--;
    }
    if (Math.abs(sum) >= seen - TOLERANCE) asMuch++;
    draws++;
  }
  // The pattern that was seen is one of them, so p is never 0.
  return (asMuch + 1) / (draws + 1);
}

/**
 * Whether weighted differences lie about nothing: the share of all patterns of
 * signs whose weighted mean is as large as the one seen (the randomisation
 * test of Fisher 1935, The Design of Experiments §21, from memory). Exact over
 * all 2ᵏ patterns up to 16 differences; above that 20 000 drawn ones, the same
 * for the same differences.
 * Cost: 2ᵏ⁻¹ sums to 16, 20 000·k above, a fortieth of that where nothing shows.
 * @returns null without a difference that has a weight.
 * @example signFlip([{ difference: 1, weight: 1 }, { difference: 1, weight: 1 }])?.p // 0.5
 */
export function signFlip(differences: readonly WeighedDifference[]): SignFlip | null {
  const held = differences.filter(({ weight }) => weight > 0);
  if (held.length === 0) return null;
  const all = held.reduce((sum, { weight }) => sum + weight, 0);
  const terms = held.map(({ difference, weight }) => (difference * weight) / all);
  const mean = terms.reduce((sum, term) => sum + term, 0);
  const p = held.length <= EXACT_UP_TO ? exactP(terms, Math.abs(mean)) : drawnP(terms, Math.abs(mean));
  return { n: held.length, mean, p };
}

import type { Chance } from "../chance";

/** Where the bar stands for the next answer, from the last values of a numeric strand. */
export interface PercentileBar {
  /** How many of the last values were looked at. */
  readonly used: number;
  /** The rank asked for, counted from the easiest; it may lie between two ranks. */
  readonly rank: number;
  /** One rank, or the two it lies between, with the weight of each. */
  readonly parts: readonly BarPart[];
}

/** One rank with its weight. */
export interface BarPart {
  readonly rank: number;
  readonly weight: number;
  /** The value to be beaten; null for rank 0, which lets every answer through, and for the rank past the last, which lets none. */
  readonly criterion: number | null;
  /** Chance with which an answer equal to the criterion is reinforced. */
  readonly onEqual: number;
}

/** Defaults of the percentile schedule (settings). */
export const PERCENTILE_DEFAULTS = { lookBack: 10, wantedShare: 0.6 } as const;

const RANK_TOLERANCE = 1e-9;

/**
 * The next criterion of a percentile schedule: reinforce an answer that beats
 * the k-th smallest of the last m values, k = (m + 1)(1 − w) (Platt 1973;
 * Galbicka 1994). Where k is not whole the two neighbouring ranks are mixed so
 * that the expected share is w exactly. With t equal values in ranks a…b and
 * the bar at rank r, an equal answer is reinforced with chance
 * (b − r + 1)/(t + 1). On exchangeable values the long-run share is then w.
 * Before the first value every answer is reinforced.
 * @param values oldest first; refused trials hold no value and are not in it.
 * @param lookBack how many of the last values are looked at, 1 or more; fewer are used where there are fewer.
 * @param wantedShare share to be reinforced, from 0 to 1.
 * @param harder whether more or less of the strand is harder.
 * @throws RangeError where a number is out of range or a value is not finite.
 * @example percentileBar([0, 0], 10, 0.6, "more") // { used: 2, … }
 */
export function percentileBar(values: readonly number[], lookBack: number, wantedShare: number, harder: "more" | "less"): PercentileBar {
  if (!Number.isInteger(lookBack) || lookBack < 1) throw new RangeError("percentileBar: lookBack must be a whole number from 1");
  if (!(wantedShare >= 0 && wantedShare <= 1)) throw new RangeError("percentileBar: wantedShare must be from 0 to 1");
  if (values.some((value) => !Number.isFinite(value))) throw new RangeError("percentileBar: every value must be a number");
  const sign = harder === "more" ? 1 : -1;
  const sorted = values
    .slice(-lookBack)
    .map((value) => sign * value)
    .sort((a, b) => a - b);
  const used = sorted.length;
  // With nothing to go by, what the horse gives is the beginning: it all counts.
  if (used === 0) return { used, rank: 0, parts: [{ rank: 0, weight: 1, criterion: null, onEqual: 1 }] };
  const exact = (used + 1) * (1 - wantedShare);
  const rank = Math.abs(exact - Math.round(exact)) < RANK_TOLERANCE ? Math.round(exact) : exact;
  const low = Math.floor(rank);
  const weights: [number, number][] =
    rank === low
      ? [[low, 1]]
      : [
          [low, 1 - (rank - low)],
          [low + 1, rank - low],
        ];
  const part = ([r, weight]: [number, number]): BarPart => {
    if (r <= 0) return { rank: r, weight, criterion: null, onEqual: 1 };
    if (r > used) return { rank: r, weight, criterion: null, onEqual: 0 };
    const bar = sorted[r - 1] as number;
    const last = sorted.lastIndexOf(bar) + 1;
    const equal = last - sorted.indexOf(bar);
    // −0 would read as a value of its own.
    return { rank: r, weight, criterion: sign * bar + 0, onEqual: (last - r + 1) / (equal + 1) };
  };
  return { used, rank, parts: weights.map(part) };
}

/** The bar of one answer, once chance has chosen between two ranks and decided a tie: what the trainer is told before the ask. */
export interface DrawnBar {
  /** The value to beat; null where every answer or none earns it. */
  readonly criterion: number | null;
  /** Whether an answer equal to it earns the reinforcer. */
  readonly equalCounts: boolean;
  /** Where there is no value to beat: whether every answer earns it, or none. */
  readonly letsAll: boolean;
}

/**
 * Draws the bar of the next answer, so that it can be said before the ask and kept to.
 * @example drawBar(bar, chance) // { equalCounts: true, letsAll: false, … }
 */
export function drawBar(bar: PercentileBar, chance: Chance): DrawnBar {
  const [first, second] = bar.parts;
  const part = second !== undefined && chance() >= (first?.weight ?? 0) ? second : first;
  if (part === undefined || part.criterion === null)
    return { criterion: null, equalCounts: false, letsAll: part !== undefined && part.rank <= 0 };
  return { criterion: part.criterion, equalCounts: chance() < part.onEqual, letsAll: false };
}

/** Whether an answer earns its reinforcer under a drawn bar. @example beatsDrawnBar({ … }, 3, "more") // true */
export function beatsDrawnBar({ criterion, equalCounts, letsAll }: DrawnBar, value: number, harder: "more" | "less"): boolean {
  if (criterion === null) return letsAll;
  if (value === criterion) return equalCounts;
  return harder === "more" ? value > criterion : value < criterion;
}

/**
 * Whether an answer earns its reinforcer under a bar; chance decides between the two ranks and on a tie.
 * @example beatsBar(bar, 1, "more", chance) // true
 */
export function beatsBar(bar: PercentileBar, value: number, harder: "more" | "less", chance: Chance): boolean {
  return beatsDrawnBar(drawBar(bar, chance), value, harder);
}

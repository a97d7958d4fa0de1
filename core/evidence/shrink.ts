import type { Interval } from "./shares";
import { student975 } from "./student";

/** Values of one kind. */
export interface ShrunkGroup {
  readonly key: string;
  readonly n: number;
  /** Mean of its own values. */
  readonly own: number;
  /** Drawn towards the mean of all, the more the fewer its values. */
  readonly shrunk: number;
  /** 95 % of the shrunk mean. */
  readonly interval: Interval;
  /** How much of its own mean counts, 0 to 1. */
  readonly weight: number;
}

/** Means of kinds drawn towards the mean of all. */
export interface Shrunk {
  readonly mean: number;
  readonly groups: readonly ShrunkGroup[];
  /** Variance within a kind and between kinds. */
  readonly within: number;
  readonly between: number;
}

/** Fewest values from which a spread within kinds can be told. */
export const FEWEST_TO_SHRINK = 4;

/**
 * Empirical Bayes over kinds (Morris 1983; variance between kinds by DerSimonian
 * & Laird 1986; both from memory): values of a kind lie about its mean with one
 * common spread, the means of kinds about the mean of all. Each kind's mean is
 * drawn towards the mean of all by within/nᵢ against between. The intervals take
 * the spreads as known, so they are somewhat narrow where there is little.
 * @returns null under four values, or where no kind holds two.
 * @example shrinkByKind([{ key: "stay", value: 1 }, …])?.groups[0].shrunk
 */
export function shrinkByKind(values: readonly { readonly key: string; readonly value: number }[]): Shrunk | null {
  const kinds = new Map<string, number[]>();
  for (const { key, value } of values) {
    const list = kinds.get(key);
    if (list === undefined) kinds.set(key, [value]);
    else list.push(value);
  }
  const groups = [...kinds].map(([key, list]) => ({
    key,
    n: list.length,
    own: list.reduce((sum, one) => sum + one, 0) / list.length,
    list,
  }));
  const degrees = values.length - groups.length;
  if (values.length < FEWEST_TO_SHRINK || degrees < 1) return null;
  const within = groups.reduce((sum, { own, list }) => sum + list.reduce((so, one) => so + (one - own) ** 2, 0), 0) / degrees;
  const plain = values.reduce((sum, { value }) => sum + value, 0) / values.length;
  // DerSimonian & Laird, with weights nᵢ over the common spread.
  const spread = groups.reduce((sum, { n, own }) => sum + n * (own - plain) ** 2, 0);
  const squares = groups.reduce((sum, { n }) => sum + n * n, 0);
  const scale = values.length - squares / values.length;
  const between = scale <= 0 ? 0 : Math.max(0, (spread - (groups.length - 1) * within) / scale);
  const weights = groups.map(({ n }) => (between + within / n === 0 ? 1 : 1 / (between + within / n)));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = groups.reduce((sum, { own }, i) => sum + own * (weights[i] as number), 0) / all;
  const t = student975(degrees);
  return {
    mean,
    within,
    between,
    groups: groups.map(({ key, n, own }) => {
      const weight = between + within / n === 0 ? 1 : between / (between + within / n);
      const shrunk = weight * own + (1 - weight) * mean;
      // Its own spread where it counts, and how surely the mean of all is known where that does.
      const error = Math.sqrt((weight * within) / n + (1 - weight) ** 2 / all);
      return { key, n, own, shrunk, weight, interval: [shrunk - t * error, shrunk + t * error] as const };
    }),
  };
}

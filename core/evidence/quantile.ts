/**
 * Quantile of type 7 (linear between order statistics; Hyndman & Fan 1996).
 * `sorted` must be in rising order.
 * @returns null for an empty list.
 * @throws RangeError where share is outside [0, 1].
 * @example quantileOfSorted(sorted, 0.5) // 3
 */
export function quantileOfSorted(sorted: ArrayLike<number>, share: number): number | null {
  if (!(share >= 0 && share <= 1)) throw new RangeError("quantileOfSorted: share must be from 0 to 1");
  if (sorted.length === 0) return null;
  const place = (sorted.length - 1) * share;
  const below = Math.floor(place);
  const low = sorted[below] as number;
  const high = sorted[Math.min(below + 1, sorted.length - 1)] as number;
  return low + (place - below) * (high - low);
}

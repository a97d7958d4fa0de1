/** Turning further off than this is not said, in good answers. */
const FAR = 6;

/**
 * In how many more good answers a session usually turns that has had so many,
 * for one quiet line at the horse: from the answer by which a quarter of those
 * still good have turned to the one by which half have.
 * @param steps after so many good answers, the share of sessions that had not turned yet.
 * @returns null where that is not shown, or more than six answers off.
 * @example turnsWithin([[5, 0.75], [6, 0.5]], 4) // [1, 2]
 */
export function turnsWithin(
  steps: readonly (readonly [good: number, share: number, ...rest: unknown[]])[],
  good: number,
): readonly [number, number] | null {
  const left = steps.findLast(([at]) => at <= good)?.[1] ?? 1;
  if (left <= 0) return null;
  const at = (share: number) => steps.find(([, still]) => still <= left * (1 - share) + 1e-12)?.[0] ?? null;
  const [quarter, half] = [at(0.25), at(0.5)];
  if (quarter === null || half === null || half - good > FAR) return null;
  return [Math.max(1, quarter - good), Math.max(1, half - good)];
}

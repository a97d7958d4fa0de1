/** Seconds of work by ladder, in the order they were first worked. @example secondsByLadder(blocks) // a map of 0 */
export function secondsByLadder(blocks: readonly { readonly ladder: string | null; readonly seconds: number }[]): Map<string, number> {
  const sums = new Map<string, number>();
  for (const { ladder, seconds } of blocks) if (ladder !== null) sums.set(ladder, (sums.get(ladder) ?? 0) + seconds);
  return sums;
}

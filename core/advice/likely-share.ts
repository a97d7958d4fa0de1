import { betaQuantile } from "../evidence";

/** Trials that say something of how it goes now; older ones were another horse. */
const LOOKED_AT = 20;

/**
 * Where the true share likely lies once a rule is met. The trials a rule looks
 * at are picked for having gone well, so all of the last twenty on the rung go
 * in, with a flat prior: the middle four fifths of it, in tenths.
 * @param met of the last trials on the rung, oldest first: whether each was met.
 * @example likelyShareWords([true, true, false]) // "its true share is likelier 4 to 9 in 10"
 */
export function likelyShareWords(met: readonly boolean[]): string {
  const last = met.slice(-LOOKED_AT);
  const good = last.filter(Boolean).length;
  const low = Math.floor(10 * betaQuantile(0.1, good + 1, last.length - good + 1) + 0.5);
  const high = Math.max(low + 1, Math.floor(10 * betaQuantile(0.9, good + 1, last.length - good + 1) + 0.5));
  return `its true share is likelier ${low} to ${Math.min(10, high)} in 10`;
}

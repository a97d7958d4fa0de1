import { NOT_MET_SHARES } from "../learner";
import type { MasteryRule } from "../mastery";
import type { YardSettings } from "../settings";

/** Failures running, or among the last so many, that call for easing; and refusals among the last so many that do. */
export interface GoBackThresholds {
  readonly run: number;
  readonly misses: number;
  readonly window: number;
  /** Left out where refusals count as failures and no more. */
  readonly refusals?: number;
  readonly refusalWindow?: number;
}

/** Trials of the block that Ease is checked over. */
export const GO_BACK_BLOCK_TRIALS = 10;

/** What an answer that is not met is, in shares of those; the rest are tries, which call for nothing. */
export interface FailureMix {
  readonly miss: number;
  readonly refused: number;
}

/** Every answer that is not met fails, one in seven of them refused: the most an easing rule can hear. */
export const ALL_FAIL: FailureMix = { miss: 0.85, refused: 0.15 };
/** As the simulated learner fails (core/learner). */
export const AS_THE_LEARNER: FailureMix = NOT_MET_SHARES;

/**
 * Exact chance that Ease comes at least once in a block, for a horse that is
 * met with chance p on each trial and otherwise fails as the mix says. Dynamic
 * programming over the failures of the last trials and the refusals of the
 * last ones as bits, and the failures running.
 * Cost: trials × 2^window × 2^refusalWindow × run at the most; states that cannot be reached cost nothing.
 * @param p chance of a met answer.
 * @throws RangeError where p is outside [0, 1] or a window is not a whole number from 1 to 12.
 * @example chanceOfGoBack({ run: 3, misses: 4, window: 7, refusals: 2, refusalWindow: 5 }, 0.8)
 */
export function chanceOfGoBack(thresholds: GoBackThresholds, p: number, trials = GO_BACK_BLOCK_TRIALS, mix: FailureMix = ALL_FAIL): number {
  const { run, misses, window, refusals = Number.POSITIVE_INFINITY, refusalWindow = 1 } = thresholds;
  if (!(p >= 0 && p <= 1)) throw new RangeError("chanceOfGoBack: p must lie from 0 to 1");
  for (const one of [window, refusalWindow])
    if (!Number.isInteger(one) || one < 1 || one > 12)
      throw new RangeError("chanceOfGoBack: the window must be a whole number from 1 to 12");
  const bitsOf = (n: number) => {
    let count = 0;
    for (let left = n; left > 0; left &= left - 1) count++;
    return count;
  };
  const failedMask = 2 ** window - 1;
  const refusedMask = 2 ** refusalWindow - 1;
  const outcomes = [
    { chance: p + (1 - p) * (1 - mix.miss - mix.refused), failed: 0, refused: 0 },
    { chance: (1 - p) * mix.miss, failed: 1, refused: 0 },
    { chance: (1 - p) * mix.refused, failed: 1, refused: 1 },
  ].filter(({ chance }) => chance > 0);
  // No Ease yet: failures of the last trials, refusals of the last ones, failures running.
  let alive = new Map<number, number>([[0, 1]]);
  let eased = 0;
  for (let trial = 0; trial < trials; trial++) {
    const next = new Map<number, number>();
    for (const [state, chance] of alive) {
      const running = state % (run + 1);
      const rest = Math.floor(state / (run + 1));
      const refused = rest % (refusedMask + 1);
      const failed = Math.floor(rest / (refusedMask + 1));
      for (const outcome of outcomes) {
        const failedNow = ((failed << 1) & failedMask) | outcome.failed;
        const refusedNow = ((refused << 1) & refusedMask) | outcome.refused;
        const runningNow = outcome.failed === 1 ? running + 1 : 0;
        const own = chance * outcome.chance;
        if (runningNow >= run || bitsOf(failedNow) >= misses || bitsOf(refusedNow) >= refusals) eased += own;
        else {
          const key = (failedNow * (refusedMask + 1) + refusedNow) * (run + 1) + runningNow;
          next.set(key, (next.get(key) ?? 0) + own);
        }
      }
    }
    alive = next;
  }
  return eased;
}

/** The success share a rule of moving on asks of a horse, at least; null where it sets none. @example shareAskedFor(rule) // 0.9 */
export function shareAskedFor(rule: MasteryRule): number | null {
  switch (rule.kind) {
    case "share":
      return rule.met / rule.of;
    case "posterior":
      return rule.target;
    default:
      return null;
  }
}

const known = new Map<string, GoBackThresholds>();

/**
 * The thresholds for a rule: those of the settings, raised one by one until a
 * horse true to the rule hears Ease in no more blocks of ten than the settings
 * allow. Rules that ask for 0.8 or more, or set no share, keep the settings' own.
 * Refusals are not raised: two of five are much, whatever the rule.
 * @example goBackThresholds({ kind: "run", length: 3 }, settings) // { run: 3, misses: 4, window: 7, … }
 */
export function goBackThresholds(rule: MasteryRule, settings: YardSettings): GoBackThresholds {
  const p = Math.min(0.8, shareAskedFor(rule) ?? 0.8);
  const { easeRun, easeMisses, easeWindow, easeRefusals, easeRefusalWindow, easeMostShare } = settings;
  const key = [p, easeRun, easeMisses, easeWindow, easeRefusals, easeRefusalWindow, easeMostShare].join("|");
  const have = known.get(key);
  if (have !== undefined) return have;
  const byFailures = (one: GoBackThresholds, at: number) => chanceOfGoBack(one, at, GO_BACK_BLOCK_TRIALS, { miss: 1, refused: 0 });
  let thresholds: GoBackThresholds = {
    run: easeRun,
    misses: easeMisses,
    window: easeWindow,
    refusals: easeRefusals,
    refusalWindow: easeRefusalWindow,
  };
  // Who sets lower thresholds for a horse at 0.8 is taken at their word; a laxer rule must not be cried at more than that.
  const most = Math.max(easeMostShare, byFailures(thresholds, 0.8));
  while (byFailures(thresholds, p) > most && thresholds.run <= GO_BACK_BLOCK_TRIALS) {
    const { run, misses, window } = thresholds;
    const byRun = { ...thresholds, run: run + 1 };
    const byMisses = { ...thresholds, misses: Math.min(window + 1, misses + 1) };
    thresholds = misses > window || byFailures(byRun, p) <= byFailures(byMisses, p) ? byRun : byMisses;
  }
  known.set(key, thresholds);
  return thresholds;
}

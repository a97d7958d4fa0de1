import type { MasteryRule } from "../../mastery";
import type { WordSettings } from "./settings";

/** Failures running, or among the last so many, that call for easing. */
export interface EaseThresholds {
  readonly run: number;
  readonly misses: number;
  readonly window: number;
}

/** Trials of the block that Ease is checked over. */
export const EASE_BLOCK_TRIALS = 10;

/**
 * Exact chance that Ease comes at least once in a block, for a horse that
 * succeeds with chance p on each trial and fails otherwise (tries would only
 * make it come less often). Dynamic programming over the last `window` trials
 * as bits; the run reaches back as far as the block.
 * Cost: trials × 2^window × run.
 * @param window at most 12.
 */
export function chanceOfEase({ run, misses, window }: EaseThresholds, p: number, trials = EASE_BLOCK_TRIALS): number {
  if (!(p >= 0 && p <= 1)) throw new RangeError("chanceOfEase: p must lie from 0 to 1");
  if (!Number.isInteger(window) || window < 1 || window > 12)
    throw new RangeError("chanceOfEase: the window must be a whole number from 1 to 12");
  const states = 1 << window;
  const count = new Uint8Array(states);
  for (let bits = 1; bits < states; bits++) count[bits] = (count[bits >> 1] as number) + (bits & 1);
  // alive[bits * run + r]: no Ease yet, the last trials as bits (1 = failed), r failures running.
  let alive = new Float64Array(states * run);
  alive[0] = 1;
  let eased = 0;
  for (let trial = 0; trial < trials; trial++) {
    const next = new Float64Array(states * run);
    for (let at = 0; at < alive.length; at++) {
      const chance = alive[at] as number;
      if (chance === 0) continue;
      const bits = Math.floor(at / run);
      const running = at % run;
      const good = (bits << 1) & (states - 1);
      next[good * run] = (next[good * run] as number) + chance * p;
      const bad = good | 1;
      if (running + 1 >= run || (count[bad] as number) >= misses) eased += chance * (1 - p);
      else next[bad * run + running + 1] = (next[bad * run + running + 1] as number) + chance * (1 - p);
    }
    alive = next;
  }
  return eased;
}

/** The success share a rule of moving on asks of a horse, at least; null where it sets none. */
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

const known = new Map<string, EaseThresholds>();

/**
 * The thresholds for a rule: those of the settings, raised one by one until a
 * horse true to the rule hears Ease in no more blocks of ten than the settings
 * allow. Rules that ask for 0.8 or more, or set no share, keep the settings' own.
 */
export function easeThresholds(rule: MasteryRule, settings: WordSettings): EaseThresholds {
  const p = Math.min(0.8, shareAskedFor(rule) ?? 0.8);
  const { easeRun, easeMisses, easeWindow, easeMostShare } = settings;
  const key = [p, easeRun, easeMisses, easeWindow, easeMostShare].join("|");
  const have = known.get(key);
  if (have !== undefined) return have;
  let thresholds: EaseThresholds = { run: easeRun, misses: easeMisses, window: easeWindow };
  // Who sets lower thresholds for a horse at 0.8 is taken at their word; a laxer rule must not be cried at more than that.
  const most = Math.max(easeMostShare, chanceOfEase(thresholds, 0.8));
  while (chanceOfEase(thresholds, p) > most && thresholds.run < EASE_BLOCK_TRIALS) {
    const { run, misses, window } = thresholds;
    const byRun = { run: run + 1, misses, window };
    const byMisses = { run, misses: Math.min(window + 1, misses + 1), window };
    thresholds = misses > window || chanceOfEase(byRun, p) <= chanceOfEase(byMisses, p) ? byRun : byMisses;
  }
  known.set(key, thresholds);
  return thresholds;
}

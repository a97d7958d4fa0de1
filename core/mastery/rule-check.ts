import { chanceShareAtLeast } from "../evidence/shares";
import type { MasteryRule } from "./rule";

/** What a rule promises for a horse of one true success. */
export interface RuleCheckRow {
  readonly p: number;
  /** Chance to have passed by the last of the trials asked about. */
  readonly passWithin: number;
  /** Expected number of trials to the pass; null where it is infinite. */
  readonly meanTrials: number | null;
}

/** Windows larger than this have too many states to walk. */
export const LARGEST_WINDOW = 12;

/** The walk stops once the hazard has settled to this relative change; what follows is geometric. */
const SETTLED = 1e-13;
/** A survival below this adds nothing to a mean that is shown. */
const NOTHING_LEFT = 1e-14;
/**
 * Longest walk. Only `posterior` for a p within about 0.02 above its target is
 * not done by then: its mean, thousands of trials, takes the rest as geometric
 * and is then an approximation. The chance within N trials is exact always.
 */
const MOST_STEPS = 6000;

/**
 * Follows the chance of not having passed yet, trial by trial. `step` moves the
 * walk on by one trial and gives the chance that passes at it.
 * Once the hazard no longer changes, the rest is geometric and summed in closed form.
 */
function follow(within: number, settlesAfter: number, step: () => number): { passWithin: number; meanTrials: number } {
  let left = 1;
  let mean = 0;
  let passWithin = 0;
  let hazardBefore = -1;
  let steady = 0;
  for (let trial = 1; trial <= MOST_STEPS; trial++) {
    mean += left;
    const passed = step();
    const hazard = left > 0 ? passed / left : 1;
    left = Math.max(0, left - passed);
    if (trial <= within) passWithin = 1 - left;
    steady = trial > settlesAfter && Math.abs(hazard - hazardBefore) <= SETTLED * hazard ? steady + 1 : 0;
    hazardBefore = hazard;
    if (left <= NOTHING_LEFT) return { passWithin: trial < within ? 1 : passWithin, meanTrials: mean };
    if (steady >= 3 && hazard > 0) {
      if (trial < within) passWithin = 1 - left * Math.exp((within - trial) * Math.log1p(-hazard));
      return { passWithin, meanTrials: mean + left / hazard };
    }
  }
  return { passWithin, meanTrials: hazardBefore > 0 ? mean + left / hazardBefore : Number.POSITIVE_INFINITY };
}

const bits = (word: number) => {
  let count = 0;
  for (let w = word; w > 0; w &= w - 1) count++;
  return count;
};

/** Moving window: the state is the last outcomes as bits; it grows until the window is full. */
function movingShare(met: number, of: number, p: number, within: number) {
  const size = 1 << of;
  const mask = size - 1;
  const failing = new Uint8Array(size);
  for (let word = 0; word < size; word++) failing[word] = bits(word) < met ? 1 : 0;
  let now = new Float64Array(size);
  let next = new Float64Array(size);
  now[0] = 1;
  let trials = 0;
  return follow(within, 4 * of, () => {
    trials++;
    next.fill(0);
    let passed = 0;
    // Before the window is full no word is longer than the trials so far.
    const top = trials > of ? size : 1 << (trials - 1);
    for (let word = 0; word < top; word++) {
      const here = now[word] as number;
      if (here === 0) continue;
      const miss = (word << 1) & mask;
      const hit = miss | 1;
      if (trials >= of && failing[hit] === 0) passed += here * p;
      else next[hit] = (next[hit] as number) + here * p;
      if (trials >= of && failing[miss] === 0) passed += here * (1 - p);
      else next[miss] = (next[miss] as number) + here * (1 - p);
    }
    [now, next] = [next, now];
    return passed;
  });
}

/** Chance of at least `met` of `of`. */
function atLeast(met: number, of: number, p: number): number {
  let chance = 0;
  let choose = 1;
  for (let k = 0; k <= of; k++) {
    if (k > 0) choose = (choose * (of - k + 1)) / k;
    if (k >= met) chance += choose * p ** k * (1 - p) ** (of - k);
  }
  return Math.min(1, chance);
}

/** All trials so far: the walk runs over how many were met, in the band that still holds any chance. */
function posterior(rule: Extract<MasteryRule, { kind: "posterior" }>, p: number, within: number) {
  const { target, confidence, least } = rule;
  let band = new Float64Array([1]);
  let lowest = 0;
  let trials = 0;
  let bar = 0;
  return follow(within, Number.POSITIVE_INFINITY, () => {
    trials++;
    const grown = new Float64Array(band.length + 1);
    for (let i = 0; i < band.length; i++) {
      const here = band[i] as number;
      grown[i] = (grown[i] as number) + here * (1 - p);
      grown[i + 1] = (grown[i + 1] as number) + here * p;
    }
    let passed = 0;
    let top = grown.length;
    if (trials >= least) {
      // The fewest met that pass only ever rise with the trials.
      while (bar <= trials && chanceShareAtLeast(target, bar, trials) < confidence) bar++;
      while (top > 0 && lowest + top - 1 >= bar) passed += grown[--top] as number;
    }
    let bottom = 0;
    while (bottom < top && (grown[bottom] as number) < 1e-20) bottom++;
    lowest += bottom;
    band = grown.slice(bottom, top);
    return passed;
  });
}

/** Trials of a walk that never settles are followed only where the mean is finite. */
function posteriorWithin(rule: Extract<MasteryRule, { kind: "posterior" }>, p: number, within: number): number {
  let passed = 0;
  let alive = new Float64Array([1]);
  let bar = 0;
  for (let trial = 1; trial <= within; trial++) {
    const grown = new Float64Array(alive.length + 1);
    alive.forEach((here, i) => {
      grown[i] = (grown[i] as number) + here * (1 - p);
      grown[i + 1] = (grown[i + 1] as number) + here * p;
    });
    if (trial >= rule.least) {
      while (bar <= trial && chanceShareAtLeast(rule.target, bar, trial) < rule.confidence) bar++;
      for (let met = bar; met <= trial; met++) {
        passed += grown[met] ?? 0;
        if (met < grown.length) grown[met] = 0;
      }
    }
    alive = grown;
  }
  return passed;
}

function checkOne(rule: MasteryRule, p: number, within: number): RuleCheckRow {
  switch (rule.kind) {
    case "share": {
      if (rule.window === "block") {
        const block = atLeast(rule.met, rule.of, p);
        const passWithin = block === 0 ? 0 : -Math.expm1(Math.floor(within / rule.of) * Math.log1p(-block));
        return { p, passWithin, meanTrials: block === 0 ? null : rule.of / block };
      }
      if (p === 0) return { p, passWithin: 0, meanTrials: null };
      const found = movingShare(rule.met, rule.of, p, within);
      return { p, passWithin: found.passWithin, meanTrials: Number.isFinite(found.meanTrials) ? found.meanTrials : null };
    }
    case "run": {
      if (p === 0) return { p, passWithin: 0, meanTrials: null };
      const { length } = rule;
      let runs = new Float64Array(length);
      runs[0] = 1;
      let passed = 0;
      for (let trial = 1; trial <= within; trial++) {
        const next = new Float64Array(length);
        for (let r = 0; r < length; r++) {
          const here = runs[r] as number;
          next[0] = (next[0] as number) + here * (1 - p);
          if (r + 1 === length) passed += here * p;
          else next[r + 1] = here * p;
        }
        runs = next;
      }
      // Feller 1968: (1 − pᵏ)/(pᵏ(1 − p)), which is k where every trial is met.
      return { p, passWithin: passed, meanTrials: p === 1 ? length : (1 - p ** length) / (p ** length * (1 - p)) };
    }
    case "posterior": {
      const passWithin = posteriorWithin(rule, p, within);
      // At or below the target the chance is kept from ever rising for good: the mean is infinite.
      if (p <= rule.target) return { p, passWithin, meanTrials: null };
      const { meanTrials } = posterior(rule, p, within);
      return { p, passWithin, meanTrials: Number.isFinite(meanTrials) ? meanTrials : null };
    }
    case "first-clean":
      return {
        p,
        passWithin: p === 0 ? 0 : p === 1 ? Number(within >= 1) : -Math.expm1(within * Math.log1p(-p)),
        meanTrials: p === 0 ? null : 1 / p,
      };
  }
}

/**
 * Exact chance that a horse of true success p passes a rule within so many
 * trials, and the expected number of trials, by following every state of the
 * rule; nothing is simulated. Under `first-clean` p is the chance of a clean one.
 * Cost: 2^window states a trial for a moving share; trials × met for `posterior`.
 * @param within a whole number of trials, 0 or more.
 * @throws RangeError where a p is outside [0, 1], within is not whole, or a window is over {@link LARGEST_WINDOW}.
 */
export function ruleCheck(rule: MasteryRule, ps: readonly number[], within: number): RuleCheckRow[] {
  if (!Number.isInteger(within) || within < 0) throw new RangeError("ruleCheck: within must be a whole number, 0 or more");
  if (rule.kind === "share" && (rule.of > LARGEST_WINDOW || rule.of < 1 || rule.met < 1 || rule.met > rule.of))
    throw new RangeError(`ruleCheck: a share of 1 to ${LARGEST_WINDOW} trials is needed`);
  if (rule.kind === "run" && !(Number.isInteger(rule.length) && rule.length >= 1))
    throw new RangeError("ruleCheck: a run of 1 or more is needed");
  return ps.map((p) => {
    if (!(p >= 0 && p <= 1)) throw new RangeError("ruleCheck: every p must be from 0 to 1");
    return checkOne(rule, p, within);
  });
}

/** A chance in whole percent that never says all or nothing where it is not. */
function chanceWords(chance: number): string {
  if (chance > 0.995 && chance < 1 - 1e-12) return "over 99 %";
  if (chance > 1e-12 && chance < 0.005) return "under 1 %";
  return `${Math.round(chance * 100)} %`;
}

/** The check in a trainer's words. */
export function ruleCheckSentence({ p, passWithin, meanTrials }: RuleCheckRow, within: number): string {
  const share = Math.round(p * 100) / 10;
  const mean =
    meanTrials === null
      ? "and may never"
      : meanTrials > 10_000
        ? "and on average after more than 10 000"
        : `and on average after ${Math.round(meanTrials)}`;
  return `A horse that gets it ${share} times in 10 passes this rule within ${within} tries ${chanceWords(passWithin)} of the time, ${mean}.`;
}

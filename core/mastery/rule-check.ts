import { chanceShareAtLeast } from "../evidence/shares";
import { daysWanted, type MasteryRule } from "./rule";

/** What a rule promises for a horse of one true success. */
export interface RuleCheckRow {
  readonly p: number;
  /** Chance to have passed by the last of the trials asked about. */
  readonly passWithin: number;
  /** Expected number of trials to the pass; null where it is infinite. */
  readonly meanTrials: number | null;
}

/** Asks of a day where nobody says how many. */
export const USUAL_ASKS_A_DAY = 10;

/** Windows larger than this have too many states to walk. */
export const LARGEST_WINDOW = 12;

/** The walk stops once the hazard has settled to this relative change; what follows is geometric. */
const SETTLED = 1e-11;
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
 * walk on by one trial and gives the chance that passes at it and the chance
 * still left, each added up by itself: taking one from the other would lose
 * the small ones. Once the hazard no longer changes, the rest is geometric and
 * summed in closed form.
 */
function follow(
  within: number,
  settlesAfter: number,
  step: () => { passed: number; left: number },
): { passWithin: number; meanTrials: number } {
  let left = 1;
  let mean = 0;
  let passWithin = 0;
  let hazardBefore = -1;
  let steady = 0;
  for (let trial = 1; trial <= MOST_STEPS; trial++) {
    mean += left;
    const before = left;
    const after = step();
    left = after.left;
    const hazard = before > 0 ? after.passed / before : 1;
    if (trial <= within) passWithin += after.passed;
    steady = trial > settlesAfter && Math.abs(hazard - hazardBefore) <= SETTLED * hazard ? steady + 1 : 0;
    hazardBefore = hazard;
    if (left <= NOTHING_LEFT) break;
    if (steady >= 3 && hazard > 0) {
      if (trial < within) passWithin += left * -Math.expm1((within - trial) * Math.log1p(-hazard));
      return { passWithin: Math.min(1, passWithin), meanTrials: mean + left / hazard };
    }
  }
  if (left <= NOTHING_LEFT) return { passWithin: Math.min(1, passWithin), meanTrials: mean };
  return { passWithin: Math.min(1, passWithin), meanTrials: hazardBefore > 0 ? mean + left / hazardBefore : Number.POSITIVE_INFINITY };
}

/**
 * The states of a moving share that have not passed. Only the latest misses
 * matter, as many as keep the window from passing: older ones can never decide
 * alone. A state is the window as bits of its misses, the latest trial lowest,
 * with older misses left out; that leaves at most C(12, 6) states once the
 * window is full.
 */
interface ShareStates {
  readonly start: number;
  /** Where a met trial and a missed one lead, by state. */
  readonly afterMet: Int32Array;
  readonly afterMiss: Int32Array;
  /** Whether a full window in this state has not passed. */
  readonly failing: Uint8Array;
  /** The states a full window can be in. */
  readonly full: Int32Array;
}

function latestMisses(word: number, most: number): number {
  let kept = 0;
  let rest = word;
  for (let n = 0; n < most && rest > 0; n++) {
    const lowest = rest & -rest;
    kept |= lowest;
    rest ^= lowest;
  }
  return kept;
}

function shareStates(met: number, of: number): ShareStates {
  const toFail = of - met + 1;
  const mask = (1 << of) - 1;
  const words = [0];
  const places = new Map([[0, 0]]);
  const afterMet: number[] = [];
  const afterMiss: number[] = [];
  const placeOf = (word: number) => {
    const known = places.get(word);
    if (known !== undefined) return known;
    places.set(word, words.length);
    words.push(word);
    return words.length - 1;
  };
  for (let i = 0; i < words.length; i++) {
    const word = (words[i] as number) << 1;
    afterMet.push(placeOf(latestMisses(word & mask, toFail)));
    afterMiss.push(placeOf(latestMisses((word | 1) & mask, toFail)));
  }
  const fails = words.map((word) => latestMisses(word, toFail - 1) !== word);
  return {
    start: 0,
    afterMet: Int32Array.from(afterMet),
    afterMiss: Int32Array.from(afterMiss),
    failing: Uint8Array.from(fails, Number),
    full: Int32Array.from([...fails.keys()].filter((i) => fails[i])),
  };
}

/** One trial on: the chance that passes at it and the chance still left. */
type Walk = () => { passed: number; left: number };

function shareWalk(states: ShareStates, of: number, p: number): Walk {
  const { afterMet, afterMiss, failing, full } = states;
  const every = Int32Array.from(afterMet.keys());
  let now = new Float64Array(afterMet.length);
  let next = new Float64Array(afterMet.length);
  now[states.start] = 1;
  let trials = 0;
  return () => {
    trials++;
    // Held in names of their own: reaching for the outer ones in the loop costs half its time.
    const from = now;
    const to = next;
    to.fill(0);
    let passed = 0;
    let left = 0;
    const judged = trials >= of;
    const walked = trials > of ? full : every;
    for (let n = 0; n < walked.length; n++) {
      const state = walked[n] as number;
      const met = (from[state] as number) * p;
      const missed = (from[state] as number) - met;
      const hit = afterMet[state] as number;
      const miss = afterMiss[state] as number;
      if (judged && failing[hit] === 0) passed += met;
      else {
        to[hit] = (to[hit] as number) + met;
        left += met;
      }
      if (judged && failing[miss] === 0) passed += missed;
      else {
        to[miss] = (to[miss] as number) + missed;
        left += missed;
      }
    }
    now = to;
    next = from;
    return { passed, left };
  };
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

/** The fewest met that pass after so many trials; it only ever rises with the trials. Shared by every p of a rule. */
function posteriorBars({ target, confidence, least }: Extract<MasteryRule, { kind: "posterior" }>): (trials: number) => number {
  const bars: number[] = [];
  let bar = 0;
  return (trials) => {
    for (let t = bars.length + 1; t <= trials; t++) {
      if (t < least) bars.push(Number.POSITIVE_INFINITY);
      else {
        while (bar <= t && chanceShareAtLeast(target, bar, t) < confidence) bar++;
        bars.push(bar);
      }
    }
    return bars[trials - 1] as number;
  };
}

/** All trials so far: the walk runs over how many were met, in the band that still holds any chance. */
function posteriorWalk(barAfter: (trials: number) => number, p: number): Walk {
  let band = new Float64Array([1]);
  let lowest = 0;
  let trials = 0;
  return () => {
    trials++;
    const grown = new Float64Array(band.length + 1);
    for (let i = 0; i < band.length; i++) {
      const here = band[i] as number;
      grown[i] = (grown[i] as number) + here * (1 - p);
      grown[i + 1] = (grown[i + 1] as number) + here * p;
    }
    let passed = 0;
    let top = grown.length;
    const bar = barAfter(trials);
    while (top > 0 && lowest + top - 1 >= bar) passed += grown[--top] as number;
    let bottom = 0;
    while (bottom < top && (grown[bottom] as number) < 1e-20) bottom++;
    lowest += bottom;
    band = grown.slice(bottom, top);
    let left = 0;
    for (const here of band) left += here;
    return { passed, left };
  };
}

function posterior(rule: Extract<MasteryRule, { kind: "posterior" }>, barAfter: (trials: number) => number, p: number, within: number) {
  const step = posteriorWalk(barAfter, p);
  // At or below the target the chance is kept from ever rising for good: the mean is infinite, and the walk would never settle.
  if (p > rule.target) return follow(within, Number.POSITIVE_INFINITY, step);
  return { passWithin: Math.min(1, chanceWithin(step, within)), meanTrials: Number.POSITIVE_INFINITY };
}

/** Runs by how long the present one is. */
function runWalk(length: number, p: number): Walk {
  let runs = new Float64Array(length);
  runs[0] = 1;
  return () => {
    let passed = 0;
    let left = 0;
    const next = new Float64Array(length);
    for (let r = 0; r < length; r++) {
      const here = runs[r] as number;
      next[0] = (next[0] as number) + here * (1 - p);
      if (r + 1 === length) passed += here * p;
      else next[r + 1] = here * p;
    }
    runs = next;
    for (const here of runs) left += here;
    return { passed, left };
  };
}

/** One trial passes by itself with chance p, of every so many only the last. */
function onceWalk(p: number, every = 1): Walk {
  let left = 1;
  let trial = 0;
  return () => {
    const passed = ++trial % every === 0 ? left * p : 0;
    left -= passed;
    return { passed, left };
  };
}

/** The walk of a rule on one day, for each p; what is the same for every p is worked out once. */
function walkOf(rule: MasteryRule): (p: number) => Walk {
  switch (rule.kind) {
    case "share": {
      if (rule.window === "block") return (p) => onceWalk(atLeast(rule.met, rule.of, p), rule.of);
      const states = shareStates(rule.met, rule.of);
      return (p) => shareWalk(states, rule.of, p);
    }
    case "run":
      return (p) => runWalk(rule.length, p);
    case "posterior": {
      const barAfter = posteriorBars(rule);
      return (p) => posteriorWalk(barAfter, p);
    }
    case "first-clean":
      return (p) => onceWalk(p);
  }
}

function chanceWithin(walk: Walk, within: number): number {
  let passed = 0;
  for (let trial = 1; trial <= within; trial++) passed += walk().passed;
  return passed;
}

/**
 * A rule that is to hold on several days: each day is a walk of its own that
 * ends where the rule holds or the day's asks are used up. Days are alike, so
 * the mean is days ÷ chance of a day × mean asks of a day (Wald 1944).
 */
function overDays(walk: Walk, days: number, asksADay: number, within: number): { passWithin: number; meanTrials: number } {
  const passedAt = Array.from({ length: asksADay }, () => walk().passed);
  const passes = passedAt.reduce((sum, chance) => sum + chance, 0);
  const asks = passedAt.reduce((sum, chance, i) => sum + chance * (i + 1), 0) + asksADay * Math.max(0, 1 - passes);
  const atStart = Array.from({ length: days }, () => new Float64Array(within + 1));
  (atStart[0] as Float64Array)[0] = 1;
  let passWithin = 0;
  for (let used = 0; used <= within; used++)
    for (let day = days - 1; day >= 0; day--) {
      const here = (atStart[day] as Float64Array)[used] as number;
      if (here === 0) continue;
      for (const [i, chance] of passedAt.entries()) {
        const then = used + i + 1;
        if (then > within) break;
        const next = atStart[day + 1];
        if (next === undefined) passWithin += here * chance;
        else next[then] = (next[then] as number) + here * chance;
      }
      const same = atStart[day] as Float64Array;
      if (used + asksADay <= within) same[used + asksADay] = (same[used + asksADay] as number) + here * Math.max(0, 1 - passes);
    }
  return { passWithin: Math.min(1, passWithin), meanTrials: passes > 0 ? (days / passes) * asks : Number.POSITIVE_INFINITY };
}

/** What is the same for every p of a rule is worked out once; what comes back answers for one p. */
function checker(rule: MasteryRule, within: number, asksADay: number): (p: number) => { passWithin: number; meanTrials: number } {
  const never = { passWithin: 0, meanTrials: Number.POSITIVE_INFINITY };
  const days = daysWanted(rule);
  if (days > 1) {
    const walk = walkOf(rule);
    return (p) => (p === 0 ? never : overDays(walk(p), days, asksADay, within));
  }
  switch (rule.kind) {
    case "share": {
      if (rule.window === "block")
        return (p) => {
          const block = atLeast(rule.met, rule.of, p);
          if (block === 0) return never;
          const blocks = Math.floor(within / rule.of);
          // Within less than a block nothing passes, also where every block does: 0 · log 0 is no number.
          return { passWithin: blocks === 0 ? 0 : -Math.expm1(blocks * Math.log1p(-block)), meanTrials: rule.of / block };
        };
      const states = shareStates(rule.met, rule.of);
      return (p) => (p === 0 ? never : follow(within, 4 * rule.of, shareWalk(states, rule.of, p)));
    }
    case "run": {
      const { length } = rule;
      // Feller 1968: (1 − pᵏ)/(pᵏ(1 − p)), which is k where every trial is met.
      return (p) =>
        p === 0
          ? never
          : {
              passWithin: chanceWithin(runWalk(length, p), within),
              meanTrials: p === 1 ? length : (1 - p ** length) / (p ** length * (1 - p)),
            };
    }
    case "posterior": {
      const barAfter = posteriorBars(rule);
      return (p) => posterior(rule, barAfter, p, within);
    }
    case "first-clean":
      return (p) =>
        p === 0 ? never : { passWithin: p === 1 ? Number(within >= 1) : -Math.expm1(within * Math.log1p(-p)), meanTrials: 1 / p };
  }
}

/**
 * Exact chance that a horse of true success p passes a rule within so many
 * trials, and the expected number of trials, by following every state of the
 * rule; nothing is simulated. Under `first-clean` p is the chance of a clean one.
 * Cost: at most C(window, misses to fail) states a trial for a moving share, 924
 * for windows to 12; trials × met for `posterior`.
 * A rule of several days costs within × days × asks a day besides.
 * @param within a whole number of trials, 0 or more.
 * @param asksADay how many asks a day has at most; only a rule that asks for different days looks at it.
 * @throws RangeError where a p is outside [0, 1], within is not whole, or a window is over {@link LARGEST_WINDOW}.
 * @example ruleCheck({ kind: "run", length: 1, days: 2 }, [0.5], 4, 1) // passWithin 11/16, meanTrials 4
 */
export function ruleCheck(rule: MasteryRule, ps: readonly number[], within: number, asksADay = USUAL_ASKS_A_DAY): RuleCheckRow[] {
  if (!Number.isInteger(asksADay) || asksADay < 1) throw new RangeError("ruleCheck: asksADay must be a whole number, 1 or more");
  if (!Number.isInteger(within) || within < 0) throw new RangeError("ruleCheck: within must be a whole number, 0 or more");
  if (rule.kind === "share" && (rule.of > LARGEST_WINDOW || rule.of < 1 || rule.met < 1 || rule.met > rule.of))
    throw new RangeError(`ruleCheck: a share of 1 to ${LARGEST_WINDOW} trials is needed`);
  if (rule.kind === "run" && !(Number.isInteger(rule.length) && rule.length >= 1))
    throw new RangeError("ruleCheck: a run of 1 or more is needed");
  const check = checker(rule, within, asksADay);
  return ps.map((p) => {
    if (!(p >= 0 && p <= 1)) throw new RangeError("ruleCheck: every p must be from 0 to 1");
    const { passWithin, meanTrials } = check(p);
    return { p, passWithin, meanTrials: Number.isFinite(meanTrials) ? meanTrials : null };
  });
}

/** A chance in whole percent that never says all or nothing where it is not. */
function chanceWords(chance: number): string {
  if (chance > 0.995 && chance < 1 - 1e-12) return "over 99 %";
  if (chance > 1e-12 && chance < 0.005) return "under 1 %";
  return `${Math.round(chance * 100)} %`;
}

/** The check in a trainer's words. @example ruleCheckSentence({ p: 1, passWithin: 1, meanTrials: 10 }, 20) */
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

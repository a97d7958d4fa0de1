import { chanceShareAtLeast } from "../evidence/shares";
import { numberWord, numberWordFirst } from "../words";
import { ANOTHER_DAY_MS, byDay } from "./days";
import { everMastered } from "./ever";
import { calmOnly, daysWanted, type MasteryProgress, type MasteryRule, type MasteryTrial } from "./rule";

const countMet = (trials: readonly MasteryTrial[]) => trials.reduce((sum, t) => sum + (t.met ? 1 : 0), 0);

/**
 * The fewest met in a row, from here, that would pass a moving share rule.
 * Old misses leave the window as new trials come in.
 */
function metStillNeeded(window: readonly MasteryTrial[], met: number, of: number): number {
  for (let more = 1; more <= of; more++) {
    const kept = window.slice(Math.max(0, window.length + more - of));
    if (kept.length + more >= of && countMet(kept) + more >= met) return more;
  }
  return of;
}

/** Where the right answers would bring it: to the end of the rule, or of one of its days. */
type Goal = "get you there" | "do for today";

/** What would pass the rule from here, in words. */
const stillNeeded = (more: number, goal: Goal) =>
  more === 1 ? `One more right would ${goal}.` : `${numberWordFirst(more)} more right in a row would ${goal}.`;

function shareProgress(rule: Extract<MasteryRule, { kind: "share" }>, trials: readonly MasteryTrial[], goal: Goal): MasteryProgress {
  const { met, of } = rule;
  if (rule.window === "moving") {
    const window = trials.slice(-of);
    const seen = countMet(window);
    const passed = window.length >= of && seen >= met;
    const more = passed ? 0 : metStillNeeded(window, met, of);
    return {
      passed,
      met: seen,
      of: window.length,
      level: window.length === 0 ? null : seen / window.length,
      needed: passed ? "" : stillNeeded(more, goal),
    };
  }
  // A block counts once it holds `of` trials; the latest full one decides, the running one is shown.
  let passed = false;
  let run: MasteryTrial[] = [];
  let block = "";
  for (const trial of trials) {
    if (trial.blockKey !== block || run.length === of) {
      block = trial.blockKey;
      run = [];
    }
    run.push(trial);
    if (run.length === of) passed = countMet(run) >= met;
  }
  const seen = countMet(run);
  const left = of - run.length;
  return {
    passed,
    met: seen,
    of: run.length,
    level: run.length === 0 ? null : seen / run.length,
    needed: passed
      ? ""
      : left > 0
        ? `You need ${numberWord(Math.max(0, met - seen))} more right in the next ${numberWord(left)} of this block.`
        : `Needs ${met} of ${of} in a block.`,
  };
}

/**
 * Where a rung stands under its rule. A rule that asks for different days holds
 * where its trials hold it on so many, the last day's among them.
 * `trials` are the rung's evidence, oldest first; see the evidence scope in session/.
 * @param nowWallMs the present, so that what was shown on an earlier day is not taken for today's; left out, the last trial's.
 * @example masteryProgress({ kind: "first-clean" }, []) // { passed: false, met: 0, of: 0, … }
 */
export function masteryProgress(rule: MasteryRule, trials: readonly MasteryTrial[], nowWallMs?: number): MasteryProgress {
  const wanted = daysWanted(rule);
  if (wanted < 2) return onOneDay(rule, trials);
  const days = byDay(calmOnly(trials));
  const before = days.slice(0, -1).filter((day) => everMastered({ ...rule, days: 1 }, day)).length;
  // One good day is not the end of a rule that wants more of them.
  const goal: Goal = before + 1 < wanted ? "do for today" : "get you there";
  const last = onOneDay(rule, days.at(-1) ?? [], goal);
  const shown = before + (last.passed ? 1 : 0);
  const counted = { shown, wanted };
  if (last.passed && shown >= wanted) return { ...last, days: counted };
  const own = byDay(trials).at(-1) ?? [];
  const unsaid = own.filter(({ met, soft }) => met && soft === undefined).length;
  const silent = unsaid === 0 ? "" : ` Calm not said on ${unsaid}, so not counted.`;
  const soFar = `${shown} of ${wanted} days so far.${silent}`;
  const lastMs = own.at(-1)?.wallMs;
  const today = nowWallMs === undefined || (lastMs !== undefined && nowWallMs - lastMs < ANOTHER_DAY_MS);
  if (last.passed && today)
    return { ...last, passed: false, needed: `Shown today, ${soFar} Again on another day.`, enoughToday: true, days: counted };
  // A new day begins with nothing shown on it.
  const fresh = today ? last : onOneDay(rule, [], shown + 1 < wanted ? "do for today" : "get you there");
  return { ...fresh, passed: false, needed: `${fresh.needed} ${soFar}`, days: counted };
}

/** The same by the trials given, whatever day they are of. */
function onOneDay(rule: MasteryRule, trials: readonly MasteryTrial[], goal: Goal = "get you there"): MasteryProgress {
  switch (rule.kind) {
    case "share":
      return shareProgress(rule, trials, goal);
    case "run": {
      let run = 0;
      for (let i = trials.length - 1; i >= 0 && run < rule.length && trials[i]?.met; i--) run++;
      const passed = run >= rule.length;
      const left = rule.length - run;
      return { passed, met: run, of: run, level: null, needed: passed ? "" : stillNeeded(left, goal) };
    }
    case "posterior": {
      const met = countMet(trials);
      const chance = trials.length === 0 ? null : chanceShareAtLeast(rule.target, met, trials.length);
      const passed = trials.length >= rule.least && chance !== null && chance >= rule.confidence;
      const needed = passed
        ? ""
        : trials.length < rule.least
          ? `Needs at least ${rule.least} trials.`
          : `The rule is ${Math.round((chance ?? 0) * 100)} % sure, ${Math.round(rule.confidence * 100)} % wanted.`;
      return { passed, met, of: trials.length, level: chance, needed };
    }
    case "first-clean": {
      const passed = trials.at(-1)?.clean ?? false;
      const met = countMet(trials);
      return { passed, met, of: trials.length, level: null, needed: passed ? "" : `One at the lightest cue, calm, would ${goal}.` };
    }
  }
}

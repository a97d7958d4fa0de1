import { tooManyFailures } from "../advice";
import type { Chance } from "../chance";
import { drawBar, type Outcome, percentileBar } from "../evidence";
import { type Learner, notMet } from "../learner";
import { type MasteryTrial, masteryProgress, progressByValues } from "../mastery";
import { MILLISECONDS_PER_DAY } from "../units";
import { type ClimbPlan, type ClimbResult, daysOf, movedBy } from "./climb";

/** What a bar that follows is played with: the rule is that of the top, where it ends. */
export interface BarPlan extends ClimbPlan {
  /** Answers looked back at, and the share of them that is to earn the reinforcer. */
  readonly lookBack: number;
  readonly wantedShare: number;
}

/** Rungs are halved so often when a value is looked for: to a thousandth of a rung. */
const HALVINGS = 14;

/** How far up an answer reaches: the hardest rung it would still have met; 0 where not the first. */
function reachOf(learner: Learner, rungs: number, better: number, draw: number): number {
  const meets = (rung: number) => draw < movedBy(learner.chanceOn(rung), better);
  if (!meets(1)) return 0;
  let [low, high] = [1, 2 * rungs];
  if (meets(high)) return high;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (meets(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * Lets a learner climb the same ladder by a bar that follows its own answers:
 * each answer reaches so far up, those past the percentile bar of the last ones
 * are reinforced. Where the median of the last ones is at the top the top is
 * worked as any rung, until its rule holds, so that both ways end on the same;
 * failures there lead back to the bar, which comes down by itself.
 * @example climbByBar(learner, plan, chance) // { reached: true, asks: 96, failures: 34, sessions: 3 }
 */
export function climbByBar(learner: Learner, plan: BarPlan, chance: Chance): ClimbResult {
  const { rungs, rule, ease, asksPerSession, daysBetween, mostAsks, lookBack, wantedShare, habits } = plan;
  const goal = { value: rungs, unit: "", harder: "more" } as const;
  const nextDay = daysOf(habits, chance);
  let values: number[] = [];
  /** Of the top, once it is worked; null below. */
  let top: MasteryTrial[] | null = null;
  let block: { readonly outcome: Outcome }[] = [];
  let asks = 0;
  let failures = 0;
  let sessions = 0;
  while (asks < mostAsks) {
    if (sessions > 0) learner.rest(daysBetween);
    sessions++;
    const better = nextDay();
    block = [];
    let running = 0;
    for (let today = 0; today < asksPerSession && asks < mostAsks; today++) {
      asks++;
      if (top !== null) {
        learner.goToRung(rungs);
        const met = chance() < movedBy(learner.chanceOfMet(), better(today));
        const outcome = met ? "met" : notMet(chance());
        if (!met) failures++;
        learner.take(met ? "success" : outcome === "try" ? "neither" : "failure");
        top.push({ met, clean: met, soft: met, blockKey: String(sessions), wallMs: sessions * daysBetween * MILLISECONDS_PER_DAY });
        block.push({ outcome });
        if (masteryProgress(rule, top).passed) return { reached: true, asks, failures, sessions };
        if (tooManyFailures(block, ease) !== null) {
          top = null;
          values = [];
        }
        continue;
      }
      const { criterion, equalCounts, letsAll } = drawBar(percentileBar(values, lookBack, wantedShare, "more"), chance);
      // What is asked is the bar itself: that is the rung the answer is taken on.
      learner.goToRung(Math.max(1, Math.min(rungs, criterion ?? 1)));
      const value = reachOf(learner, rungs, better(today), chance());
      values.push(value);
      const earns = criterion === null ? letsAll && value > 0 : value > criterion || (value === criterion && equalCounts && value > 0);
      const what = earns ? "met" : notMet(chance());
      if (!earns) failures++;
      running = what === "miss" || what === "refused" ? running + 1 : 0;
      learner.take(earns ? "success" : what === "try" ? "neither" : "failure");
      if (progressByValues(values, lookBack, goal).passed) {
        top = [];
        block = [];
      }
      if (habits !== undefined && running >= habits.stopsAfter) break;
    }
  }
  return { reached: false, asks, failures, sessions };
}

import type { Chance } from "../chance";
import type { Outcome } from "../evidence";
import { type Learner, notMet } from "../learner";
import { type MasteryRule, type MasteryTrial, masteryProgress } from "../mastery";
import { MILLISECONDS_PER_DAY } from "../units";
import { type EaseThresholds, tooManyFailures } from "../word";

/** A plan that is climbed. */
export interface ClimbPlan {
  readonly rungs: number;
  readonly rule: MasteryRule;
  readonly asksPerSession: number;
  readonly daysBetween: number;
  /** Failures that lead a rung back. */
  readonly ease: EaseThresholds;
  /** After so many asks it is given up. */
  readonly mostAsks: number;
}

/** How one horse got up. */
export interface ClimbResult {
  readonly reached: boolean;
  readonly asks: number;
  /** Asks that were not met. */
  readonly failures: number;
  readonly sessions: number;
}

/** Asks of a session that come easy (invented); after that each is less likely to be met, by so much. */
export const FRESH_ASKS = 40;
const TIRED_BY = 0.01;
const LEAST = 0.02;
const MOST = 0.97;

/**
 * Lets a learner climb a ladder by a rule: a rung up where it passes, a rung
 * back where the failures of its block say so, the evidence anew on each rung.
 * Everything met is reinforced. Where the rule wants another day the session ends.
 */
export function climb(learner: Learner, plan: ClimbPlan, chance: Chance): ClimbResult {
  const { rungs, rule, asksPerSession, daysBetween, mostAsks } = plan;
  let rung = 1;
  let asks = 0;
  let failures = 0;
  let sessions = 0;
  let evidence: MasteryTrial[] = [];
  let block: { readonly outcome: Outcome }[] = [];
  const go = (to: number) => {
    rung = to;
    learner.goToRung(to);
    evidence = [];
    block = [];
  };
  while (asks < mostAsks) {
    if (sessions > 0) learner.rest(daysBetween);
    sessions++;
    block = [];
    for (let today = 0; today < asksPerSession && asks < mostAsks; today++) {
      asks++;
      const tired = Math.max(0, today - FRESH_ASKS) * TIRED_BY;
      const met = chance() < Math.min(MOST, Math.max(LEAST, learner.chanceOfMet() - tired));
      const outcome = met ? "met" : notMet(chance());
      if (!met) failures++;
      learner.take(met ? "success" : outcome === "try" ? "neither" : "failure");
      block.push({ outcome });
      evidence.push({ met, clean: met, soft: met, blockKey: String(sessions), wallMs: sessions * daysBetween * MILLISECONDS_PER_DAY });
      const progress = masteryProgress(rule, evidence);
      if (progress.passed) {
        if (rung === rungs) return { reached: true, asks, failures, sessions };
        go(rung + 1);
      } else if (progress.enoughToday) break;
      else if (rung > 1 && tooManyFailures(block, plan.ease) !== null) go(rung - 1);
    }
  }
  return { reached: false, asks, failures, sessions };
}

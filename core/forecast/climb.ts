import { type GoBackThresholds, tooManyFailures } from "../advice";
import { type Chance, drawNormal } from "../chance";
import type { Outcome } from "../evidence";
import { type Learner, notMet } from "../learner";
import { type MasteryRule, type MasteryTrial, masteryProgress } from "../mastery";
import { MILLISECONDS_PER_DAY } from "../units";

/** What a yard adds to how a horse learns, in logits: {@link climb} asks as in one. */
export interface YardHabits {
  /** Lower at the first ask of a session, gone after six. */
  readonly cold: number;
  /** Lower by the twentieth ask than by the first. */
  readonly tires: number;
  /** Days differ by so much, and neighbouring days are so alike. */
  readonly daySpread: number;
  readonly daysAlike: number;
  /** The trainer stops for the day at so many failures running. */
  readonly stopsAfter: number;
}

/** The yard the default rule is tried in: invented, the middle of what the matrix of `tests/truth` turns. */
export const USUAL_HABITS: YardHabits = { cold: 0.8, tires: 0.6, daySpread: 0.5, daysAlike: 0.5, stopsAfter: 4 };

/** A plan that is climbed. */
export interface ClimbPlan {
  readonly rungs: number;
  readonly rule: MasteryRule;
  readonly asksPerSession: number;
  readonly daysBetween: number;
  /** Failures that lead a rung back. */
  readonly ease: GoBackThresholds;
  /** After so many asks it is given up. */
  readonly mostAsks: number;
  /** Left out, days and minutes are alike but for tiring late. */
  readonly habits?: YardHabits;
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
/** Asks until cold is gone, and until tiring has come to its full size. */
const WARM_AFTER = 6;
const TIRED_AFTER = 20;
const LEAST = 0.02;
const MOST = 0.97;

/** How much better or worse it is at each ask of a day, in logits; a call begins a day. @example daysOf(undefined, chance) */
export function daysOf(habits: YardHabits | undefined, chance: Chance): () => (ask: number) => number {
  if (habits === undefined) return () => () => 0;
  const { cold, tires, daySpread, daysAlike } = habits;
  let mood = drawNormal(chance, 0, 1);
  return () => {
    const today = mood * daySpread;
    mood = daysAlike * mood + Math.sqrt(1 - daysAlike ** 2) * drawNormal(chance, 0, 1);
    return (ask) => today - cold * Math.max(0, 1 - ask / WARM_AFTER) - tires * Math.min(1, ask / TIRED_AFTER);
  };
}

/** A chance moved on the logit. @example movedBy(0.5, 0) // 0.5 */
export const movedBy = (p: number, logits: number): number => (logits === 0 ? p : 1 / (1 + ((1 - p) / p) * Math.exp(-logits)));

/**
 * Lets a learner climb a ladder by a rule: a rung up where it passes, a rung
 * back where the failures of its block say so, the evidence anew on each rung.
 * Everything met is reinforced. Where the rule wants another day the session ends.
 * @example climb(learner, plan, chance) // { reached: true, asks: 17, failures: 3, sessions: 1 }
 */
export function climb(learner: Learner, plan: ClimbPlan, chance: Chance): ClimbResult {
  const { rungs, rule, asksPerSession, daysBetween, mostAsks, habits } = plan;
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
  const nextDay = daysOf(habits, chance);
  while (asks < mostAsks) {
    if (sessions > 0) learner.rest(daysBetween);
    sessions++;
    block = [];
    const better = nextDay();
    let running = 0;
    for (let today = 0; today < asksPerSession && asks < mostAsks; today++) {
      asks++;
      const tired = Math.max(0, today - FRESH_ASKS) * TIRED_BY;
      const met = chance() < Math.min(MOST, Math.max(LEAST, movedBy(learner.chanceOfMet(), better(today)) - tired));
      const outcome = met ? "met" : notMet(chance());
      if (!met) failures++;
      running = met || outcome === "try" ? 0 : running + 1;
      learner.take(met ? "success" : outcome === "try" ? "neither" : "failure");
      block.push({ outcome });
      evidence.push({ met, clean: met, soft: met, blockKey: String(sessions), wallMs: sessions * daysBetween * MILLISECONDS_PER_DAY });
      const progress = masteryProgress(rule, evidence);
      if (progress.passed) {
        if (rung === rungs) return { reached: true, asks, failures, sessions };
        go(rung + 1);
      } else if (progress.enoughToday || (habits !== undefined && running >= habits.stopsAfter)) break;
      else if (rung > 1 && tooManyFailures(block, plan.ease) !== null) go(rung - 1);
    }
  }
  return { reached: false, asks, failures, sessions };
}

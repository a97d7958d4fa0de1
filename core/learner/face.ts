/**
 * How a horse learns, one side of it: what the study of rules, the demo and
 * the forecasts see of any learner. None is a claim about real horses; what is
 * said of a rule is said over all of them.
 */
export interface Learner {
  /** Chance that an ask on the present rung is met, now. */
  chanceOfMet(): number;
  /** The same on any rung, also between two, without putting the horse there. */
  chanceOn(rung: number): number;
  /** Puts the horse on a rung, counted from 1; between two rungs where it is no whole number. */
  goToRung(rung: number): void;
  /** Takes an answer in. A try, or a met answer that earned nothing, is neither a success nor a failure. */
  take(answer: "success" | "neither" | "failure"): void;
  /** Days off before the next session. */
  rest(days: number): void;
}

/** The kinds of learner a rule is chosen by. */
export const LEARNER_KINDS = ["linear", "souring", "success", "fearful"] as const;
export type LearnerKind = (typeof LEARNER_KINDS)[number];

/** Further kinds on which the choice is tried: on these a softer rule would do. */
export const OTHER_LEARNER_KINDS = ["all or none", "practice alone", "wandering"] as const;
export type AnyLearnerKind = LearnerKind | (typeof OTHER_LEARNER_KINDS)[number];

import type { Learner, LearnerKind } from "./face";
import { LinearLearner, type LinearTemper } from "./linear";
import { SouringLearner, type SouringTemper } from "./souring";
import { SuccessLearner, type SuccessTemper } from "./success";

/**
 * The numbers the study of rules uses: invented, so that twelve rungs take some
 * hundred asks and haste has its price with two of the three.
 */
export const STUDY_TEMPERS = {
  linear: { floor: 0.25, learning: 0.06, unlearning: 0.03, kept: 0.75, forgettingDays: 60 } satisfies LinearTemper,
  souring: { floor: 0.25, learning: 0.07, unlearning: 0.05, kept: 0.7, forgettingDays: 60, mostRunning: 5 } satisfies SouringTemper,
  success: { floor: 0.72, gain: 0.09, loss: 0.2, step: 0.85, forgettingDays: 400 } satisfies SuccessTemper,
} as const;

/** Who each kind is, in a trainer's words. */
export const LEARNER_WORDS: Readonly<Record<LearnerKind, string>> = {
  linear: "forgives its failures",
  souring: "sours when failures run",
  success: "gains by success, loses by failure",
};

/** A learner of a kind, at its first rung. */
export function learnerOf(kind: LearnerKind): Learner {
  switch (kind) {
    case "linear":
      return new LinearLearner(STUDY_TEMPERS.linear);
    case "souring":
      return new SouringLearner(STUDY_TEMPERS.souring);
    case "success":
      return new SuccessLearner(STUDY_TEMPERS.success);
  }
}

import type { AnyLearnerKind, Learner } from "./face";
import { FearfulLearner, type FearfulTemper } from "./fearful";
import { LinearLearner, type LinearTemper } from "./linear";
import { AllOrNoneLearner, type AllOrNoneTemper, PractisingLearner, WanderingLearner, type WanderingTemper } from "./other-ways";
import { SouringLearner, type SouringTemper } from "./souring";
import { SuccessLearner, type SuccessTemper } from "./success";

/**
 * The numbers the study of rules uses: invented, so that twelve rungs take some
 * hundred asks and haste has its price with three of the first four.
 */
export const STUDY_TEMPERS = {
  linear: { floor: 0.25, learning: 0.06, unlearning: 0.03, kept: 0.75, forgettingDays: 60 } satisfies LinearTemper,
  souring: { floor: 0.25, learning: 0.07, unlearning: 0.05, kept: 0.7, forgettingDays: 60, mostRunning: 5 } satisfies SouringTemper,
  success: { floor: 0.72, gain: 0.09, loss: 0.2, step: 0.85, forgettingDays: 400 } satisfies SuccessTemper,
  fearful: {
    floor: 0.72,
    gain: 0.12,
    loss: 0,
    step: 0.85,
    forgettingDays: 400,
    startle: 0.9,
    mostFear: 5,
    soothed: 0.08,
    calmingDays: 8,
  } satisfies FearfulTemper,
  "all or none": { guess: 0.35, known: 0.95, successes: 5 } satisfies AllOrNoneTemper,
  "practice alone": { floor: 0.25, learning: 0.05, unlearning: 0, kept: 0.75, forgettingDays: 60 } satisfies LinearTemper,
  wandering: {
    floor: 0.25,
    learning: 0.06,
    unlearning: 0.03,
    kept: 0.75,
    forgettingDays: 60,
    wave: 0.7,
    asksAWave: 25,
  } satisfies WanderingTemper,
} as const;

/** Who each kind is, in a trainer's words. */
export const LEARNER_WORDS: Readonly<Record<AnyLearnerKind, string>> = {
  linear: "forgives its failures",
  souring: "sours when failures run",
  success: "gains by success, loses by failure",
  fearful: "takes fright at its own wrong answers",
  "all or none": "has a rung or has it not",
  "practice alone": "learns by every ask alike",
  wandering: "has better and worse spells",
};

/** A learner of a kind, at its first rung. @example learnerOf("success") // { rung: 1, … } */
export function learnerOf(kind: AnyLearnerKind): Learner {
  switch (kind) {
    case "linear":
      return new LinearLearner(STUDY_TEMPERS.linear);
    case "souring":
      return new SouringLearner(STUDY_TEMPERS.souring);
    case "success":
      return new SuccessLearner(STUDY_TEMPERS.success);
    case "fearful":
      return new FearfulLearner(STUDY_TEMPERS.fearful);
    case "all or none":
      return new AllOrNoneLearner(STUDY_TEMPERS["all or none"]);
    case "practice alone":
      return new PractisingLearner(STUDY_TEMPERS["practice alone"]);
    case "wandering":
      return new WanderingLearner(STUDY_TEMPERS.wandering);
  }
}

export { type AnyLearnerKind, LEARNER_KINDS, type Learner, type LearnerKind, OTHER_LEARNER_KINDS } from "./face";
export { NOT_MET_SHARES, notMet } from "./failing";
export { FearfulLearner, type FearfulTemper } from "./fearful";
export { LEARNER_WORDS, learnerOf, STUDY_TEMPERS } from "./kinds";
export { type SimulatedAnswer, SimulatedHorse, type Temper } from "./learner";
export { LinearLearner, type LinearTemper } from "./linear";
export {
  AllOrNoneLearner,
  type AllOrNoneTemper,
  PractisingLearner,
  WanderingLearner,
  type WanderingTemper,
} from "./other-ways";
export { SouringLearner, type SouringTemper } from "./souring";
export { SuccessLearner, type SuccessTemper } from "./success";

export { LEARNER_KINDS, type Learner, type LearnerKind } from "./face";
export { NOT_MET_SHARES, notMet } from "./failing";
export { LEARNER_WORDS, learnerOf, STUDY_TEMPERS } from "./kinds";
export { type SimulatedAnswer, SimulatedHorse, type Temper } from "./learner";
export { LinearLearner, type LinearTemper } from "./linear";
export { SouringLearner, type SouringTemper } from "./souring";
export { SuccessLearner, type SuccessTemper } from "./success";

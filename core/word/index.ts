export { type Advice, WORDS, type Word } from "./advice";
export { beginningSide } from "./beginning-side";
export { barredToday, type Closed, closedLinks, closedNow } from "./closed";
export { easeSentence, tooManyFailures } from "./ease";
export {
  ALL_FAIL,
  AS_THE_LEARNER,
  chanceOfEase,
  EASE_BLOCK_TRIALS,
  type EaseThresholds,
  easeThresholds,
  type FailureMix,
} from "./ease-chance";
export { everPassed, movingOnSentence, progressOf, type ValuesGoal, valuesGoalOf } from "./goal";
export type { BreathingState, SideState, WordInput } from "./input";
export { likelyShareWords } from "./likely-share";
export { type Beginning, whyNotToBegin } from "./may-begin";
export { type NextStart, nextStart } from "./next-start";
export { lastHandler, type OtherHandler, othersOf, trialsOfPair } from "./pair";
export { heatOf, heatReasonOf, type Situation, sureRungBelow, wordInputOf } from "./situation";
export { chanceOfSplit } from "./split-chance";
export { HEAT_MINUTES, limitReached } from "./stop";
export { theWord } from "./the-word";
export { whereItStands } from "./where-it-stands";

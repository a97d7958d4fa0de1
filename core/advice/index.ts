export { chanceOfAddStep } from "./add-step-chance";
export { ADVICE_WORDS, type Advice, type AdviceWord } from "./advice";
export { beginningSide } from "./beginning-side";
export { barredToday, type Closed, closedLinks, closedNow } from "./closed";
export { goBackSentence, tooManyFailures } from "./go-back";
export {
  ALL_FAIL,
  AS_THE_LEARNER,
  chanceOfGoBack,
  type FailureMix,
  GO_BACK_BLOCK_TRIALS,
  type GoBackThresholds,
  goBackThresholds,
} from "./go-back-chance";
export { everPassed, movingOnSentence, progressOf, type ValuesGoal, valuesGoalOf } from "./goal";
export type { AdviceInput, BreathingState, SideState } from "./input";
export { adviceLogged, adviceOfKey } from "./keys";
export { likelyShareWords } from "./likely-share";
export { type Beginning, whyNotToBegin } from "./may-begin";
export { type NextStart, nextStart } from "./next-start";
export { lastHandler, type OtherHandler, othersOf, trialsOfPair } from "./pair";
export { adviceInputOf, heatOf, heatReasonOf, type Situation, sureRungBelow } from "./situation";
export { HEAT_MINUTES, limitReached } from "./stop";
export { theAdvice } from "./the-advice";
export { whereItStands } from "./where-it-stands";

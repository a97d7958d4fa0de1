export { type Advice, WORDS, type Word } from "./advice";
export { easeSentence } from "./ease";
export { chanceOfEase, EASE_BLOCK_TRIALS, type EaseThresholds, easeThresholds } from "./ease-chance";
export { movingOnSentence, progressOf, type ValuesGoal, valuesGoalOf } from "./goal";
export type { BreathingState, SideState, WordInput } from "./input";
export { limitReached } from "./limits";
export {
  DEFAULT_WORD_SETTINGS,
  WORD_SETTING_FIELDS,
  type WordSettingField,
  type WordSettings,
  wordSettingProblem,
  wordSettingsFrom,
} from "./settings";
export { shareSentence } from "./share-sentence";
export { heatOf, type Situation, sureRungBelow, wordInputOf } from "./situation";
export { theWord } from "./the-word";

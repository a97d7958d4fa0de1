export { progressByValues } from "./by-values";
export { byDay } from "./days";
export { everMastered, passedAfter } from "./ever";
export { masteryProgress } from "./progress";
export {
  DEFAULT_MASTERY_RULE,
  daysWanted,
  type MasteryProgress,
  type MasteryRule,
  type MasteryTrial,
  masterySentence,
  RULE_BOUNDS,
} from "./rule";
export { LARGEST_WINDOW, type RuleCheckRow, ruleCheck, ruleCheckSentence, USUAL_ASKS_A_DAY } from "./rule-check";

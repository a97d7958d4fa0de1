export { progressByValues } from "./by-values";
export { everMastered } from "./ever";
export { masteryProgress } from "./progress";
export { DEFAULT_MASTERY_RULE, type MasteryProgress, type MasteryRule, type MasteryTrial, masterySentence } from "./rule";
export { LARGEST_WINDOW, type RuleCheckRow, ruleCheck, ruleCheckSentence } from "./rule-check";

export { type ClimbPlan, type ClimbResult, climb, FRESH_ASKS } from "./climb";
export { type KindOutcome, MOST_ASKS_A_RUNG, type RuleBand, type RuleBandChoice, ruleBand, ruleBandSentence } from "./rule-band";

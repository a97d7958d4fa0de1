export { type ClimbPlan, type ClimbResult, climb, FRESH_ASKS, USUAL_HABITS, type YardHabits } from "./climb";
export { type BarPlan, climbByBar } from "./climb-by-bar";
export {
  type FollowingBar,
  type KindOutcome,
  MOST_ASKS_A_RUNG,
  type RuleBand,
  type RuleBandChoice,
  ruleBand,
  ruleBandSentence,
} from "./rule-band";

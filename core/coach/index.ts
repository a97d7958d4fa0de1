export { type DwellAdvice, type DwellPlan, type DwellWord, dwellAdvice, type OpenAsk, plannedDwell } from "./dwell";
export { hasRopeOnLeg, KICK_AT_ROPE, ON_A_TRY, ON_A_WRONG_ANSWER, PANIC_EXIT } from "./panic";
export {
  type CoachPlan,
  orderOfSteps,
  pouchOf,
  type ReinforcementCoach,
  reinforcementCoach,
  type Step,
} from "./reinforcement-coach";

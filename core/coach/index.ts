export { type DwellAdvice, type DwellPlan, type DwellWord, dwellAdvice, type OpenAsk, plannedDwell } from "./dwell";
export {
  type CoachPlan,
  orderOfSteps,
  pouchOf,
  type ReinforcementCoach,
  reinforcementCoach,
  type Step,
} from "./reinforcement-coach";

export { type Checked, check, EARLIEST_WALL_MS, EARLIEST_YEAR, type FieldProblem } from "./common";
export { checkEvent, checkPayload, EVENT_TYPES, type EventType, type SessionEvent, wallClockPlausible } from "./event";
export {
  HORSE_SEXES,
  type HorseInput,
  type HorseSex,
  horseSchema,
  type PersonInput,
  type PlaceInput,
  personSchema,
  placeSchema,
} from "./horse";
export { type BehaviourInput, behaviourSchema, checkLadderPlan, rungValueProblem } from "./ladder";
export { checkBatch, newSessionSchema, type PostedBatch } from "./session";

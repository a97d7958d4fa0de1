export { type Checked, check, EARLIEST_WALL_MS, EARLIEST_YEAR, type FieldProblem, record } from "../checks/common";
export { BATCH_LIMITS, FORM_LIMITS, type ReadWire, readWire, type WireLimits, wireProblem } from "../checks/wire";
export {
  checkEvent,
  checkPayload,
  EVENT_SCHEMA_VERSION,
  EVENT_TYPES,
  type EventType,
  eventOf,
  type Fact,
  PART_WORDS,
  PARTS,
  type Part,
  type Payload,
  payloadSchemas,
  SESSION_KINDS,
  type SessionEvent,
  type SessionKind,
  unknownKeys,
  wallClockPlausible,
  withIdsInOneCase,
} from "../events";
export { binSchema, type GoesWith, goesWithWords, putAwaySchema } from "./bin";
export { BIN_DAYS, BIN_KINDS, type BinKind } from "./bin-kinds";
export {
  type CircleSetupInput,
  circleSetupSchema,
  type HandLoadInput,
  handLoadSchema,
  type KitFitInput,
  keptPlanSchema,
  kitFitSchema,
} from "./circle";
export { dateDoneSchema, goAgainstSchema, type HorseDateInput, horseDateSchema } from "./dates";
export {
  AWAY_KINDS,
  type AwayInput,
  type AwayKind,
  awaySchema,
  HORSE_SEXES,
  type HorseInput,
  type HorseSex,
  horseSchema,
  type RestingInput,
  restingSchema,
} from "./horse";
export { type KitInput, kitSchema, PERSON_ROLES, type PersonInput, type PracticeInput, personSchema, practiceSchema } from "./kit";
export {
  type BehaviourInput,
  behaviourSchema,
  type ChainInput,
  chainSchema,
  checkLadderPlan,
  checkMasteryRule,
  EMPTY_BEHAVIOUR,
  newChainSchema,
  ownSignSchema,
  pinnedSignsSchema,
  planSchema,
} from "./ladder";
export {
  ACCESS_CHOICES,
  type AccessInput,
  accessSchema,
  joinSchema,
  keepCopiesSchema,
  networkSchema,
  restoreSchema,
  SHORTEST_PASSPHRASE,
  signInSchema,
} from "./network";
export { asPlaceItem, FOOTINGS, MOST_PLACE_ITEMS, type PlaceInput, type PlaceItemInput, placeSchema } from "./place";
export { type PutRightInput, putRightSchema } from "./put-right";
export { type KeptRestriction, readRestriction } from "./read-restriction";
export { limbsOf, type RestrictionInput, restrictionEndSchema, restrictionSchema } from "./restriction";
export { checkBatch, newSessionSchema, type PostedBatch } from "./session";

export { type ClockKnowledge, type PlacedEvent, placeEvents } from "./clock";
export { type Correction, correctionsOf } from "./corrections";
export {
  DWELL_TOLERANCE,
  type DwellAdvice,
  type DwellConsistency,
  type DwellPlan,
  type DwellWord,
  dwellAdvice,
  dwellConsistency,
  type HeldPhase,
  heldPhases,
  type OpenAsk,
  plannedDwell,
} from "./dwell";
export { effectiveEvents, type PayloadCheck } from "./effective";
export { isEmptySession } from "./empty";
export {
  asMasteryTrials,
  carriedOver,
  EVIDENCE_MAX_AGE_DAYS,
  type EvidenceScope,
  type EvidenceTrial,
  evidenceForRung,
  evidenceOfSession,
  valuesOf,
} from "./evidence-scope";
export { barOf, barSentence } from "./follow-bar";
export { CORNER_STAND_SECONDS, type CornerStand, cornerStands, type FreeWork, freeWork, isEdgeZone } from "./free-work";
export { type LateBlock, type LateSession, lateBlockProblem, lateEvents, MOST_LATE_TRIALS, spreadEvenly } from "./late-entry";
export { shortfallOf } from "./met-check";
export { barredToday, beginningSide, type NextStart, nextStart } from "./next-start";
export { MOVING_ON_SECONDS, type Offers, offersOf } from "./offers";
export { ONE_BUTTON, OneButton } from "./one-button";
export { putRight, type RightTrial } from "./put-right";
export {
  type Block,
  type BlockKind,
  type Pause,
  reduceEvents,
  type SessionHeader,
  type SessionRecord,
  type Span,
  type TimedFact,
} from "./reduce";
export { reduceSession } from "./reduce-session";
export {
  type CoachPlan,
  orderOfSteps,
  piecesUsed,
  pouchOf,
  type ReinforcementCoach,
  reinforcementCoach,
  type Step,
} from "./reinforcement-coach";
export { openDanger, type SignalClass, signsWithin } from "./signals";
export { OPEN_SPAN_TIMES, SILENCE_MINUTES, silenceLimitMs, WENT_ON } from "./silence";
export { type BlockSummary, interResponseSeconds, type SessionSummary, summariseSession } from "./summary";
export { blockSeconds, endOfWorkMs, isSilent, secondsSinceRest, secondsWithoutBreaks, workSeconds } from "./time";
export { LOGGED_WAYS, type LoggedWay, ORDER_FAULTS, type Trial } from "./trial";
export { breathingAfterWork, lastHeartRate } from "./vital-signs";
export { type Whereabouts, whereNow } from "./where";
export * from "./word";

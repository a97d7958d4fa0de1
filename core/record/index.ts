export { type ClockKnowledge, type PlacedEvent, placeEvents } from "./clock";
export {
  type CompactRibbon,
  compactRibbonOf,
  DRAWING_MOST_CHARACTERS,
  type RibbonFacts,
  type RibbonTrial,
  readCompactRibbon,
} from "./compact-ribbon";
export { type Correction, correctionsOf, type Moved, movedFrom, type StruckNote, struckNotesOf } from "./corrections";
export { standingDoNext, type WorkedBefore } from "./do-next";
export { effectiveEvents, type PayloadCheck, undoneOf } from "./effective";
export { isEmptySession } from "./empty";
export {
  asMasteryTrials,
  carriedOver,
  type EvidenceScope,
  type EvidenceTrial,
  evidenceForRung,
  evidenceOfSession,
  isClean,
  isComparable,
  type PackedEvidence,
  packEvidence,
  SOFT_GRADE,
  saidSoft,
  unpackEvidence,
  valuesOf,
} from "./evidence-scope";
export { barOf, barSentence } from "./follow-bar";
export { piecesUsed, weighedGrams } from "./food";
export { CORNER_STAND_SECONDS, type CornerStand, cornerStands, edgeZonesOf, type FreeWork, freeWork, isEdgeZone } from "./free-work";
export { DWELL_TOLERANCE, type DwellConsistency, dwellConsistency, type HeldPhase, heldPhases } from "./held-phases";
export { lookedWords } from "./looked";
export { shortfallOf } from "./met-check";
export { MOVING_ON_SECONDS, type Offers, offersOf } from "./offers";
export { putRight, type RightTrial } from "./put-right";
export {
  type Block,
  type BlockKind,
  type BlockTries,
  reduceEvents,
  type SessionHeader,
  type SessionRecord,
  type TimedFact,
} from "./reduce";
export { reduceSession } from "./reduce-session";
export { dangerSigns, openDanger, openStopSign, type SignalClass, signsWithin } from "./signals";
export { OPEN_SPAN_TIMES, SILENCE_MINUTES, silenceLimitMs, WENT_ON } from "./silence";
export { type SlimTrial, slimTrial, wholeTrial } from "./slim-trial";
export { type BlockSummary, interResponseSeconds, type SessionSummary, summariseSession } from "./summary";
export { type SessionSums, sumsOfSession } from "./sums";
export { blockSeconds, endOfWorkMs, isSilent, onBreak, secondsSinceRest, secondsWithoutBreaks, workSeconds } from "./time";
export {
  type Departure,
  type GaitSpan,
  type OwnTime,
  type Pause,
  type Span,
  STANDING,
  spanAt,
  type TimeLine,
  until,
  type WrongChoice,
  type ZoneSpan,
} from "./time-line";
export { type Handler, handlerKey, LOGGED_WAYS, type LoggedWay, ORDER_FAULTS, type Trial, whoseTrial } from "./trial";
export { breathingAfterWork, breathReadings, heartReadings, lastTemperature } from "./vital-signs";
export { handlerInHand, handlerNow, type Whereabouts, whereNow } from "./where";
export {
  type AgainstPlan,
  againstPlan,
  FEWEST_FOR_THIRDS,
  firstAndSecondPass,
  plannedAsks,
  type SessionPart,
  sessionThirds,
} from "./within-session";

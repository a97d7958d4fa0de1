export { type ClockKnowledge, type PlacedEvent, placeEvents } from "./clock";
export { effectiveEvents } from "./effective";
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
export { shortfallOf } from "./met-check";
export { barredToday, beginningSide, type NextStart, nextStart } from "./next-start";
export { type Block, type BlockKind, reduceSession, type SessionHeader, type SessionRecord, type Span, type TimedFact } from "./reduce";
export { type BlockSummary, interResponseSeconds, type SessionSummary, summariseSession } from "./summary";
export { blockSeconds, endOfWorkMs, secondsSinceRest, secondsWithoutBreaks, workSeconds } from "./time";
export { LOGGED_WAYS, type LoggedWay, ORDER_FAULTS, type Trial } from "./trial";
export { type Whereabouts, whereNow } from "./where";
export {
  type Advice,
  DEFAULT_WORD_SETTINGS,
  easeSentence,
  limitReached,
  movingOnSentence,
  progressOf,
  shareSentence,
  theWord,
  valuesGoalOf,
  WORDS,
  type Word,
  type WordInput,
  type WordSettings,
} from "./word";

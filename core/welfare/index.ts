export { type Age, type AgeCaution, ageCaution, ageOn, ageWords } from "./age";
export {
  ABOVE_HEART_WORDS,
  type AboveHeart,
  APART_MS,
  aboveHeart,
  downLimit,
  notFallen,
  type Reading,
  restingQuestion,
  usableResting,
} from "./breath-down";
export {
  type BreathingRate,
  type BreathSums,
  breathingOver,
  breathingRate,
  breathSums,
  HEART_STRAND,
  type PooledBreathing,
  TEMPERATURE_STRAND,
} from "./breathing";
export { DATE_KINDS, type DateKind, dateWords, dayAfterWeeks, daysBetween, dueWords, type HorseDate, SAID_DAYS_BEFORE } from "./dates";
export {
  BEARS_BADLY_CELSIUS,
  type HeatBounds,
  type HeatCaution,
  type HeatLevel,
  heatCaution,
  heatNumber,
  heatWords,
  type Sky,
  wetBulbGlobeCelsius,
} from "./heat";
export {
  ARM_METRES,
  handlerPlaceMetres,
  KIT_KINDS,
  KIT_WITH_BUCKLES,
  KIT_WITH_LENGTH,
  type Kit,
  type KitKind,
  type KitUse,
  kitCautions,
  SHORTEST_SAFE_LINE_METRES,
} from "./kit";
export { goneAgainstIn, type KeptRestriction, readRestriction } from "./read-restriction";
export { type BreathingReading, COOLED_WITHIN_SHARE, type Recovery, type RecoveryAround, recoveryOf } from "./recovery";
export {
  type Allowance,
  allowanceOn,
  allowedRung,
  barredBehaviour,
  barredLegs,
  barredMethod,
  barredRung,
  barredValue,
  type Cap,
  closesZone,
  GAITS_SLOWEST_FIRST,
  type GoneAgainst,
  goneAgainstOn,
  holdsOn,
  INVOLVEMENTS,
  type Involvement,
  isLegZone,
  LIMBS,
  type Limb,
  RESTRICTION_FACTS,
  RESTRICTION_KINDS,
  type Restriction,
  type RestrictionDetail,
  type RestrictionKind,
  restrictionSentence,
  restrictionsOverlap,
  restrictionWords,
  type TouchCap,
  UNREAD,
} from "./restrictions";
export { asUsed, type UsedSession, usedSentences } from "./week-use";
export { yardRestrictions } from "./young";

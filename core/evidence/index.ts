export { cohenKappa, type KappaAgreement, type TimedAgreement, type TimedPair, timedAgreement } from "./agreement";
export {
  CALLED_AT,
  type Cell,
  cellsInOrder,
  contrastBySessions,
  FEWEST_SESSIONS,
  GAP_ASKED_FOR,
  type OrderedTrial,
  type SessionCells,
  type SessionContrast,
} from "./by-sessions";
export { type Counted, type ShareDifference, shareDifference } from "./difference";
export { fisherExact } from "./fisher";
export {
  type GroupMeasures,
  GroupTally,
  type GroupTallyState,
  LATE_FEED_SECONDS,
  LATE_RELEASE_SECONDS,
  type LagMeasures,
  type MeasuredTrial,
  measureGroup,
  type Outcome,
} from "./group";
export { type AnswerTimes, type RightAnswers, rightAnswers } from "./incidence";
export { type LogRank, logRank, type SurvivalCurve, type SurvivalStep, survival, type Waiting } from "./latency";
export { lowerMedianOf, medianOf } from "./median";
export { effectiveLooks, leads } from "./momentary";
export {
  type BarPart,
  beatsBar,
  beatsDrawnBar,
  type DrawnBar,
  drawBar,
  PERCENTILE_DEFAULTS,
  type PercentileBar,
  percentileBar,
} from "./percentile";
export { ORDER_VARIED, type PlacedSession, type PlacedValue, type PlaceOut, placeTakenOut } from "./place-out";
export { quantileOfSorted } from "./quantile";
export { type CountedRate, poissonInterval, type SessionRate, sessionRate } from "./rate";
export { type RateRatio, rateRatio } from "./rate-ratio";
export { type Detection, type Sensitivity, sensitivity } from "./sensitivity";
export {
  type SessionPermutation,
  type SessionSum,
  type StratifiedSum,
  sessionPermutation,
  stratifiedPermutation,
} from "./session-permutation";
export {
  addShares,
  NO_SHARE,
  type SessionShare,
  type ShareSums,
  sessionShare,
  shareOfTrials,
  sumsOfSessions,
} from "./session-share";
export { type DatedValue, FEWEST_FOR_TREND, type SessionSlope, sessionSlope } from "./session-slope";
export { chanceShareAtLeast, FEWEST_TRIALS_TO_TELL, type Interval, scoreInterval, wilsonInterval } from "./shares";
export { FEWEST_TO_SHRINK, type Shrunk, type ShrunkGroup, shrinkByKind } from "./shrink";
export { compareSides, type SideComparison } from "./sides";
export { type SignFlip, signFlip, type WeighedDifference } from "./sign-flip";
export { betaQuantile } from "./special";
export { acrossSpells, type DatedSum, spellFactor } from "./spells";
export { student975, studentTwoSidedP } from "./student";
export { type DatedRate, type WeeklyTrend, weeklyFactor, weeklyTrend } from "./trend";
export { LEAST_MINUTES_FOR_RATE, type Unusual, unusualRate } from "./unusual";

export { cohenKappa, type KappaAgreement, type TimedAgreement, type TimedPair, timedAgreement } from "./agreement";
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
export { type LogRank, logRank, type SurvivalCurve, type SurvivalStep, survival, type Waiting } from "./latency";
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
export { quantileOfSorted } from "./quantile";
export { type CountedRate, poissonInterval, rateDifferenceP } from "./rate";
export { chanceShareAtLeast, FEWEST_TRIALS_TO_TELL, type Interval, wilsonInterval } from "./shares";
export { compareSides, type SideComparison } from "./sides";
export { type DatedRate, weeklyFactor } from "./trend";

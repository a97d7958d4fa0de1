export { BREAK_FROM_DAYS, conditionWords, HOT_FROM_C } from "./conditions";
export { type ComparedSet, contrastSets, type LeadingContrast, type SetContrast, type SetOfTrials } from "./contrast";
export { type Moment, type MomentKind, NO_FACTS, type PastBlock, type PastFacts, pastFactsOf, type SaidWord } from "./facts";
export { packFacts, readFacts } from "./facts-wire";
export { FILTER_KEYS, filterText, HOLDS, type PastFilter, readFilter, trialsFor } from "./filter";
export { answerTimes, type HalfTime, halfTime } from "./half-time";
export {
  type HoursOfKind,
  type MonthCautions,
  type MonthLadder,
  type MonthLine,
  monthCautions,
  monthLines,
  movedWords,
  ownerReport,
} from "./month";
export {
  type CumulativeStep,
  type OverWeeks,
  overWeeks,
  type SessionPoint,
  type SignRate,
  signRates,
  staysOf,
  type WarmUp,
  workedMs,
} from "./over-weeks";
export { bySession, onlyWorked, type Past, type PastSession, type PastTrial, pastTrialsOf } from "./past";
export { FOLLOWS_WITHIN_SECONDS, precursorWords, WAITS_FROM_SECONDS } from "./precursor-words";
export { type BeforeItGoes, beforeItGoes, type Precursor } from "./precursors";
export {
  type AdviceAndRaises,
  AROUND_A_RAISE,
  adviceAndRaises,
  beforeARung,
  type ChangeCost,
  type ChangeCosts,
  changeCosts,
  type HarderStrand,
  harderStrands,
  type PlanOf,
  type Raise,
  type RaiseTold,
  raisesOf,
  raiseTold,
  SPLIT_FROM_ASKS,
} from "./raises";
export { REST_FROM_DAYS, type Relearned, type SavingKind, type Savings, savingsOf } from "./savings";
export { type SidesOverTime, sideCells, sidesOverTime } from "./sides-over-time";
export { type DatedValue, type WeeklyChange, weeklyChange } from "./slope";
export { type PastSpan, SPANS, spanOf, USUAL_SPAN } from "./span";
export { STALL_SESSIONS, type Stall, type StallCheck, type StallFacts, stallOf } from "./stalls";
export { type GoodMoment, goodMoment, type NextAfter, type TurnOfSession } from "./stopping";
export { turnsWithin } from "./turns-within";

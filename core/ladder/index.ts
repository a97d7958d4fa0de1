export { REINFORCERS, type Reinforcer } from "../events/reinforcers";
export { rungsBetween } from "./between";
export { planByWay, type WayChange } from "./by-way";
export { calmAsked, NOT_SOFT_GRADE } from "./calm";
export { chosenWays, methodCautions, wayCautions } from "./cautions";
export { otherSettingsDiffer, type PlanChange, planChanges } from "./changes";
export {
  type Conversation,
  HANDLER_ACTS,
  type HandlerAct,
  handlerMostWords,
  MOVEMENT_GRADES,
  meetsPressure,
  OWN_TIMES,
  type OwnTimeKind,
  type PinnedSign,
  RIG_TIMES,
  type RigCheck,
  WANTED_ACT,
  type WhenWrong,
  WRONG_ANSWERS,
  WRONG_BEGINS,
  WRONG_CHOICES,
  whenWrongLine,
} from "./conversation";
export { type BlockSurroundings, type Criterion, criterionOf } from "./criterion";
export {
  addStrand,
  changeStrand,
  copyRung,
  deleteRung,
  likeTheOneBefore,
  mergeRungs,
  mirrorStrand,
  moveRung,
  type Rope,
  RopeProblem,
  removeStrand,
  setRung,
  setValue,
  splitRung,
  stepValue,
} from "./edit";
export { asksADay, type ExpectedRepetitions, expectedRepetitions } from "./expected";
export { type FoodPlan, foodPlan } from "./food";
export { circles, involvedIn } from "./involves";
export {
  asksBothSides,
  type CueTransfer,
  FEWEST_RUNGS,
  type Feeding,
  type LadderPlan,
  METHODS,
  type Method,
  MOST_RUNGS,
  MOST_STRANDS,
  methodOf,
  OFFER_RULES,
  type OfferRule,
  type PercentileSetting,
  PLAN_DEFAULTS,
  type Rung,
  scheduleOf,
  sideAsked,
} from "./ladder";
export { type LaidRung, type LayoutLeg, type LayoutOptions, type LayoutOrder, type LayoutStrand, layOut, MOST_LAID_RUNGS } from "./layout";
export { METHOD_GUIDES, type MethodGuide, REINFORCER_WORDS } from "./method-guide";
export { MOST_PINNED, MOST_RIG_CHECKS, PLAN_BOUNDS } from "./plan-bounds";
export { planProblems, rungValueProblem } from "./plan-problems";
export {
  earnsReinforcer,
  type PlayedSchedule,
  RATIO_LIST_LENGTH,
  ratioList,
  ratioProgression,
  reinforcedShare,
  SCHEDULE_KINDS,
  type Schedule,
  scheduleSentence,
  thinnedSchedules,
} from "./schedule";
export { splitStep } from "./split";
export { starterPlan } from "./starter";
export { unchangedRungs } from "./unchanged";
export { oneSideADay, WAY_KEYS, type WayKey, type Ways } from "./way-values";
export { WAYS, type WayChoice, type WayOption, wayOf, waysFor } from "./ways";

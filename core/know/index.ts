export { CONNECTION_BEHAVIOUR, REST_BEHAVIOUR } from "../events/session-kind";
export { lookReadiness, type TestedByLook, touchNeed, touchReadiness } from "./as-foundation";
export { compareLooks, differenceWords, type LookComparison, type StepChange } from "./compare-looks";
export {
  agreementWords,
  BEEP_SECONDS,
  CONNECTION_ANSWERS,
  CONNECTION_QUESTION,
  type Connection,
  type ConnectionAnswer,
  connectionOf,
  type Sample,
} from "./connection";
export { type KnowDigest, knowDigest } from "./digest";
export { packDigest, readDigest } from "./digest-wire";
export {
  askedName,
  type BatteryPlace,
  batteryPlace,
  FIRST_LOOK_BEHAVIOUR,
  FIRST_LOOK_ITEMS,
  FIRST_LOOK_PHASES,
  FIRST_LOOK_STEPS,
  FIRST_LOOK_TRIALS,
  type FirstLook,
  type FirstLookItem,
  type FirstLookResult,
  type FirstLookStep,
  firstLookOf,
  firstLookPlan,
  firstLookWords,
  lookSidesSentence,
  resultOf,
  strengthOf,
} from "./first-look";
export { type Beginning, beginWith, type LookAround, READY_BEHAVIOURS, type Readiness, type ReadyState, readinessOf } from "./readiness";
export {
  type EntranceRelief,
  entranceRelief,
  NOTHING,
  type ReliefMap,
  reliefMap,
  reliefOfSession,
  type SessionRelief,
  type ZoneContrast,
  type ZoneRelief,
  type ZoneStay,
  type ZoneSums,
  zoneContrasts,
} from "./relief";
export {
  addSigns,
  commonestSigns,
  compareSigns,
  longEnough,
  NO_SIGNS,
  noNames,
  SIGN_CLASSES,
  SIGN_KINDS,
  SIGNS,
  type SignClass,
  type SignComparison,
  type SignCounts,
  type SignKind,
  type SignRate,
  signRate,
} from "./signs";
export { type NamedHorse, sameName, tellApart } from "./tell-apart";
export {
  besideZone,
  proposeTouch,
  stateOfGrade,
  TOUCH_BEHAVIOUR,
  TOUCH_TOOLS,
  TOUCH_ZONES,
  type Touch,
  TouchMap,
  type TouchProposal,
  type TouchTool,
  type TouchZone,
  type ZoneRecord,
  type ZoneState,
  zoneCaution,
} from "./touch-map";

export { handlerOfBegun } from "./begun";
export { type CareOnDay, careOn, heatLower } from "./care";
export {
  type CirclePack,
  type CircleState,
  COOL_HOURS,
  cautionsOfPlan,
  circleState,
  loadEntriesOf,
  type OpenCoolDown,
  openCoolDowns,
  rampCapsOf,
  secondsByLadder,
  USUAL_START,
} from "./circle";
export { type CircleKit, type CircleLadder, type CircleStart, circleStart, type PlannerStart, plannerStart } from "./circle-start";
export { kitUseOf } from "./kit-use";
export { type OwnSession, withOwnSessions } from "./own-sessions";
export {
  actsBefore,
  doNextOf,
  type HandlerChoices,
  type LadderPart,
  type PackNow,
  packNow,
  type RecorderStart,
  recorderStart,
  type SessionSoFar,
  type ShellStart,
  type StartChoices,
  shellStart,
  startChoices,
  startChoicesByHandler,
  touchesBefore,
  usualSigns,
} from "./start";
export type {
  BegunSession,
  CareNews,
  HorsePack,
  Me,
  Named,
  PackChain,
  PackCircle,
  PackDigest,
  PackedYard,
  PackHorse,
  PackLadder,
  PackMoments,
  PackWorked,
  SessionNews,
  SessionWhole,
  Unfinished,
  YardFacts,
  Zone,
} from "./types";
export { type PackedHorse, packHorse, unpackHorse } from "./wire";

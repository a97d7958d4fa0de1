export { handlerOfBegun } from "./begun";
export { type CareOnDay, careOn } from "./care";
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

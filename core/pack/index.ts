export { handlerOfBegun } from "./begun";
export { emptyPack } from "./empty";
export { type OwnSession, withOwnSessions } from "./own-sessions";
export { secondsByLadder } from "./seconds-by-ladder";
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
export { horseForward, PACK_VERSION, PackProblem, yardForward } from "./versions";
export { type PackedHorse, packHorse, unpackHorse } from "./wire";

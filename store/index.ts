export { addChain, listChains, removeChain, type StoredChain, updateChain } from "./chains";
export { type BatchReceipt, type EventBatch, UnknownSessionError } from "./event-writer";
export {
  addHorse,
  addRestriction,
  asRestriction,
  getHorse,
  getPhoto,
  listHorses,
  listRestrictions,
  namesApart,
  photoChangedMs,
  removeRestriction,
  setAway,
  setPhoto,
  setResting,
  updateHorse,
  updateRestriction,
} from "./horses";
export { type DigestedSession, digestsOfHorse } from "./know";
export {
  addLadder,
  asBehaviour,
  carriedRungs,
  getLadder,
  involvesOf,
  type LadderVersion,
  listLadders,
  listVersions,
  type StoredLadder,
  updateLadder,
} from "./ladders";
export { lockFile, storeFile } from "./location";
export { MIGRATIONS, migrate } from "./migrations";
export type {
  BehaviourRow,
  EventRow,
  HorseRow,
  KitRow,
  PersonRow,
  PlaceRow,
  PracticeRow,
  RestrictionRow,
  SessionRow,
  SessionSummaryRow,
} from "./models";
export {
  addKit,
  addPerson,
  addPractice,
  asKit,
  listKit,
  listPeople,
  listPractice,
  removeKit,
  updateKit,
  updatePerson,
} from "./people";
export { addPlace, getPlace, listPlaces, removePlace, type StoredPlace, updatePlace } from "./places";
export { NotFoundError } from "./rows";
export { hasSampleData, removeSampleData } from "./sample";
export {
  addSession,
  addSessions,
  clockOffsets,
  derivedSeconds,
  eventsOfSession,
  evidenceOfLadder,
  getSession,
  type LoadedSession,
  listSessions,
  loadSession,
  type NewSession,
  type RungEvidence,
  rebuildCaches,
  refreshCaches,
  rungEvidence,
  type SessionOptions,
  type SessionWithSummary,
} from "./sessions";
export { getWordSettings, setWordSettings } from "./settings";
export { closeStore, openStore, readMeta, type Store, writeMeta } from "./store";

export { type Binned, type BinnedNote, bringBack, goesWith, listBin, purgeBin, purgeExpired, putInBin } from "./bin";
export { rebuildCaches, refreshCaches } from "./caches";
export { addChain, listChains, type StoredChain, updateChain } from "./chains";
export { type BatchReceipt, type EventBatch, EventConflictError, eventReach, UnknownSessionError } from "./event-writer";
export { clockOffsets, eventsOfSession } from "./events";
export { type StoreFailure, storeFailure } from "./failure";
export { copyStore, type Restored, removeStoreFile, restoreStore, StoreFileError } from "./file";
export {
  addHorse,
  addRestriction,
  asRestriction,
  endRestriction,
  getHorse,
  getPhoto,
  listHorses,
  listRestrictions,
  namesApart,
  photoChangedMs,
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
  LadderConflictError,
  type LadderVersion,
  listLadders,
  listVersions,
  type StoredLadder,
  setLadderAway,
  updateLadder,
} from "./ladders";
export { linkLockFile, lockFile, storeFile } from "./location";
export { MIGRATION_NAMES, MIGRATIONS, migrate } from "./migrations";
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
  updateKit,
  updatePerson,
} from "./people";
export { addPlace, getPlace, listPlaces, type StoredPlace, updatePlace } from "./places";
export { putSessionRight } from "./put-right";
export { ConflictError, GoneError, NotFoundError } from "./rows";
export { hasSampleData, removeSampleData } from "./sample";
export {
  addSession,
  addSessions,
  derivedSeconds,
  evidenceOfLadder,
  getSession,
  type LoadedSession,
  listSessions,
  loadSession,
  type NewSession,
  type OpenSession,
  openSessions,
  type RungEvidence,
  rungEvidence,
  type SessionOptions,
  type SessionWithSummary,
} from "./sessions";
export { getWordSettings, setWordSettings } from "./settings";
export { closeStore, copyBefore, type OpenOptions, openStore, readMeta, type Store, writeMeta } from "./store";

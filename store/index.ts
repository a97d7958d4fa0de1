export { aftermathsOf } from "./aftermath";
export { type AsideTap, asideCount, asideTaps, movesSession, putAside, settleAside } from "./aside";
export { type Binned, type BinnedNote, bringBack, goesWith, listBin, purgeBin, purgeExpired, putInBin } from "./bin";
export { catchUp, type NotSummed, notSummedIn, rebuildCaches } from "./caches";
export {
  checkStore,
  copiesFolder,
  copyNow,
  copyOf,
  copyOfDay,
  keepDailyCopies,
  listCopies,
  lookAtCopy,
  ownCopy,
  type StoreCare,
  type StoreCopy,
  storeCare,
} from "./care";
export { addChain, listChains, type StoredChain, updateChain } from "./chains";
export {
  addHandLoad,
  circleSetup,
  handLoad,
  kitFits,
  removeHandLoad,
  saveCirclePlan,
  saveCircleSetup,
  saveKitFit,
  unreadCircleSetup,
} from "./circle";
export { addDate, asHorseDate, dateDone, datesByHorse, listDates, removeDate } from "./dates";
export { type BatchReceipt, type EventBatch, EventConflictError, eventReach, UnknownSessionError } from "./event-writer";
export { clockOffsets, eventsOfSession, originsOf, recordersOfLoads } from "./events";
export {
  evidenceForNextStart,
  evidenceOfLadder,
  evidenceOfLadders,
  lastWorkedMs,
  newestEvidence,
  type RungEvidence,
  rungEvidence,
  rungEvidenceByVersion,
} from "./evidence";
export { type StoreFailure, storeFailure } from "./failure";
export { closeToOthers, copyStore, makeForOwnerAlone, type Restored, removeStoreFile, restoreStore, StoreFileError } from "./file";
export {
  addHorse,
  addRestriction,
  asNamed,
  asRestriction,
  endRestriction,
  getHorse,
  getHorseOrBinned,
  getPhoto,
  goAgainst,
  goneAgainst,
  listHorses,
  listRestrictions,
  nameApart,
  namesApart,
  type PhotoType,
  photoChangedMs,
  restrictionsByHorse,
  setAway,
  setPhoto,
  setResting,
  takeBackAgainst,
  updateHorse,
  updateRestriction,
} from "./horses";
export { hoursByKind } from "./hours";
export { keptJson } from "./kept-json";
export { type DigestedSession, digestsOfHorse } from "./know";
export {
  addLadder,
  asBehaviour,
  type BrokenLadder,
  brokenLadder,
  carriedRungs,
  carriedRungsOf,
  getLadder,
  involvesOf,
  isLadderConflict,
  LadderConflictError,
  type LadderVersion,
  ladderHeads,
  ladderNames,
  laddersWithPlans,
  listLadders,
  listVersions,
  type StoredLadder,
  setLadderAway,
  unreadLadders,
  updateLadder,
} from "./ladders";
export { linkLockFile, lockFile, storeFile } from "./location";
export { MIGRATION_NAMES, MIGRATIONS, migrate } from "./migrations";
export type {
  BehaviourRow,
  EventRow,
  HandLoadRow,
  HorseDateRow,
  HorseRow,
  KitRow,
  PersonRow,
  PlaceRow,
  PracticeRow,
  RestrictionRow,
  SessionRow,
  SessionSummaryRow,
} from "./models";
export { addOwnSign, listOwnSigns, pinnedSigns, removeOwnSign, setPinnedSigns } from "./own-signs";
export {
  type Brought,
  type BroughtHorse,
  bringEvents,
  bringTrials,
  CancelledError,
  LEFT_OUT,
  type Merged,
  mergeStore,
  PACKED_TABLES,
  type Reading,
  readPackage,
  type WhoseRows,
  writePackage,
} from "./package";
export { type PastWanted, pastOfHorse } from "./past";
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
export { addPlace, getPlace, listPlaces, placeItems, placeZones, type StoredPlace, updatePlace } from "./places";
export { plansOf, type UnreadPlan, unreadPlan } from "./plans";
export { putSessionRight } from "./put-right";
export { ConflictError, GoneError, isOfCode, NotFoundError } from "./rows";
export { hasSampleData, removeSampleData } from "./sample";
export {
  coolingHorses,
  type ListedBlock,
  lastWorked,
  listSessions,
  type OpenSession,
  openSessions,
  type SessionWithSummary,
} from "./session-lists";
export {
  addSession,
  addSessions,
  derivedSeconds,
  getSession,
  getSessionOrBinned,
  type LoadedSession,
  loadSession,
  type NewSession,
  type SessionOptions,
  sizeOfSession,
} from "./sessions";
export { setSettings } from "./set-settings";
export { getSettings } from "./settings";
export {
  type Access,
  accessOfPeople,
  deviceOf,
  endAllSignIns,
  endSignIn,
  hasOwner,
  type ListedSignIn,
  listSignIns,
  newSecret,
  type SignedIn,
  SignIns,
  setAccess,
  signIn,
} from "./sign-ins";
export { closeStore, copyBefore, type OpenOptions, openStore, readMeta, type Store, writeMeta } from "./store";
export { timeSeen } from "./time-seen";
export { beginTry, endTry, getTry, listTries } from "./try-both";

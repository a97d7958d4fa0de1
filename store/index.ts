export { type BatchReceipt, type EventBatch, UnknownSessionError } from "./event-writer";
export { addHorse, addPerson, addPlace, getHorse, listHorses, listPeople, listPlaces, updateHorse } from "./horses";
export { addLadder, getLadder, listLadders, type StoredLadder, updateLadder } from "./ladders";
export { lockFile, storeFile } from "./location";
export { MIGRATIONS, migrate } from "./migrations";
export type { BehaviourRow, EventRow, HorseRow, PersonRow, PlaceRow, SessionRow, SessionSummaryRow } from "./models";
export { NotFoundError } from "./rows";
export { hasSampleData, removeSampleData } from "./sample";
export {
  addSession,
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
  type SessionWithSummary,
} from "./sessions";
export { closeStore, openStore, readMeta, type Store, writeMeta } from "./store";

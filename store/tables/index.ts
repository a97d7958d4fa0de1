import { circleSetup, handLoad, horse, horseDate, horsePhoto, kitFit, restriction } from "./horse";
import { behaviour, chain, chainLink, ladder, ladderPlan, tryBoth } from "./ladder";
import { event, eventLog, recorderClock, session, sessionSummary, source, stale } from "./session";
import type { RowOf } from "./table";
import { kit, meta, ownSign, person, place, placeItem, practice } from "./yard";

/** Every table that has a model, each after those it points at: a package holds them in this order. */
export const TABLES = {
  person,
  place,
  placeItem,
  kit,
  practice,
  horse,
  horsePhoto,
  horseDate,
  restriction,
  behaviour,
  ladder,
  ladderPlan,
  chain,
  chainLink,
  tryBoth,
  circleSetup,
  kitFit,
  handLoad,
  ownSign,
  recorderClock,
  session,
  event,
  eventLog,
  source,
  sessionSummary,
  stale,
  meta,
} as const;

export type BehaviourRow = RowOf<typeof behaviour>;
export type ChainLinkRow = RowOf<typeof chainLink>;
export type ChainRow = RowOf<typeof chain>;
export type CircleSetupRow = RowOf<typeof circleSetup>;
export type EventLogRow = RowOf<typeof eventLog>;
export type EventRow = RowOf<typeof event>;
export type HandLoadRow = RowOf<typeof handLoad>;
export type HorseDateRow = RowOf<typeof horseDate>;
export type HorsePhotoRow = RowOf<typeof horsePhoto>;
export type HorseRow = RowOf<typeof horse>;
export type KitFitRow = RowOf<typeof kitFit>;
export type KitRow = RowOf<typeof kit>;
export type LadderPlanRow = RowOf<typeof ladderPlan>;
export type LadderRow = RowOf<typeof ladder>;
export type OwnSignRow = RowOf<typeof ownSign>;
export type PersonRow = RowOf<typeof person>;
export type PlaceItemRow = RowOf<typeof placeItem>;
export type PlaceRow = RowOf<typeof place>;
export type PracticeRow = RowOf<typeof practice>;
export type RecorderClockRow = RowOf<typeof recorderClock>;
export type RestrictionRow = RowOf<typeof restriction>;
export type SessionRow = RowOf<typeof session>;
export type SessionSummaryRow = RowOf<typeof sessionSummary>;
export type SourceRow = RowOf<typeof source>;
export type StaleRow = RowOf<typeof stale>;
export type StoreMetaRow = RowOf<typeof meta>;
export type TryBothRow = RowOf<typeof tryBoth>;
export type { Cell, Check } from "./checks";
export { allColumns, type Binnable, type RowOf, type Table } from "./table";

import type { SessionKind } from "@/core/schemas";

/** Rows as the tables hold them. JSON columns are text. */

/** What can go to the bin: since when it lies there, and with what it went; null where it does not. */
export interface Binnable {
  binned_ms?: number | null;
  binned_with?: string | null;
}
export interface PersonRow extends Binnable {
  id: string;
  name: string;
  role: string;
  sample: boolean;
  created_ms: number;
}
export interface PlaceRow extends Binnable {
  id: string;
  name: string;
  shape: string;
  length_m: number | null;
  width_m: number | null;
  footing: string;
  fence: string;
  sample: boolean;
  created_ms: number;
}
export interface PlaceItemRow {
  place_id: string;
  position: number;
  name: string;
  kind: string;
  x_m: number;
  y_m: number;
  across_m: number;
  down_m: number;
  rule: string | null;
}
export interface KitRow extends Binnable {
  id: string;
  name: string;
  kind: string;
  length_m: number | null;
  mass_g: number | null;
  buckles_equal: boolean | null;
  note: string;
  sample: boolean;
  created_ms: number;
}
export interface PracticeRow {
  id: string;
  person_id: string;
  day: string;
  what: string;
  minutes: number;
  note: string;
  created_ms: number;
}
export interface HorseRow extends Binnable {
  id: string;
  name: string;
  born_day: string | null;
  birth_year: number | null;
  sex: string | null;
  kind: string;
  height_cm: number | null;
  mass_kg: number | null;
  history: string;
  triggers: string;
  preferred_reinforcers: string;
  resting_breaths_per_min: number | null;
  resting_heart_per_min: number | null;
  /** Its bounds of heat lie lower. */
  bears_heat_badly: boolean;
  /** Why the horse is put away for now, or null where it is in work. */
  away: string | null;
  away_since: string | null;
  away_note: string;
  /** JSON list of the signs it is watched for. */
  pinned_signs: string;
  /** JSON list of the days on which the yard's settings for young horses were gone against. */
  gone_against: string;
  /** Of a sample horse: what to look at. */
  look_at: string;
  sample: boolean;
  created_ms: number;
}
export interface RestrictionRow {
  id: string;
  horse_id: string;
  kind: string;
  amount: number | null;
  detail: string;
  /** Which leg or side; null or empty means all. */
  limb: string | null;
  carries_others: string | null;
  reason: string;
  given_by: string;
  from_day: string | null;
  until_day: string | null;
  /** Since when it holds no longer, with why; null where its days decide. */
  ended_ms?: number | null;
  ended_why?: string;
  /** JSON list of the days on which it was gone against, each with the reason and who. */
  gone_against?: string;
  created_ms: number;
}
export interface HorseDateRow {
  id: string;
  horse_id: string;
  kind: string;
  day: string;
  every_weeks: number | null;
  note: string;
  /** When it was done; null where it lies ahead. */
  done_ms: number | null;
  created_ms: number;
}
export interface HorsePhotoRow {
  horse_id: string;
  type: string;
  bytes: Buffer;
  changed_ms: number;
}
export interface BehaviourRow {
  id: string;
  name: string;
  finished: string;
  cue: string;
  why: string;
  /** JSON list of what the behaviour involves that a restriction may name. */
  involves: string;
  movement: string;
  template: string | null;
  free: boolean;
  /** JSON list of what other behaviours must have reached. */
  prerequisites: string;
  sample: boolean;
}
export interface LadderRow extends Binnable {
  id: string;
  horse_id: string;
  behaviour_id: string;
  version: number;
  revision: number;
  /** Since when it is put away; null where it is worked. */
  away_ms?: number | null;
  sample: boolean;
  created_ms: number;
}
/** One version of a ladder's plan, as one document. */
export interface LadderPlanRow {
  ladder_id: string;
  version: number;
  /** The format its document is written in. */
  format: number;
  document: string;
  created_ms: number;
}
/** A sign the yard has added to the product's own. */
export interface OwnSignRow {
  class: string;
  name: string;
  created_ms: number;
}
export interface ChainRow extends Binnable {
  id: string;
  horse_id: string;
  name: string;
  direction: string;
  sample: boolean;
  created_ms: number;
}
export interface ChainLinkRow {
  chain_id: string;
  position: number;
  ladder_id: string;
  rung: number;
}
export interface SessionRow extends Binnable {
  id: string;
  horse_id: string;
  person_id: string | null;
  place_id: string | null;
  kind: SessionKind;
  /** Null where the session is not work on a ladder. */
  ladder_id: string | null;
  ladder_version: number | null;
  start_rung: number | null;
  /** JSON list of kit ids. */
  kit: string;
  /** Of a session on the circle: its plan and what was gone against, as JSON. */
  circle: string | null;
  sample: boolean;
  created_ms: number;
  /** Counts the sessions of the store; what hangs on a session names it by this. */
  no: number;
}
export interface EventRow {
  position?: number;
  /** Sixteen bytes; see ids.ts. */
  id: Buffer | string;
  session_no: number;
  source_no: number;
  seq: number;
  mono_ms: number;
  wall_ms: number;
  type: string;
  payload: string;
  received_ms: number;
}
/** An event as the view shows it: with the ids it was tapped under. */
export interface EventLogRow extends Omit<EventRow, "id" | "session_no" | "source_no"> {
  id: string;
  session_id: string;
  recorder: string;
  load: string;
  part: string;
}
/** Where events come from: a recorder, one page load of it, and the part it took; empty for none. */
export interface SourceRow {
  no?: number;
  recorder: string;
  load: string;
  part: string;
}
export interface RecorderClockRow {
  load: string;
  recorder: string;
  offset_ms: number;
}
export interface SessionSummaryRow {
  session_no: number;
  started_ms: number | null;
  finished: boolean;
  /** Whether anything was seen in it; see core's isEmptySession. */
  seen: boolean;
  last_ms: number;
  runs_on_ms: number | null;
  shift_ms: number;
  work_s: number;
  n: number;
  met: number;
  pieces: number;
  food_g: number | null;
  do_next: string | null;
  /** JSON list of notes struck out and not brought back. */
  struck_notes: string | null;
  /** The ribbon in small; see core's compactRibbonOf. */
  drawing: string;
  digest: string;
  /** What the views over weeks read of it; see core's pastFactsOf. */
  past: string;
  /** What it came to on the circle, as JSON; null for every other. */
  circle: string | null;
  /** What it leaves for the next start, as JSON; null before any work. See core's aftermathOf. */
  aftermath: string | null;
}
/** An experiment that tries two ways on one rung of a ladder. */
/** How one horse works on the circle, as JSON. */
export interface CircleSetupRow {
  horse_id: string;
  body: string;
  updated_ms: number;
}

/** How a piece of kit fits a horse, as JSON. */
export interface KitFitRow {
  horse_id: string;
  kit_id: string;
  body: string;
  updated_ms: number;
}

/** Work entered by hand. */
export interface HandLoadRow {
  id: string;
  horse_id: string;
  day: string;
  kind: string;
  minutes: number;
  note: string;
  created_ms: number;
}

export interface TryBothRow {
  id: string;
  horse_id: string;
  ladder_id: string;
  ladder_version: number;
  rung: number;
  question: string;
  way_a: string;
  way_b: string;
  /** JSON of what each way changes of the plan; null in one begun before 0.14. */
  way_changes: string | null;
  counts: string;
  /** JSON list of A and B, as drawn. */
  arms: string;
  most_alike: number;
  asks_each: number;
  created_ms: number;
  ended_ms: number | null;
  ended_why: string | null;
}
/** Sessions whose caches are behind their events. */
export interface StaleRow {
  session_no: number;
}
export interface BlockRow {
  session_no: number;
  position: number;
  number: number;
  behaviour: string;
  ladder_no: number | null;
  version: number | null;
  rung: string;
  side: string | null;
  kind: string | null;
  seconds: number;
  n: number;
  met: number;
}
export interface RungSideSummaryRow {
  session_no: number;
  ladder_no: number;
  version: number;
  rung: number;
  side: string;
  n: number;
  met: number;
  met_at_lightest: number;
}
export interface StoreMetaRow {
  key: string;
  value: string;
}

import { SESSION_KINDS } from "@/core/schemas";
import { isRecord } from "@/core/typed";
import * as is from "./checks";
import { blob, choice, flag, key, numbered, optional, orNull, real, text, whole } from "./column";
import { binnable, table } from "./table";

const MOST_YEARS_OFF_MS = 100 * 366 * 86_400_000;

/** Sessions. */
export const session = binnable(
  "session",
  { packed: ["id"], stays: ["no"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    person_id: orNull(text(is.id)),
    place_id: orNull(text(is.id)),
    kind: choice(SESSION_KINDS),
    /** Null where the session is not work on a ladder. */
    ladder_id: orNull(text(is.id)),
    ladder_version: orNull(whole(is.within(1, 1_000_000))),
    start_rung: orNull(whole(is.within(1, 1000))),
    /** JSON list of kit ids. */
    kit: text(is.json(is.textsOf(200))),
    /** Of a session on the circle: its plan and what was gone against, as JSON. */
    circle: orNull(text(is.json(isRecord))),
    sample: flag(),
    created_ms: real(is.time),
    /** Counts the sessions of the store; what hangs on a session names it by this. */
    no: whole(),
  },
);

/** The log of taps; nothing in it is ever changed. */
export const event = table(
  "event",
  {},
  {
    position: numbered(optional(whole())),
    /** Sixteen bytes; see ids.ts. */
    id: blob<Buffer | string>(),
    session_no: whole(),
    source_no: whole(),
    seq: whole(),
    mono_ms: real(),
    wall_ms: real(),
    type: text(),
    payload: text(),
    received_ms: real(),
  },
);

/** A view: events as they were tapped. */
export const eventLog = table(
  "event_log",
  {},
  {
    position: key(optional(whole())),
    id: text(is.id),
    session_id: text(is.id),
    recorder: text(is.text(200)),
    load: text(is.id),
    part: text(is.text(40)),
    seq: whole(is.within(0, 1e12)),
    mono_ms: real(is.within(0, 1e12)),
    wall_ms: real(is.within(-1e14, 1e14)),
    type: text(is.text(40)),
    payload: text(is.anyText),
    received_ms: real(is.time),
  },
);

/** Where events come from: a recorder, one page load of it, and the part it took; empty for none. */
export const source = table(
  "source",
  {},
  {
    no: key(optional(whole())),
    recorder: text(),
    load: text(),
    part: text(),
  },
);

/** A page load's clock against this computer's. */
export const recorderClock = table(
  "recorder_clock",
  { packed: ["load"] },
  {
    load: key(text(is.id)),
    recorder: text(is.text(200)),
    offset_ms: real(is.within(-MOST_YEARS_OFF_MS, MOST_YEARS_OFF_MS)),
  },
);

/** What a session came to, worked out from its events. */
export const sessionSummary = table(
  "session_summary",
  {},
  {
    session_no: key(whole()),
    started_ms: orNull(real()),
    finished: flag(),
    /** Whether anything was seen in it; see core's isEmptySession. */
    seen: flag(),
    last_ms: real(),
    runs_on_ms: orNull(real()),
    shift_ms: real(),
    work_s: real(),
    n: whole(),
    met: whole(),
    pieces: whole(),
    food_g: orNull(real()),
    do_next: orNull(text()),
    /** JSON list of notes struck out and not brought back. */
    struck_notes: orNull(text()),
    /** The ribbon in small; see core's compactRibbonOf. */
    drawing: text(),
    digest: text(),
    /** What the views over weeks read of it; see core's pastFactsOf. */
    past: text(),
    /** What it came to on the circle, as JSON; null for every other. */
    circle: orNull(text()),
    /** What it leaves for the next start, as JSON; null before any work. See core's aftermathOf. */
    aftermath: orNull(text()),
  },
);

/** Sessions whose caches are behind their events. */
export const stale = table(
  "stale",
  {},
  {
    session_no: key(whole()),
  },
);

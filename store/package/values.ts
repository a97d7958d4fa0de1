import { CIRCLE_SOUND_NAMES } from "@/core/circle";
import { isDay, LATEST_YEAR } from "@/core/day";
import { COUNTED } from "@/core/experiment";
import { PLACE_ITEM_KINDS, PLACE_SHAPES } from "@/core/place";
import { check, circleSetupSchema, HORSE_SEXES, kitFitSchema, pinnedSignsSchema, SESSION_KINDS } from "@/core/schemas";
import { SIGN_KINDS } from "@/core/signs";
import { DATE_KINDS, KIT_KINDS } from "@/core/welfare";
import { type Check, count, day, flag, id, isRecord, json, listOf, name, oneOf, text, textsOf, time, within } from "./cell-checks";

const against = json(
  listOf(500, (one) => isRecord(one) && isDay((one as { day?: unknown }).day) && typeof (one as { reason?: unknown }).reason === "string"),
);
const pinned = json((value) => check(pinnedSignsSchema, { signs: value }).ok);
const SETUP = ["ways", "stiffer", "stiffer_first", "caps", "sounds", "ramp", "plan"] as const;
const setup = json(
  (value) =>
    isRecord(value) &&
    (value as { changed?: unknown }).changed !== null &&
    check(circleSetupSchema, Object.fromEntries(SETUP.map((key) => [key, (value as Record<string, unknown>)[key]]))).ok &&
    listOf(
      20,
      (one) =>
        isRecord(one) &&
        (CIRCLE_SOUND_NAMES as readonly unknown[]).includes((one as { before?: unknown }).before) &&
        isDay((one as { since?: unknown }).since),
    )((value as { changed?: unknown }).changed ?? []),
);
const fit = json((value) => check(kitFitSchema, value).ok);

const LONGEST_DOCUMENT = 500_000;
const plainDocument: Check = (value) =>
  typeof value !== "string" ? "is no text." : value.length > LONGEST_DOCUMENT ? `is longer than ${LONGEST_DOCUMENT} characters.` : null;

const binned = { binned_ms: time, binned_with: text(100) };
const sample = flag;
const MOST_YEARS_OFF_MS = 100 * 366 * 86_400_000;
const photoBytes: Check = (value) => (/^[A-Za-z0-9+/]*={0,2}$/.test(String(value)) ? null : "is no picture.");

/**
 * What each column of a package may hold. An empty cell is judged by whether
 * the column may be empty, and by nothing here.
 * A plan is judged whole, when it is read; a restriction whose kind this version does not know is
 * kept, and closes all work until somebody has read it.
 */
export const VALUES: Readonly<Record<string, Readonly<Record<string, Check>>>> = {
  person: { id, name, role: text(40), sample, created_ms: time, ...binned },
  place: {
    id,
    name,
    shape: oneOf(PLACE_SHAPES),
    length_m: within(0.1, 100_000),
    width_m: within(0.1, 100_000),
    footing: text(80),
    fence: text(80),
    sample,
    created_ms: time,
    ...binned,
  },
  place_item: {
    place_id: id,
    position: count,
    name,
    kind: oneOf(PLACE_ITEM_KINDS),
    x_m: within(-100_000, 100_000),
    y_m: within(-100_000, 100_000),
    across_m: within(0, 100_000),
    down_m: within(0, 100_000),
    rule: text(400),
  },
  kit: {
    id,
    name,
    kind: oneOf(KIT_KINDS),
    length_m: within(0, 1000),
    mass_g: within(0, 10_000_000),
    buckles_equal: flag,
    note: text(),
    sample,
    created_ms: time,
    ...binned,
  },
  practice: { id, person_id: id, day, what: text(200), minutes: within(0, 1440), note: text(), created_ms: time },
  horse: {
    id,
    name,
    birth_year: within(1900, LATEST_YEAR),
    born_day: day,
    sex: oneOf(HORSE_SEXES),
    kind: text(200),
    height_cm: within(1, 300),
    mass_kg: within(1, 3000),
    history: text(),
    triggers: text(),
    preferred_reinforcers: text(),
    resting_breaths_per_min: within(1, 200),
    resting_heart_per_min: within(1, 300),
    away: text(80),
    away_since: day,
    away_note: text(),
    pinned_signs: pinned,
    gone_against: against,
    look_at: text(),
    bears_heat_badly: flag,
    sample,
    created_ms: time,
    ...binned,
  },
  horse_photo: { horse_id: id, type: oneOf(["image/jpeg", "image/png", "image/webp"]), bytes: photoBytes, changed_ms: time },
  horse_date: {
    id,
    horse_id: id,
    kind: oneOf(DATE_KINDS),
    day,
    every_weeks: within(1, 520),
    note: text(),
    done_ms: time,
    created_ms: time,
  },
  restriction: {
    id,
    horse_id: id,
    kind: text(80),
    amount: within(-1e9, 1e9),
    detail: text(80),
    limb: text(40),
    carries_others: text(10),
    reason: text(),
    given_by: text(400),
    from_day: text(40),
    until_day: text(40),
    ended_ms: time,
    ended_why: text(),
    gone_against: against,
    created_ms: time,
  },
  behaviour: {
    id,
    name: text(200),
    finished: text(),
    cue: text(),
    why: text(),
    involves: json(textsOf(50)),
    movement: text(80),
    template: text(100),
    free: flag,
    prerequisites: json(listOf(100, isRecord)),
    sample,
  },
  ladder: {
    id,
    horse_id: id,
    behaviour_id: id,
    version: within(1, 1_000_000),
    revision: within(0, 10_000_000),
    away_ms: time,
    sample,
    created_ms: time,
    ...binned,
  },
  // What it says is judged when it is read: one that this version cannot read is kept, and named.
  ladder_plan: { ladder_id: id, version: within(1, 1_000_000), format: within(1, 1000), document: plainDocument, created_ms: time },
  chain: { id, horse_id: id, name: text(200), direction: text(40), sample, created_ms: time, ...binned },
  chain_link: { chain_id: id, position: count, ladder_id: id, rung: within(1, 1000) },
  try_both: {
    id,
    horse_id: id,
    ladder_id: id,
    ladder_version: within(1, 1_000_000),
    rung: within(1, 1000),
    question: text(400),
    way_a: text(200),
    way_b: text(200),
    way_changes: json((value) => value === null || isRecord(value)),
    counts: oneOf(COUNTED),
    arms: json(listOf(200, (arm) => arm === "A" || arm === "B")),
    most_alike: within(1, 1000),
    asks_each: within(1, 10_000),
    created_ms: time,
    ended_ms: time,
    ended_why: text(),
  },
  circle_setup: { horse_id: id, body: setup, updated_ms: time },
  kit_fit: { horse_id: id, kit_id: id, body: fit, updated_ms: time },
  hand_load: { id, horse_id: id, day, kind: text(40), minutes: within(0, 1440), note: text(), created_ms: time },
  own_sign: { class: oneOf(SIGN_KINDS), name, created_ms: time },
  recorder_clock: { load: id, recorder: text(200), offset_ms: within(-MOST_YEARS_OFF_MS, MOST_YEARS_OFF_MS) },
  session: {
    id,
    horse_id: id,
    person_id: id,
    place_id: id,
    kind: oneOf(SESSION_KINDS),
    ladder_id: id,
    ladder_version: within(1, 1_000_000),
    start_rung: within(1, 1000),
    kit: json(textsOf(200)),
    circle: json(isRecord),
    sample,
    created_ms: time,
    ...binned,
  },
  event: {
    id,
    session_id: id,
    recorder: text(200),
    load: id,
    part: text(40),
    seq: within(0, 1e12),
    mono_ms: within(0, 1e12),
    wall_ms: within(-1e14, 1e14),
    type: text(40),
    payload: (value) => (typeof value === "string" ? null : "is no text."),
    received_ms: time,
  },
  settings: { key: text(80), value: json(isRecord) },
};

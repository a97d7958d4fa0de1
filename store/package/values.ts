import { CIRCLE_SOUND_NAMES } from "@/core/circle";
import { EARLIEST_YEAR, isDay, LATEST_YEAR } from "@/core/day";
import { COUNTED } from "@/core/experiment";
import { METHODS } from "@/core/ladder";
import { PLACE_ITEM_KINDS, PLACE_SHAPES } from "@/core/place";
import {
  check,
  circleSetupSchema,
  FORM_LIMITS,
  HORSE_SEXES,
  kitFitSchema,
  pinnedSignsSchema,
  SESSION_KINDS,
  wireProblem,
} from "@/core/schemas";
import { SIGN_KINDS } from "@/core/signs";
import { DATE_KINDS, KIT_KINDS } from "@/core/welfare";
import type { Cell } from "./typed-rows";

/** What is wrong with the value of a column, in words that follow its name; null where nothing is. */
type Check = (value: Cell) => string | null;

// biome-ignore lint/suspicious/noControlCharactersInRegex: they are exactly what is looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const LONG_TEXT = 4000;
const shown = (value: Cell) => `“${`${value}`.slice(0, 60)}”`;

const text =
  (most = LONG_TEXT): Check =>
  (value) =>
    typeof value !== "string"
      ? "is no text."
      : value.length > most
        ? `is longer than ${most} characters.`
        : CONTROL.test(value)
          ? "is no plain text."
          : null;
const id = text(100);
const name: Check = (value) => text(80)(value) ?? (String(value).trim() === "" ? "is empty." : null);
const oneOf =
  (words: readonly string[]): Check =>
  (value) =>
    words.includes(String(value)) ? null : `${shown(value)} is not known here.`;
const within =
  (least: number, most: number): Check =>
  (value) =>
    typeof value === "number" && value >= least && value <= most ? null : `${shown(value)} is not from ${least} to ${most}.`;
const flag: Check = (value) => (value === 0 || value === 1 ? null : `${shown(value)} is neither 0 nor 1.`);
const day: Check = (value) => (isDay(value) ? null : `${shown(value)} is no day from ${EARLIEST_YEAR} to ${LATEST_YEAR}.`);
const time: Check = (value) =>
  typeof value === "number" && value >= Date.UTC(1900, 0) && value < Date.UTC(LATEST_YEAR + 1, 0)
    ? null
    : `${shown(value)} is no time of ours.`;
/** JSON that holds what it should; never deeper or larger than a form may be. */
const json =
  (is: (value: unknown) => boolean): Check =>
  (value) => {
    let found: unknown;
    try {
      found = JSON.parse(String(value));
    } catch {
      return "cannot be read.";
    }
    return wireProblem(found, FORM_LIMITS) === null && is(found) ? null : `${shown(value)} is not what belongs there.`;
  };
const isRecord = (value: unknown): boolean => typeof value === "object" && value !== null && !Array.isArray(value);
const textsOf = (most: number) => (value: unknown) =>
  Array.isArray(value) && value.length <= most && value.every((one) => typeof one === "string" && one.length <= 200);
const listOf = (most: number, is: (value: unknown) => boolean) => (value: unknown) =>
  Array.isArray(value) && value.length <= most && value.every(is);

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

const binned = { binned_ms: time, binned_with: text(100) };
const sample = flag;
const count = within(0, 1_000_000);
const MOST_YEARS_OFF_MS = 100 * 366 * 86_400_000;
const photoBytes: Check = (value) => (/^[A-Za-z0-9+/]*={0,2}$/.test(String(value)) ? null : "is no picture.");

/**
 * What each column of a package may hold. An empty cell is judged by whether
 * the column may be empty, and by nothing here. A plan is judged whole, when
 * its tables are there; a restriction whose kind this version does not know is
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
  ladder_version: {
    ladder_id: id,
    version: within(1, 1_000_000),
    method: oneOf(METHODS),
    maximum_s: within(0, 100_000),
    mastery: json(isRecord),
    schedule: json(isRecord),
    offers: text(40),
    working_strand: text(100),
    planned: count,
    hold_on_wrong: flag,
    first_touch_cm: within(0, 100_000),
    transfer_gap_s: within(0, 100_000),
    reinforcer: text(40),
    piece_g: within(0, 100_000),
    day_limit_g: within(0, 1_000_000),
    fed_where: text(400),
    polite_s: within(0, 100_000),
    ways: json((value) => Array.isArray(value) || isRecord(value)),
    conversation: json(isRecord),
    created_ms: time,
  },
  strand: {
    ladder_id: id,
    version: within(1, 1_000_000),
    position: count,
    strand_id: id,
    key: text(80),
    name: text(200),
    kind: oneOf(["number", "levels"]),
    unit: text(40),
    levels: json(textsOf(100)),
    harder: text(40),
  },
  rung: {
    ladder_id: id,
    version: within(1, 1_000_000),
    number: within(1, 1000),
    rung_values: json(isRecord),
    method: oneOf(METHODS),
    schedule: json(isRecord),
    percentile: json(isRecord),
    kept: text(400),
    least_movement: within(0, 4),
    handler_most: json(Array.isArray),
  },
  cue_phase: {
    ladder_id: id,
    version: within(1, 1_000_000),
    number: within(1, 100),
    label: text(200),
    kind: text(40),
    profile: text(40),
    dwell_s: within(0, 100_000),
    pulses_per_min: within(0, 100_000),
  },
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

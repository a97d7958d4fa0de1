import { CIRCLE_SOUND_NAMES } from "@/core/circle";
import { isDay, LATEST_YEAR } from "@/core/day";
import { check, circleSetupSchema, HORSE_SEXES, kitFitSchema, pinnedSignsSchema } from "@/core/schemas";
import { isOneOf, isRecord } from "@/core/typed";
import { DATE_KINDS } from "@/core/welfare";
import * as is from "./checks";
import { blob, choice, flag, key, optional, orNull, real, text, whole } from "./column";
import { binnable, table } from "./table";

const against = is.json(is.listOf(500, (one) => isRecord(one) && isDay(one.day) && typeof one.reason === "string"));
const pinned = is.json((value) => check(pinnedSignsSchema, { signs: value }).ok);
const SETUP = ["ways", "stiffer", "stiffer_first", "caps", "sounds", "ramp", "plan"] as const;
const setup = is.json(
  (value) =>
    isRecord(value) &&
    value.changed !== null &&
    check(circleSetupSchema, Object.fromEntries(SETUP.map((key) => [key, value[key]]))).ok &&
    is.listOf(20, (one) => isRecord(one) && isOneOf(CIRCLE_SOUND_NAMES, one.before) && isDay(one.since))(value.changed ?? []),
);
const fit = is.json((value) => check(kitFitSchema, value).ok);

/** The kinds of picture that are kept. */
export const PHOTO_TYPES = ["image/jpeg", "image/png", "image/webp"] as const;
const photoBytes: is.Check = (value) => (/^[A-Za-z0-9+/]*={0,2}$/.test(String(value)) ? null : "is no picture.");

/** Horses. */
export const horse = binnable(
  "horse",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    name: text(is.name),
    born_day: orNull(text(is.day)),
    birth_year: orNull(whole(is.within(1900, LATEST_YEAR))),
    sex: orNull(choice(HORSE_SEXES)),
    kind: text(is.text(200)),
    height_cm: orNull(real(is.within(1, 300))),
    mass_kg: orNull(real(is.within(1, 3000))),
    history: text(is.text()),
    triggers: text(is.text()),
    preferred_reinforcers: text(is.text()),
    resting_breaths_per_min: orNull(real(is.within(1, 200))),
    resting_heart_per_min: orNull(real(is.within(1, 300))),
    /** Its bounds of heat lie lower. */
    bears_heat_badly: flag(),
    /** Why the horse is put away for now, or null where it is in work. */
    away: orNull(text(is.text(80))),
    away_since: orNull(text(is.day)),
    away_note: text(is.text()),
    /** JSON list of the signs it is watched for. */
    pinned_signs: text(pinned),
    /** JSON list of the days on which the yard's settings for young horses were gone against. */
    gone_against: text(against),
    /** Of a sample horse: what to look at. */
    look_at: text(is.text()),
    sample: flag(),
    created_ms: real(is.time),
  },
);

/** A horse's picture. */
export const horsePhoto = table(
  "horse_photo",
  { packed: ["horse_id"] },
  {
    horse_id: key(text(is.id)),
    type: choice(PHOTO_TYPES),
    bytes: blob<Buffer>(photoBytes),
    changed_ms: real(is.time),
  },
);

/** Dates of a horse: trims, the vet, shows. */
export const horseDate = table(
  "horse_date",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    kind: choice(DATE_KINDS),
    day: text(is.day),
    every_weeks: orNull(whole(is.within(1, 520))),
    note: text(is.text()),
    /** When it was done; null where it lies ahead. */
    done_ms: orNull(real(is.time)),
    created_ms: real(is.time),
  },
);

/** What limits the work with a horse. */
export const restriction = table(
  "restriction",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    kind: text(is.text(80)),
    amount: orNull(real(is.within(-1e9, 1e9))),
    detail: text(is.text(80)),
    /** Which leg or side; null or empty means all. */
    limb: orNull(text(is.text(40))),
    carries_others: orNull(text(is.text(10))),
    reason: text(is.text()),
    given_by: text(is.text(400)),
    from_day: orNull(text(is.text(40))),
    until_day: orNull(text(is.text(40))),
    /** Since when it holds no longer, with why; null where its days decide. */
    ended_ms: optional(orNull(real(is.time))),
    ended_why: optional(text(is.text())),
    /** JSON list of the days on which it was gone against, each with the reason and who. */
    gone_against: optional(text(against)),
    created_ms: real(is.time),
  },
);

/** How a horse works on the circle, as JSON. */
export const circleSetup = table(
  "circle_setup",
  { packed: ["horse_id"] },
  {
    horse_id: key(text(is.id)),
    body: text(setup),
    updated_ms: real(is.time),
  },
);

/** How a piece of kit fits a horse, as JSON. */
export const kitFit = table(
  "kit_fit",
  { packed: ["horse_id", "kit_id"] },
  {
    horse_id: key(text(is.id)),
    kit_id: key(text(is.id)),
    body: text(fit),
    updated_ms: real(is.time),
  },
);

/** Work entered by hand. */
export const handLoad = table(
  "hand_load",
  { packed: ["id"] },
  {
    id: key(text(is.id)),
    horse_id: text(is.id),
    day: text(is.day),
    kind: text(is.text(40)),
    minutes: real(is.within(0, 1440)),
    note: text(is.text()),
    created_ms: real(is.time),
  },
);

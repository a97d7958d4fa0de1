import { randomUUID as newId } from "node:crypto";
import type { Day } from "@/core/day";
import { sameName, tellApart } from "@/core/know";
import { type AwayInput, type HorseInput, type RestingInput, type RestrictionInput, readRestriction } from "@/core/schemas";
import { type GoneAgainst, goneAgainstIn, type Restriction } from "@/core/welfare";
import type { HorsePhotoRow, HorseRow, RestrictionRow } from "./models";
import { NotFoundError, pick, plain, rowsOf } from "./rows";
import type { Store } from "./store";
import type { PHOTO_TYPES } from "./tables/horse";

/** All horses by name. */
export async function listHorses(store: Store): Promise<HorseRow[]> {
  const rows = await rowsOf(store.models.horse);
  return rows.sort((a, b) => a.name.localeCompare(b.name) || a.created_ms - b.created_ms);
}

/** @throws NotFoundError where there is no such horse. */
export async function getHorse(store: Store, id: string): Promise<HorseRow> {
  const [row] = await rowsOf(store.models.horse, "id = :id", { id });
  if (row === undefined) throw new NotFoundError("There is no such horse.");
  return row;
}

const HORSE_COLUMNS = [
  "name",
  "born_day",
  "kind",
  "height_cm",
  "mass_kg",
  "history",
  "triggers",
  "preferred_reinforcers",
  "resting_breaths_per_min",
  "resting_heart_per_min",
] as const;

const columnsOf = (input: HorseInput) => ({
  ...pick(input, HORSE_COLUMNS),
  sex: input.sex ?? null,
  ...(input.bears_heat_badly === undefined ? {} : { bears_heat_badly: input.bears_heat_badly }),
  // The day decides the year, so that lists and files need only one of them.
  birth_year: input.born_day == null ? input.birth_year : Number(input.born_day.slice(0, 4)),
});

const RESTING_COLUMNS = ["resting_breaths_per_min", "resting_heart_per_min"] as const;
const RESTRICTION_COLUMNS = ["kind", "amount", "detail", "limb", "carries_others", "reason", "given_by", "from_day", "until_day"] as const;

const IN_WORK = { away: null, away_since: null, away_note: "" };

/** Adds a horse and gives its id. */
export async function addHorse(
  store: Store,
  input: HorseInput,
  options: { id?: string; sample?: boolean; lookAt?: string } = {},
): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.horse.create(
      {
        id,
        bears_heat_badly: false,
        ...columnsOf(input),
        ...IN_WORK,
        look_at: options.lookAt ?? "",
        sample: options.sample ?? false,
        created_ms: store.now(),
      },
      { transaction },
    ),
  );
  return id;
}

/** @throws NotFoundError where there is no such horse. */
export async function updateHorse(store: Store, id: string, input: HorseInput): Promise<void> {
  await getHorse(store, id);
  await store.writer.write((transaction) => store.models.horse.update(columnsOf(input), { where: { id }, transaction }));
}

/** Keeps a horse's own resting rates. @throws NotFoundError where there is no such horse. */
export async function setResting(store: Store, id: string, rates: RestingInput): Promise<void> {
  await getHorse(store, id);
  await store.writer.write((transaction) => store.models.horse.update(pick(rates, RESTING_COLUMNS), { where: { id }, transaction }));
}

/** Puts a horse away, or brings it back with null. Its history stays as it is. @throws NotFoundError where there is no such horse. */
export async function setAway(store: Store, id: string, away: AwayInput | null): Promise<void> {
  await getHorse(store, id);
  const columns = { away: away?.kind ?? null, away_since: away?.since ?? null, away_note: away?.note ?? "" };
  await store.writer.write((transaction) => store.models.horse.update(columns, { where: { id }, transaction }));
}

/** A horse as core tells it from others of its name. */
export const asNamed = ({ id, name, sex, birth_year, kind, created_ms }: HorseRow) => ({
  id,
  name,
  sex,
  birthYear: birth_year,
  kind,
  createdMs: created_ms,
});

/** What to write after each horse's name where another has the same one; see {@link tellApart}. */
export const namesApart = async (store: Store): Promise<Map<string, string>> => tellApart((await listHorses(store)).map(asNamed));

/** The same of one horse: only those of its own name are looked at. */
export async function nameApart(store: Store, horse: HorseRow): Promise<string> {
  const alike = (await rowsOf(store.models.horse)).filter(({ name }) => sameName(name, horse.name));
  return alike.length < 2 ? "" : (tellApart(alike.map(asNamed)).get(horse.id) ?? "");
}

const endingFirst = (a: RestrictionRow, b: RestrictionRow) =>
  (a.until_day ?? "9999").localeCompare(b.until_day ?? "9999") || a.created_ms - b.created_ms;

/** Every horse's restrictions, by horse, the one that ends first first. */
export async function restrictionsByHorse(store: Store): Promise<ReadonlyMap<string, readonly RestrictionRow[]>> {
  const found = new Map<string, RestrictionRow[]>();
  for (const row of (await rowsOf(store.models.restriction)).sort(endingFirst))
    found.set(row.horse_id, [...(found.get(row.horse_id) ?? []), row]);
  return found;
}

/** A horse's restrictions, the one that ends first first. */
export async function listRestrictions(store: Store, horseId: string): Promise<RestrictionRow[]> {
  const rows = await rowsOf(store.models.restriction, "horse_id = :horse", { horse: horseId });
  return rows.sort(endingFirst);
}

/** Adds a restriction and gives its id. @throws NotFoundError where there is no such horse. */
export async function addRestriction(
  store: Store,
  horseId: string,
  input: RestrictionInput,
  options: { id?: string } = {},
): Promise<string> {
  await getHorse(store, horseId);
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.restriction.create(
      { id, horse_id: horseId, ...pick(input, RESTRICTION_COLUMNS), created_ms: store.now() },
      { transaction },
    ),
  );
  return id;
}

async function restrictionOf(store: Store, horseId: string, id: string): Promise<void> {
  if ((await store.models.restriction.count({ where: { id, horse_id: horseId } })) === 0)
    throw new NotFoundError("There is no such restriction.");
}

/** @throws NotFoundError where the horse has no such restriction. */
export async function updateRestriction(store: Store, horseId: string, id: string, input: RestrictionInput): Promise<void> {
  await restrictionOf(store, horseId, id);
  await store.writer.write((transaction) =>
    store.models.restriction.update(pick(input, RESTRICTION_COLUMNS), { where: { id }, transaction }),
  );
}

/**
 * Ends a restriction with the reason, or lets it hold again with null. It stays in the list.
 * @throws NotFoundError where the horse has no such restriction.
 */
export async function endRestriction(store: Store, horseId: string, id: string, why: string | null): Promise<void> {
  await restrictionOf(store, horseId, id);
  const columns = why === null ? { ended_ms: null, ended_why: "" } : { ended_ms: store.now(), ended_why: why };
  await store.writer.write((transaction) => store.models.restriction.update(columns, { where: { id }, transaction }));
}

/** A restriction as the core takes it; one that this version cannot read closes all work. */
export const asRestriction = (row: RestrictionRow): Restriction => readRestriction(row);

/** Days on which the yard's settings for young horses were gone against with this horse. */
export const goneAgainst = (row: Pick<HorseRow, "gone_against">): GoneAgainst[] => goneAgainstIn(row.gone_against);

/**
 * Goes against a restriction for one day, or against the yard's settings for
 * young horses where none is named; it stays in the list with the reason.
 * @throws NotFoundError where there is no such horse or restriction.
 */
export async function goAgainst(store: Store, horseId: string, restrictionId: string | null, day: Day, reason: string): Promise<void> {
  const entry = { day, reason, at_ms: store.now() };
  await changeAgainst(store, horseId, restrictionId, (kept) => [...kept, entry]);
}

/**
 * Takes back what was gone against on a day: from then on the restriction
 * holds that day too. What was said stays in the list. Done again it changes nothing.
 * @throws NotFoundError where there is no such horse or restriction.
 */
export async function takeBackAgainst(store: Store, horseId: string, restrictionId: string | null, day: Day): Promise<void> {
  const taken_back_ms = store.now();
  await changeAgainst(store, horseId, restrictionId, (kept) =>
    kept.map((one) => (one.day === day && one.taken_back_ms === undefined ? { ...one, taken_back_ms } : one)),
  );
}

async function changeAgainst(
  store: Store,
  horseId: string,
  restrictionId: string | null,
  change: (kept: readonly GoneAgainst[]) => readonly GoneAgainst[],
): Promise<void> {
  const horse = await getHorse(store, horseId);
  if (restrictionId !== null) await restrictionOf(store, horseId, restrictionId);
  await store.writer.write(async (transaction) => {
    if (restrictionId === null) {
      const row = await store.models.horse.findByPk(horse.id, { transaction });
      const kept = change(goneAgainstIn(row?.get("gone_against") as string | undefined));
      return store.models.horse.update({ gone_against: JSON.stringify(kept) }, { where: { id: horse.id }, transaction });
    }
    const row = await store.models.restriction.findByPk(restrictionId, { transaction });
    const kept = change(goneAgainstIn(row?.get("gone_against") as string | undefined));
    return store.models.restriction.update({ gone_against: JSON.stringify(kept) }, { where: { id: restrictionId }, transaction });
  });
}

/** A horse, in the bin or out of it. @throws NotFoundError where there is none. */
export async function getHorseOrBinned(store: Store, id: string): Promise<HorseRow> {
  const found = await store.models.horse.unscoped().findByPk(id);
  if (found === null) throw new NotFoundError("There is no such horse.");
  return plain(found);
}

/** A horse's picture, or null. */
export async function getPhoto(store: Store, horseId: string): Promise<HorsePhotoRow | null> {
  const row = await store.models.horsePhoto.findByPk(horseId);
  return row === null ? null : plain(row);
}

/** When a horse's picture was last changed, or null where it has none. */
export async function photoChangedMs(store: Store, horseId: string): Promise<number | null> {
  const row = await store.models.horsePhoto.findByPk(horseId, { attributes: ["changed_ms"] });
  return row === null ? null : Number(row.get("changed_ms"));
}

export type PhotoType = (typeof PHOTO_TYPES)[number];

/** Keeps a horse's picture, or takes it away with null. @throws NotFoundError where there is no such horse. */
export async function setPhoto(
  store: Store,
  horseId: string,
  photo: { readonly type: PhotoType; readonly bytes: Buffer } | null,
): Promise<void> {
  await getHorse(store, horseId);
  await store.writer.write(async (transaction) => {
    await store.models.horsePhoto.destroy({ where: { horse_id: horseId }, transaction });
    if (photo !== null) await store.models.horsePhoto.create({ horse_id: horseId, ...photo, changed_ms: store.now() }, { transaction });
  });
}

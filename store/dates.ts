import { randomUUID as newId } from "node:crypto";
import type { HorseDateInput } from "@/core/schemas";
import { dayAfterWeeks, type HorseDate } from "@/core/welfare";
import { getHorse } from "./horses";
import type { HorseDateRow } from "./models";
import { NotFoundError, pick, rowsOf } from "./rows";
import type { Store } from "./store";

const COLUMNS = ["kind", "day", "every_weeks", "note"] as const;
const earliestFirst = (a: HorseDateRow, b: HorseDateRow) => a.day.localeCompare(b.day) || a.created_ms - b.created_ms;

/** A date as the core takes it. */
export const asHorseDate = (row: HorseDateRow): HorseDate => ({
  kind: row.kind,
  day: row.day,
  everyWeeks: row.every_weeks,
  note: row.note,
});

/** Dates of every horse that lie ahead or are due, by horse, the earliest first. */
export async function datesByHorse(store: Store): Promise<ReadonlyMap<string, readonly HorseDateRow[]>> {
  const found = new Map<string, HorseDateRow[]>();
  for (const row of (await rowsOf(store.models.horseDate, "done_ms IS NULL")).sort(earliestFirst))
    found.set(row.horse_id, [...(found.get(row.horse_id) ?? []), row]);
  return found;
}

/** A horse's dates, done ones too, the earliest first. */
export const listDates = async (store: Store, horseId: string): Promise<HorseDateRow[]> =>
  (await rowsOf(store.models.horseDate, "horse_id = :horse", { horse: horseId })).sort(earliestFirst);

/** Adds a date and gives its id. @throws NotFoundError where there is no such horse. */
export async function addDate(store: Store, horseId: string, input: HorseDateInput, options: { id?: string } = {}): Promise<string> {
  await getHorse(store, horseId);
  const id = options.id ?? newId();
  const row = { id, horse_id: horseId, ...pick(input, COLUMNS), done_ms: null, created_ms: store.now() };
  await store.writer.write((transaction) => store.models.horseDate.create(row, { transaction }));
  return id;
}

/**
 * Marks a date as done on a day; one that comes again is put after it. A date done twice is done once.
 * @throws NotFoundError where the horse has no such date.
 */
export async function dateDone(store: Store, horseId: string, id: string, day: string): Promise<void> {
  const [row] = await rowsOf(store.models.horseDate, "id = :id AND horse_id = :horse", { id, horse: horseId });
  if (row === undefined) throw new NotFoundError("There is no such date.");
  await store.writer.write(async (transaction) => {
    const [changed] = await store.models.horseDate.update({ done_ms: store.now() }, { where: { id, done_ms: null }, transaction });
    if (changed === 0 || row.every_weeks === null) return;
    const next = { ...row, id: newId(), day: dayAfterWeeks(day, row.every_weeks), done_ms: null, created_ms: store.now() };
    await store.models.horseDate.create(next, { transaction });
  });
}

/** Takes a date out of the list. @throws NotFoundError where the horse has no such date. */
export async function removeDate(store: Store, horseId: string, id: string): Promise<void> {
  const gone = await store.writer.write((transaction) => store.models.horseDate.destroy({ where: { id, horse_id: horseId }, transaction }));
  if (gone === 0) throw new NotFoundError("There is no such date.");
}

import { v4 as newId } from "uuid";
import type { HorseInput, PersonInput, PlaceInput } from "@/core/schemas";
import type { HorseRow, PersonRow, PlaceRow } from "./models";
import { NotFoundError, plain } from "./rows";
import type { Store } from "./store";

/** All horses by name. */
export async function listHorses(store: Store): Promise<HorseRow[]> {
  const rows = await store.models.horse.findAll();
  return rows.map(plain).sort((a, b) => a.name.localeCompare(b.name) || a.created_ms - b.created_ms);
}

/** @throws NotFoundError where there is no such horse. */
export async function getHorse(store: Store, id: string): Promise<HorseRow> {
  const row = await store.models.horse.findByPk(id);
  if (row === null) throw new NotFoundError("There is no such horse.");
  return plain(row);
}

const columnsOf = (input: HorseInput) => ({ ...input, sex: input.sex ?? null });

/** Adds a horse and gives its id. */
export async function addHorse(store: Store, input: HorseInput, options: { id?: string; sample?: boolean } = {}): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.horse.create({ id, ...columnsOf(input), sample: options.sample ?? false, created_ms: store.now() }, { transaction }),
  );
  return id;
}

/** @throws NotFoundError where there is no such horse. */
export async function updateHorse(store: Store, id: string, input: HorseInput): Promise<void> {
  await getHorse(store, id);
  await store.writer.write((transaction) => store.models.horse.update(columnsOf(input), { where: { id }, transaction }));
}

export async function listPeople(store: Store): Promise<PersonRow[]> {
  return (await store.models.person.findAll()).map(plain).sort((a, b) => a.name.localeCompare(b.name));
}

export async function addPerson(store: Store, input: PersonInput, options: { id?: string; sample?: boolean } = {}): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.person.create({ id, ...input, sample: options.sample ?? false, created_ms: store.now() }, { transaction }),
  );
  return id;
}

export async function listPlaces(store: Store): Promise<PlaceRow[]> {
  return (await store.models.place.findAll()).map(plain).sort((a, b) => a.name.localeCompare(b.name));
}

export async function addPlace(store: Store, input: PlaceInput, options: { id?: string; sample?: boolean } = {}): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.place.create({ id, ...input, sample: options.sample ?? false, created_ms: store.now() }, { transaction }),
  );
  return id;
}

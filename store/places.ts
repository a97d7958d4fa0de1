import { randomUUID as newId } from "node:crypto";
import type { Transaction } from "sequelize";
import type { ZoneRule } from "@/core/place";
import type { PlaceInput, PlaceItemInput } from "@/core/schemas";
import type { PlaceItemRow, PlaceRow } from "./models";
import { NotFoundError, pick, rowsOf } from "./rows";
import type { Store } from "./store";

/** A place with its zones and objects, in the order they were put in. */
export interface StoredPlace extends PlaceRow {
  readonly items: readonly PlaceItemInput[];
}

/** All places by name, without their zones. */
export async function listPlaces(store: Store): Promise<PlaceRow[]> {
  return (await rowsOf(store.models.place)).sort((a, b) => a.name.localeCompare(b.name));
}

const itemOf = ({ place_id: _place, position: _position, ...item }: PlaceItemRow): PlaceItemInput => item as PlaceItemInput;

/** @throws NotFoundError where there is no such place. */
export async function getPlace(store: Store, id: string): Promise<StoredPlace> {
  const [row] = await rowsOf(store.models.place, "id = :id", { id });
  if (row === undefined) throw new NotFoundError("There is no such place.");
  return { ...row, items: await placeItems(store, id) };
}

/** What lies in a place, also where the place itself is in the bin. */
export async function placeItems(store: Store, placeId: string): Promise<PlaceItemInput[]> {
  return (await rowsOf(store.models.placeItem, "place_id = :place ORDER BY position", { place: placeId })).map(itemOf);
}

/** The zones of every place by its id. */
export async function placeZones(store: Store): Promise<ReadonlyMap<string, { name: string; kind: string; rule?: ZoneRule }[]>> {
  const zones = new Map<string, { name: string; kind: string; rule?: ZoneRule }[]>();
  for (const { place_id, name, kind, rule } of await rowsOf(store.models.placeItem, "1 = 1 ORDER BY place_id, position"))
    zones.set(place_id, [...(zones.get(place_id) ?? []), { name, kind, ...(rule === null ? {} : { rule: rule as ZoneRule }) }]);
  return zones;
}

/** Shape and size as they are kept: a round or a square place has one size. */
const sizeOf = (input: PlaceInput) => {
  const size = input.length_m ?? input.width_m;
  return input.shape === "rectangle" ? { length_m: input.length_m, width_m: input.width_m } : { length_m: size, width_m: size };
};

const columnsOf = (input: PlaceInput) => ({
  name: input.name,
  shape: input.shape,
  footing: input.footing,
  fence: input.fence,
  ...sizeOf(input),
});

const ITEM_COLUMNS = ["name", "kind", "x_m", "y_m", "across_m", "down_m"] as const;

async function writeItems(store: Store, placeId: string, items: readonly PlaceItemInput[], transaction: Transaction): Promise<void> {
  await store.models.placeItem.destroy({ where: { place_id: placeId }, transaction });
  await store.models.placeItem.bulkCreate(
    items.map((item, position) => ({ place_id: placeId, position, ...pick(item, ITEM_COLUMNS), rule: item.rule ?? null })),
    { transaction },
  );
}

/** Adds a place with its zones and gives its id. */
export async function addPlace(store: Store, input: PlaceInput, options: { id?: string; sample?: boolean } = {}): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write(async (transaction) => {
    await store.models.place.create({ id, ...columnsOf(input), sample: options.sample ?? false, created_ms: store.now() }, { transaction });
    await writeItems(store, id, input.items ?? [], transaction);
  });
  return id;
}

/** The place of a name, inside a write; null for no name. Where there is none, one is made as a rectangle of unknown size if that is allowed. */
export async function placeNamed(store: Store, name: string, make: boolean, transaction: Transaction): Promise<string | null> {
  if (name === "") return null;
  const known = (await listPlaces(store)).find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (known !== undefined || !make) return known?.id ?? null;
  const id = newId();
  const unknown = { shape: "rectangle", length_m: null, width_m: null, footing: "", fence: "" } as const;
  await store.models.place.create({ id, name, ...unknown, sample: false, created_ms: store.now() }, { transaction });
  return id;
}

/** @throws NotFoundError where there is no such place. */
export async function updatePlace(store: Store, id: string, input: PlaceInput): Promise<void> {
  await store.writer.write(async (transaction) => {
    // Looked for inside the one writer: it may have been removed in another window just now.
    await getPlace(store, id);
    await store.models.place.update(columnsOf(input), { where: { id }, transaction });
    await writeItems(store, id, input.items ?? [], transaction);
  });
}

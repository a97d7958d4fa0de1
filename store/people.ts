import { randomUUID as newId } from "node:crypto";
import type { Transaction } from "sequelize";
import type { KitInput, PersonInput, PracticeInput } from "@/core/schemas";
import type { Kit } from "@/core/welfare";
import type { KitRow, PersonRow, PracticeRow } from "./models";
import { NotFoundError, pick, plain, rowsOf } from "./rows";
import type { Store } from "./store";

const PERSON_COLUMNS = ["name", "role"] as const;
const PRACTICE_COLUMNS = ["what", "minutes", "note"] as const;
const KIT_COLUMNS = ["name", "kind", "length_m", "mass_g", "buckles_equal", "note"] as const;

interface AddOptions {
  readonly id?: string;
  readonly sample?: boolean;
}

/** All people by name. */
export async function listPeople(store: Store): Promise<PersonRow[]> {
  return (await rowsOf(store.models.person)).sort((a, b) => a.name.localeCompare(b.name));
}

async function getPerson(store: Store, id: string): Promise<PersonRow> {
  const row = await store.models.person.findByPk(id);
  if (row === null) throw new NotFoundError("There is no such person.");
  return plain(row);
}

export async function addPerson(store: Store, input: PersonInput, options: AddOptions = {}): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.person.create(
      { id, ...pick(input, PERSON_COLUMNS), sample: options.sample ?? false, created_ms: store.now() },
      { transaction },
    ),
  );
  return id;
}

/** The person of a name, inside a write; null for no name. Where there is none, one is made as a handler if that is allowed. */
export async function personNamed(store: Store, name: string, make: boolean, transaction: Transaction): Promise<string | null> {
  if (name === "") return null;
  const known = (await listPeople(store)).find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (known !== undefined || !make) return known?.id ?? null;
  const id = newId();
  await store.models.person.create({ id, name, role: "handler", sample: false, created_ms: store.now() }, { transaction });
  return id;
}

/** @throws NotFoundError where there is no such person. */
export async function updatePerson(store: Store, id: string, input: PersonInput): Promise<void> {
  await getPerson(store, id);
  await store.writer.write((transaction) => store.models.person.update(pick(input, PERSON_COLUMNS), { where: { id }, transaction }));
}

/** Everyone's practice without a horse, newest first. */
export async function listPractice(store: Store): Promise<PracticeRow[]> {
  const rows = await store.models.practice.findAll({
    order: [
      ["day", "DESC"],
      ["created_ms", "DESC"],
    ],
  });
  return rows.map(plain);
}

/** @throws NotFoundError where there is no such person. */
export async function addPractice(store: Store, personId: string, input: PracticeInput): Promise<string> {
  await getPerson(store, personId);
  const id = newId();
  await store.writer.write((transaction) =>
    store.models.practice.create(
      { id, person_id: personId, ...pick(input, PRACTICE_COLUMNS), day: input.day ?? "", created_ms: store.now() },
      { transaction },
    ),
  );
  return id;
}

/** All kit by kind and name. */
export async function listKit(store: Store): Promise<KitRow[]> {
  return (await rowsOf(store.models.kit)).sort((a, b) => a.kind.localeCompare(b.kind) || a.name.localeCompare(b.name));
}

export async function addKit(store: Store, input: KitInput, options: AddOptions = {}): Promise<string> {
  const id = options.id ?? newId();
  await store.writer.write((transaction) =>
    store.models.kit.create({ id, ...pick(input, KIT_COLUMNS), sample: options.sample ?? false, created_ms: store.now() }, { transaction }),
  );
  return id;
}

async function kitThere(store: Store, id: string): Promise<void> {
  if ((await store.models.kit.count({ where: { id } })) === 0) throw new NotFoundError("There is no such kit.");
}

/** @throws NotFoundError where there is no such kit. */
export async function updateKit(store: Store, id: string, input: KitInput): Promise<void> {
  await kitThere(store, id);
  await store.writer.write((transaction) => store.models.kit.update(pick(input, KIT_COLUMNS), { where: { id }, transaction }));
}

/** A piece of kit as the core takes it. */
export const asKit = (row: KitRow): Kit => ({
  name: row.name,
  kind: row.kind,
  lengthMetres: row.length_m,
  massGrams: row.mass_g,
  bucklesEqual: row.buckles_equal === null ? null : Boolean(row.buckles_equal),
});

import type { Store } from "./store";

/** Whether the store holds any sample data. */
export async function hasSampleData(store: Store): Promise<boolean> {
  return (await store.models.horse.count({ where: { sample: true } })) > 0;
}

/** Removes everything marked as sample data, with all that hangs on it, in one step. */
export async function removeSampleData(store: Store): Promise<void> {
  const { horse, person, place, behaviour, kit } = store.models;
  await store.writer.write(async (transaction) => {
    const where = { sample: true };
    await horse.unscoped().destroy({ where, transaction });
    await behaviour.destroy({ where, transaction });
    await person.unscoped().destroy({ where, transaction });
    await place.unscoped().destroy({ where, transaction });
    await kit.unscoped().destroy({ where, transaction });
    await writeMark(store, transaction);
  });
}

async function writeMark(store: Store, transaction: Parameters<Parameters<Store["writer"]["write"]>[0]>[0]): Promise<void> {
  await store.models.meta.upsert({ key: "sample_removed", value: "yes" }, { transaction });
}

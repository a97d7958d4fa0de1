import type { Sequelize } from "sequelize";
import { v4 as newId } from "uuid";
import { connect } from "./connect";
import { EventWriter } from "./event-writer";
import { migrate } from "./migrations";
import { defineModels, type Models } from "./models";
import { Writer } from "./writer";

/** An open store: its models, its one writer, its identity. */
export interface Store {
  /** Random, made with the file: device queues carry it and refuse another store. */
  readonly id: string;
  readonly file: string;
  readonly models: Models;
  readonly sequelize: Sequelize;
  readonly writer: Writer;
  readonly events: EventWriter;
  readonly now: () => number;
}

/** Opens a store, making and migrating the file where needed. */
export async function openStore(file: string, now: () => number = Date.now): Promise<Store> {
  const sequelize = connect(file);
  await migrate(sequelize);
  const models = defineModels(sequelize);
  const writer = new Writer(sequelize);
  const id = await writer.write(async (transaction) => {
    const [row] = await models.meta.findOrCreate({
      where: { key: "store_id" },
      defaults: { key: "store_id", value: newId() },
      transaction,
    });
    return String(row.get("value"));
  });
  return { id, file, models, sequelize, writer, events: new EventWriter(models, writer, now), now };
}

/** Waits for the writer and closes every connection. */
export async function closeStore(store: Store): Promise<void> {
  await store.writer.idle();
  await store.sequelize.close();
}

/** A remembered fact about the store (its port, for one), or null. */
export async function readMeta(store: Store, key: string): Promise<string | null> {
  const row = await store.models.meta.findByPk(key);
  return row === null ? null : String(row.get("value"));
}

/** Remembers a fact about the store. */
export async function writeMeta(store: Store, key: string, value: string): Promise<void> {
  await store.writer.write((transaction) => store.models.meta.upsert({ key, value }, { transaction }));
}

import { randomUUID as newId } from "node:crypto";
import { renameSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import type { Sequelize } from "sequelize";
import { isTimeZone } from "@/core/day";
import { CacheKeeper } from "./caches";
import { connect } from "./connect";
import { EventWriter } from "./event-writer";
import { copyStore, finishRestore, lookAtStore, removeStoreFile, settleOnDisk } from "./file";
import { MIGRATION_NAMES, migrate } from "./migrations";
import { defineModels, type Models } from "./models";
import { dropAllOnTheWay } from "./package/on-the-way";
import { Writer } from "./writer";

/** An open store: its models, its one writer, its identity. */
export interface Store {
  /** Random, made with the file: device queues carry it and refuse another store. */
  readonly id: string;
  /** Changes each time a backup is put in place of the store. */
  readonly epoch: string;
  /** Where the yard's days begin: the time zone it was first opened in, wherever it is opened later. */
  readonly timeZone: string;
  readonly file: string;
  readonly models: Models;
  readonly sequelize: Sequelize;
  readonly writer: Writer;
  readonly events: EventWriter;
  readonly caches: CacheKeeper;
  readonly now: () => number;
}

/** A store as what is under its caches sees it. */
export type StoreParts = Omit<Store, "caches">;

/** What is told while a store opens, and what a new one begins with. */
export interface OpenOptions {
  /** Fills a new store before it takes its name, so that a cut leaves none half filled. */
  readonly fill?: (store: Store) => Promise<void>;
  readonly say?: (text: string) => void;
  /** How long a write waits for another program's lock. */
  readonly busyMs?: number;
}

const STORE_ID = "store_id";
const EPOCH = "restore_epoch";
const TIME_ZONE = "time_zone";

async function openAsItIs(file: string, now: () => number, busyMs?: number): Promise<Store> {
  const connected = connect(file, busyMs);
  const { sequelize } = connected;
  try {
    await migrate(sequelize);
    const models = defineModels(sequelize);
    const writer = new Writer(connected);
    const known = new Map((await models.meta.findAll()).map((row) => [String(row.get("key")), String(row.get("value"))]));
    let id = known.get(STORE_ID);
    if (id === undefined) {
      const made = newId();
      id = made;
      await writer.write((transaction) => models.meta.create({ key: STORE_ID, value: made }, { transaction }));
    }
    const kept = known.get(TIME_ZONE);
    const timeZone = isTimeZone(kept) ? kept : Intl.DateTimeFormat().resolvedOptions().timeZone;
    // Where it cannot be written down (a full disk) it is asked of this computer again the next time.
    if (kept === undefined)
      await writer.write((transaction) => models.meta.upsert({ key: TIME_ZONE, value: timeZone }, { transaction })).catch(() => undefined);
    const parts: StoreParts = {
      id,
      timeZone,
      epoch: known.get(EPOCH) ?? "",
      file,
      models,
      sequelize,
      writer,
      events: new EventWriter(sequelize, models, writer, now),
      now,
    };
    const caches = new CacheKeeper(parts);
    parts.events.onSaved(() => caches.lag());
    // What an import left out of sight when it was cut off: it is done again, or not at all. A full disk keeps nobody from opening.
    await dropAllOnTheWay({ sequelize, writer }).catch(() => undefined);
    return { ...parts, caches };
  } catch (error) {
    await sequelize.close();
    throw error;
  }
}

/** Makes a store under a name of its own and gives it its real one only when it is whole: a cut leaves none half made. */
async function makeStore(file: string, now: () => number, fill: OpenOptions["fill"]): Promise<void> {
  const part = `${file}.new`;
  removeStoreFile(part);
  const store = await openAsItIs(part, now);
  try {
    await fill?.(store);
  } finally {
    await closeStore(store);
  }
  settleOnDisk(part);
  renameSync(part, file);
  settleOnDisk(file);
}

/** The copy made of a store before a migration changes it. */
export const copyBefore = (file: string, migration: string) =>
  join(dirname(file), "backups", `${basename(file, ".sqlite")}-before-${migration}.sqlite`);

/**
 * Opens a store, making the file where there is none. Before the first
 * migration of one that holds data a copy of it is made.
 * @throws StoreFileError where what lies there is emptied, damaged, of a newer version or of another program; it is left as it is.
 */
export async function openStore(file: string, now: () => number = Date.now, options: OpenOptions = {}): Promise<Store> {
  finishRestore(file);
  const found = await lookAtStore(file, MIGRATION_NAMES);
  if (found.state === "absent") await makeStore(file, now, options.fill);
  if (found.state === "store") {
    const next = MIGRATION_NAMES.find((name) => !found.migrations.includes(name));
    if (next !== undefined) {
      const copy = copyBefore(file, next);
      options.say?.(`This version keeps the data differently. A copy of it as it is goes to ${copy} first.`);
      await copyStore(file, copy, MIGRATION_NAMES, true);
    }
  }
  return openAsItIs(file, now, options.busyMs);
}

/** Waits for the writer and closes every connection. */
export async function closeStore(store: Store): Promise<void> {
  await store.caches.stop();
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
  if ((await readMeta(store, key)) === value) return;
  await store.writer.write((transaction) => store.models.meta.upsert({ key, value }, { transaction }));
}

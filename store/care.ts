import { existsSync, readdirSync, readFileSync, rmSync, statfsSync, statSync, writeFileSync } from "node:fs";
import { basename, dirname, isAbsolute, join, relative } from "node:path";
import { QueryTypes } from "sequelize";
import { type AsideTap, asideTaps } from "./aside";
import { notSummedIn } from "./caches";
import { copyStore, lookAtStore, StoreFileError, withRaw } from "./file";
import { MIGRATION_NAMES } from "./migrations";
import { rowsOf } from "./rows";
import { readMeta, type Store, writeMeta } from "./store";

/** A copy of a store that can be gone back to. */
export interface StoreCopy {
  /** Its name in the folder of copies; never a path. */
  readonly name: string;
  readonly madeMs: number;
  readonly bytes: number;
  /** Made by itself once a day, and cleared away in turn. */
  readonly daily: boolean;
}

/** How a store is. */
export interface StoreCare {
  readonly file: string;
  readonly bytes: number;
  /** What is left on the disk it lies on; null where the system does not say. */
  readonly freeBytes: number | null;
  readonly folder: string;
  /** Newest first. */
  readonly copies: readonly StoreCopy[];
  /** How many daily copies are kept. */
  readonly keep: number;
  readonly lastCheck: { readonly ms: number; readonly ok: boolean } | null;
  /** Why no copy could be made last time, or null. */
  readonly problem: string | null;
  /** Sessions whose events cannot be summed up, when each began. */
  readonly notSummed: readonly { readonly id: string; readonly startedMs: number; readonly why: string }[];
  /** Taps of helpers that only somebody with full rights may take in. */
  readonly aside: readonly AsideTap[];
}

const KEEP_KEY = "daily_copies";
const CHECK_KEY = "last_check";
const DEFAULT_KEEP = 14;
/** A daily copy is made only where so many times the store's size is left. */
const ROOM_FOR_COPIES = 3;

const kindOf = (file: string) => basename(file, ".sqlite");
export const copiesFolder = (file: string): string => join(dirname(file), "backups");

const dailyName = (file: string, day: string) => `${kindOf(file)}-daily-${day}.sqlite`;
const isDaily = (file: string, name: string) => name.startsWith(`${kindOf(file)}-daily-`);
/** Beside copies that failed it stands why, for the page. */
const problemFile = (file: string) => join(copiesFolder(file), `.${kindOf(file)}-problem.txt`);

/** Every copy in the folder of copies, newest first. */
export function listCopies(file: string): StoreCopy[] {
  const folder = copiesFolder(file);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => /^[\w.-]+\.sqlite$/.test(name) && name.startsWith(`${kindOf(file)}-`))
    .map((name) => {
      const { mtimeMs, size } = statSync(join(folder, name));
      return { name, madeMs: mtimeMs, bytes: size, daily: isDaily(file, name) };
    })
    .sort((a, b) => b.madeMs - a.madeMs);
}

/**
 * The path of a copy by its name in the list.
 * @throws StoreFileError where the list has none of that name: a name that leads elsewhere is none.
 */
export function copyOf(file: string, name: string): string {
  if (!listCopies(file).some((copy) => copy.name === name)) throw new StoreFileError("There is no copy of that name. Nothing was changed.");
  return join(copiesFolder(file), name);
}

/**
 * The path of a copy that may be put in place of this store: one of its own.
 * @throws StoreFileError where there is none of that name, or it is a copy of other data.
 */
export async function ownCopy(store: Store, name: string): Promise<string> {
  const path = copyOf(store.file, name);
  const rows = await withRaw(path, "read", (database) =>
    database.all<{ value: string }>("SELECT value FROM store_meta WHERE key = 'store_id'"),
  ).catch(() => []);
  const [row] = rows;
  if (row !== undefined && row.value !== store.id) throw new StoreFileError("This is a copy of other data than this. Nothing was changed.");
  return path;
}

/** How many daily copies are kept. */
export async function dailyCopiesKept(store: Store): Promise<number> {
  const kept = Number(await readMeta(store, KEEP_KEY));
  return Number.isInteger(kept) && kept >= 1 ? kept : DEFAULT_KEEP;
}

export const keepDailyCopies = (store: Store, copies: number): Promise<void> => writeMeta(store, KEEP_KEY, String(copies));

const size = (path: string) => (existsSync(path) ? statSync(path).size : 0);

function freeBytes(folder: string): number | null {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
}

/** A path as it is shown: from the program's folder where it lies in it. */
function shownPath(path: string): string {
  const within = relative(process.cwd(), path);
  return within === "" || within.startsWith("..") || isAbsolute(within) ? path : within;
}

/** How a store is, for its page. */
export async function storeCare(store: Store): Promise<StoreCare> {
  const { file } = store;
  const checked = await readMeta(store, CHECK_KEY);
  const [ms, ok] = (checked ?? "").split(" ");
  const problem = existsSync(problemFile(file)) ? readFileSync(problemFile(file), "utf8") : null;
  return {
    file: shownPath(file),
    bytes: size(file) + size(`${file}-wal`),
    freeBytes: freeBytes(dirname(file)),
    folder: shownPath(copiesFolder(file)),
    copies: listCopies(file),
    keep: await dailyCopiesKept(store),
    lastCheck: checked === null ? null : { ms: Number(ms), ok: ok === "ok" },
    problem,
    notSummed: await namedNotSummed(store),
    aside: await asideTaps(store),
  };
}

async function namedNotSummed(store: Store): Promise<StoreCare["notSummed"]> {
  const whyById = new Map(notSummedIn(store).map(({ id, why }) => [id, why]));
  if (whyById.size === 0) return [];
  const rows = await rowsOf(store.models.session, "id IN (:ids) AND binned_ms IS NULL ORDER BY created_ms", { ids: [...whyById.keys()] });
  return rows.map(({ id, created_ms }) => ({ id, startedMs: created_ms, why: whyById.get(id) ?? "" }));
}

/** Reads a copy as the program would: what cannot be read is no copy. */
async function openedOnce(path: string): Promise<void> {
  await withRaw(path, "read", async (database) => {
    for (const table of ["horse", "session", "event", "store_meta"]) await database.all(`SELECT COUNT(*) AS n FROM ${table}`);
  });
}

async function makeCopy(store: Store, name: string): Promise<StoreCopy> {
  const path = join(copiesFolder(store.file), name);
  // Copied as SQLite itself copies a database in use; then every page and index is checked, and it is opened.
  await copyStore(store.file, path, MIGRATION_NAMES);
  try {
    await openedOnce(path);
  } catch (error) {
    rmSync(path, { force: true });
    throw error;
  }
  const copy = listCopies(store.file).find((one) => one.name === name);
  if (copy === undefined) throw new StoreFileError(`The copy ${name} is not there after it was made.`);
  return copy;
}

/** Makes a copy now, while the store is in use, and checks it. @throws StoreFileError, or what the disk says. */
export function copyNow(store: Store): Promise<StoreCopy> {
  const stamp = new Date(store.now()).toISOString().replace(/[:.]/g, "-");
  return makeCopy(store, `${kindOf(store.file)}-${stamp}.sqlite`);
}

/**
 * Copies from the one that holds the most of this data to the least: since the
 * same restore first, then by how far their events reach. Their days are no
 * measure: a machine whose clock once ran ahead leaves copies of days to come.
 */
async function byContent(store: Store, copies: readonly StoreCopy[]): Promise<StoreCopy[]> {
  const read = await Promise.all(
    copies.map(async (copy) => {
      const held = await withRaw(join(copiesFolder(store.file), copy.name), "read", async (database) => {
        const [reach] = await database.all<{ seq: number }>("SELECT seq FROM sqlite_sequence WHERE name = 'event'");
        const [epoch] = await database.all<{ value: string }>("SELECT value FROM store_meta WHERE key = 'restore_epoch'");
        return { reach: reach?.seq ?? 0, epoch: epoch?.value ?? "" };
      }).catch(() => ({ reach: -1, epoch: null }));
      return { copy, reach: held.reach, own: held.epoch === store.epoch };
    }),
  );
  return read.sort((a, b) => Number(b.own) - Number(a.own) || b.reach - a.reach || b.copy.madeMs - a.copy.madeMs).map(({ copy }) => copy);
}

/**
 * Makes the day's copy where there is none yet, and clears away the oldest
 * beyond those that are kept: only once the new one is there.
 * @param day as the yard has it.
 */
export async function copyOfDay(store: Store, day: string): Promise<StoreCopy | null> {
  const { file } = store;
  const name = dailyName(file, day);
  if (listCopies(file).some((copy) => copy.name === name)) return null;
  try {
    const free = freeBytes(dirname(file));
    // A copy that fills the disk would cost more than it is worth: the taps need the room.
    if (free !== null && free < ROOM_FOR_COPIES * size(file))
      throw new StoreFileError("there is too little room on the disk for a copy and for what comes.");
    const copy = await makeCopy(store, name);
    rmSync(problemFile(file), { force: true });
    const keep = await dailyCopiesKept(store);
    const others = listCopies(file).filter((one) => one.daily && one.name !== name);
    for (const old of (await byContent(store, others)).slice(Math.max(0, keep - 1)))
      rmSync(join(copiesFolder(file), old.name), { force: true });
    return copy;
  } catch (error) {
    try {
      writeFileSync(problemFile(file), `${day}: ${error instanceof Error ? error.message : "it failed"}`);
    } catch {
      // The disk that is full cannot hold that either; the console has it.
    }
    throw error;
  }
}

/** Checks every page and index of the store while it is in use, and remembers what came of it. */
export async function checkStore(store: Store): Promise<boolean> {
  const [row] = await store.sequelize.query<Record<string, string>>("PRAGMA integrity_check(1)", { type: QueryTypes.SELECT });
  const ok = row !== undefined && Object.values(row)[0] === "ok";
  await writeMeta(store, CHECK_KEY, `${store.now()} ${ok ? "ok" : "damaged"}`);
  return ok;
}

/** What a copy holds, before it is gone back to. @throws StoreFileError where it is no sound store. */
export async function lookAtCopy(
  file: string,
  name: string,
): Promise<{ readonly horses: number; readonly sessions: number; readonly taps: number }> {
  const path = copyOf(file, name);
  const found = await lookAtStore(path, MIGRATION_NAMES, true);
  if (found.state !== "store") throw new StoreFileError("This copy holds no data of Deft Tether. Nothing was changed.");
  return withRaw(path, "read", async (database) => {
    const count = async (table: string) => (await database.all<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]?.n ?? 0;
    return { horses: await count("horse"), sessions: await count("session"), taps: await count("event") };
  });
}

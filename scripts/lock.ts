import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import sqlite3 from "sqlite3";
import { linkLockFile, lockFile, StoreFileError, storeFailure } from "@/store";

/** Who holds a store. */
export interface LockHolder {
  readonly port: number;
  readonly pid: number;
}

export type Lock =
  | {
      readonly taken: true;
      /** Takes the lock of the file itself too, once there is one. False where another path to it is held. */
      alsoTheFile(): Promise<boolean>;
      announce(holder: LockHolder): void;
      release(): void;
    }
  | { readonly taken: false; readonly holder: LockHolder | null };

const run = (database: sqlite3.Database, sql: string) =>
  new Promise<void>((resolve, reject) => {
    database.exec(sql, (error) => (error === null ? resolve() : reject(error)));
  });

/** Locks held in this process; a collected connection would give its lock up. */
const held = new Set<sqlite3.Database>();

const holderOf = (path: string) => `${path}.json`;

function readHolder(path: string): LockHolder | null {
  try {
    const value: unknown = JSON.parse(readFileSync(holderOf(path), "utf8"));
    if (typeof value === "object" && value !== null && "port" in value && "pid" in value) {
      return { port: Number(value.port), pid: Number(value.pid) };
    }
  } catch {
    // Not there yet, or half written: the other start has not said its port.
  }
  return null;
}

/** Holds a path until the process ends. Null where another process holds it. */
async function hold(path: string): Promise<sqlite3.Database | null> {
  const unusable = (error: unknown) =>
    new StoreFileError(
      `The lock ${path} cannot be used (${error instanceof Error ? error.message : "unknown"}). Nothing was changed. See that its folder may be written.`,
    );
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(path, (error) => (error === null ? resolve(opened) : reject(unusable(error))));
  });
  try {
    await run(database, "PRAGMA busy_timeout=200; PRAGMA journal_mode=DELETE; BEGIN EXCLUSIVE;");
  } catch (error) {
    database.close();
    if (storeFailure(error) === "held") return null;
    throw unusable(error);
  }
  rmSync(holderOf(path), { force: true });
  held.add(database);
  return database;
}

/**
 * Takes the lock of a store, if it is free. The lock is an exclusive
 * transaction on a small file beside the store: the system frees it when the
 * process ends in whatever way, so a killed server leaves nothing stale. It
 * goes by the real path, and by the file's own number where it has several.
 * @throws StoreFileError where no lock can be held there.
 */
export async function takeLock(storeFilePath: string): Promise<Lock> {
  const paths = [lockFile(storeFilePath)];
  const databases: sqlite3.Database[] = [];
  const release = () => {
    for (const database of databases.splice(0)) {
      held.delete(database);
      database.close();
    }
  };
  const first = await hold(paths[0] ?? "");
  if (first === null) return { taken: false, holder: readHolder(paths[0] ?? "") };
  databases.push(first);
  const alsoTheFile = async () => {
    const path = linkLockFile(storeFilePath);
    if (path === null || paths.includes(path)) return true;
    const database = await hold(path);
    if (database === null) return false;
    databases.push(database);
    paths.push(path);
    return true;
  };
  const link = linkLockFile(storeFilePath);
  if (link !== null && !(await alsoTheFile())) {
    release();
    return { taken: false, holder: readHolder(link) };
  }
  return {
    taken: true,
    alsoTheFile,
    release,
    announce: (holder) => {
      for (const path of paths)
        try {
          writeFileSync(holderOf(path), JSON.stringify(holder));
        } catch {
          // A full disk: a second start is still kept out, it only cannot say the address.
        }
    },
  };
}

/** Whether something on this machine listens on the port. */
export function portInUse(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect({ port, host: "127.0.0.1" });
    socket.once("connect", () => {
      socket.destroy();
      resolve(true);
    });
    socket.once("error", () => resolve(false));
  });
}

import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import sqlite3 from "sqlite3";
import { lockFile } from "@/store";

/** Who holds a store. */
export interface LockHolder {
  readonly port: number;
  readonly pid: number;
}

export type Lock =
  | { readonly taken: true; announce(holder: LockHolder): void; release(): void }
  | { readonly taken: false; readonly holder: LockHolder | null };

const run = (database: sqlite3.Database, sql: string) =>
  new Promise<void>((resolve, reject) => {
    database.exec(sql, (error) => (error === null ? resolve() : reject(error)));
  });

/** Locks held in this process; a collected connection would give its lock up. */
const held = new Set<sqlite3.Database>();

function readHolder(path: string): LockHolder | null {
  try {
    const value: unknown = JSON.parse(readFileSync(path, "utf8"));
    if (typeof value === "object" && value !== null && "port" in value && "pid" in value) {
      return { port: Number(value.port), pid: Number(value.pid) };
    }
  } catch {
    // Not there yet, or half written: the other start has not said its port.
  }
  return null;
}

/**
 * Takes the lock of a store, if it is free. The lock is an exclusive
 * transaction on a small file beside the store: the system frees it when the
 * process ends in whatever way, so a killed server leaves nothing stale.
 */
export async function takeLock(storeFilePath: string): Promise<Lock> {
  const path = lockFile(storeFilePath);
  const holderPath = `${path}.json`;
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(path, (error) => (error === null ? resolve(opened) : reject(error)));
  });
  try {
    await run(database, "PRAGMA busy_timeout=200; PRAGMA journal_mode=DELETE; BEGIN EXCLUSIVE;");
  } catch {
    database.close();
    return { taken: false, holder: readHolder(holderPath) };
  }
  rmSync(holderPath, { force: true });
  held.add(database);
  return {
    taken: true,
    announce: (holder) => writeFileSync(holderPath, JSON.stringify(holder)),
    release: () => {
      held.delete(database);
      database.close();
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

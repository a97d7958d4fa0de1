import { closeSync, existsSync, fsyncSync, openSync, rmSync } from "node:fs";
import { dirname } from "node:path";

/** What SQLite keeps beside a file. */
export const COMPANIONS = ["-wal", "-shm", "-journal"] as const;

/** Removes a file with what SQLite keeps beside it, if it is there. */
export function removeStoreFile(file: string): void {
  for (const end of ["", ...COMPANIONS]) rmSync(`${file}${end}`, { force: true });
}

/** Forces a file, and the folder that names it, to the disk. */
export function settleOnDisk(file: string): void {
  for (const path of [file, dirname(file)]) {
    if (!existsSync(path)) continue;
    const handle = openSync(path, "r");
    try {
      fsyncSync(handle);
    } catch {
      // Some systems cannot sync a folder; the file itself has been.
    } finally {
      closeSync(handle);
    }
  }
}

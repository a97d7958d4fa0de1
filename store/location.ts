import { existsSync, realpathSync, statSync } from "node:fs";
import { homedir, tmpdir, userInfo } from "node:os";
import { basename, dirname, isAbsolute, join, resolve } from "node:path";

/** Where the store's file lies. `DEFT_DATA` names the folder or, ending in .sqlite, the file itself. */
export function storeFile(kind: "own" | "demo", root: string, environment: NodeJS.ProcessEnv = process.env): string {
  const set = environment.DEFT_DATA;
  if (set === undefined || set === "") return join(root, "data", `${kind}.sqlite`);
  const full = set.startsWith("~/") ? join(homedir(), set.slice(2)) : isAbsolute(set) ? set : resolve(root, set);
  return full.endsWith(".sqlite") ? full : join(full, `${kind}.sqlite`);
}

/** A file's own path, whatever links lead to it. The folder must be there; the file need not. */
export function realFile(file: string): string {
  if (existsSync(file)) return realpathSync(file);
  return join(realpathSync(dirname(file)), basename(file));
}

/** The lock beside a store's file: one for every path that leads to it. */
export function lockFile(file: string): string {
  const real = realFile(file);
  return join(dirname(real), `.${basename(real)}.lock`);
}

/** A folder that is the same for every start of this user, whatever its environment says of temporary files. */
function folderOfAll(): string {
  if (process.platform === "win32") return userInfo().homedir;
  return existsSync("/tmp") ? "/tmp" : tmpdir();
}

/** The lock of the file itself, by its number on the disk: a hard link gives it a second path, in another folder. Null before there is a file. */
export function linkLockFile(file: string): string | null {
  if (!existsSync(file)) return null;
  const { dev, ino } = statSync(file);
  return join(folderOfAll(), `deft-tether-${process.getuid?.() ?? 0}-${dev}-${ino}.lock`);
}

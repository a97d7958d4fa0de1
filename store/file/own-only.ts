import { chmodSync, existsSync, readdirSync, statSync } from "node:fs";
import { basename, dirname, join } from "node:path";

/** Bits by which somebody else may read, write or enter. */
const OTHERS = 0o077;

/** Everything the program makes from here on is its owner's alone: files 0600, folders 0700. A system without modes takes no notice. */
export const makeForOwnerAlone = (): void => void process.umask(OTHERS);

const closed = (path: string, mode: number): boolean => {
  try {
    if ((statSync(path).mode & OTHERS) !== 0) chmodSync(path, mode);
    return (statSync(path).mode & OTHERS) === 0;
  } catch {
    return false;
  }
};

/**
 * Takes the data's files, and its copies, from everybody but their owner; an
 * earlier version made them readable by all. A folder of somebody's own making
 * is left as it is, and said.
 * @returns what a person should know, in lines.
 * @example closeToOthers("data/own.sqlite") // [] where nobody else can read it
 */
export function closeToOthers(file: string): string[] {
  const folder = dirname(file);
  const copies = join(folder, "backups");
  const own = [file, `${file}-wal`, `${file}-shm`].filter((path) => existsSync(path));
  const kept = existsSync(copies)
    ? readdirSync(copies).flatMap((name) => (name.startsWith(basename(file, ".sqlite")) ? [join(copies, name)] : []))
    : [];
  const open = [...own, ...kept].filter((path) => !closed(path, 0o600));
  if (open.length > 0)
    return [`Others on this machine may be able to read the data: the disk keeps no rights of files (${basename(open[0] ?? "")}).`];
  try {
    const mode = statSync(folder).mode & OTHERS;
    return mode === 0 ? [] : [`Others on this machine can see which files lie in the folder of the data, and cannot read them.`];
  } catch {
    return [];
  }
}

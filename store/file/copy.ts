import { existsSync, linkSync, mkdirSync, renameSync, rmSync } from "node:fs";
import { dirname } from "node:path";
import { lookAtStore } from "./look";
import { removeStoreFile, settleOnDisk } from "./paths";
import { StoreFileError } from "./problem";
import { withRaw } from "./raw";

/**
 * Copies a store, also while it is in use: to a temporary name, checked, and
 * only then to its own. A copy that is cut off leaves nothing under the name.
 * @param replace whether a file already there is replaced; otherwise it is left alone.
 * @throws StoreFileError where the target is there already, or the copy does not check out.
 */
export async function copyStore(from: string, to: string, known: readonly string[], replace = false): Promise<void> {
  const taken = () => new StoreFileError(`There is a file already at ${to}; it was left alone.`);
  if (!replace && existsSync(to)) throw taken();
  mkdirSync(dirname(to), { recursive: true });
  const part = `${to}.part`;
  removeStoreFile(part);
  try {
    await withRaw(from, "read", (database) => database.all("VACUUM INTO ?", [part]));
    await lookAtStore(part, known, true);
    settleOnDisk(part);
    if (replace) renameSync(part, to);
    else
      try {
        // A link refuses a name that was taken meanwhile; a rename would not.
        linkSync(part, to);
        rmSync(part);
      } catch (error) {
        if (existsSync(to)) throw taken();
        // A file system without links.
        if (!(error instanceof Error)) throw error;
        renameSync(part, to);
      }
    settleOnDisk(to);
  } catch (error) {
    removeStoreFile(part);
    throw error;
  }
}

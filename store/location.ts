import { homedir } from "node:os";
import { dirname, isAbsolute, join, resolve } from "node:path";

/** Where the store's file lies. `DEFT_DATA` names the folder or, ending in .sqlite, the file itself. */
export function storeFile(kind: "own" | "demo", root: string, environment: NodeJS.ProcessEnv = process.env): string {
  const set = environment.DEFT_DATA;
  if (set === undefined || set === "") return join(root, "data", `${kind}.sqlite`);
  const full = set.startsWith("~/") ? join(homedir(), set.slice(2)) : isAbsolute(set) ? set : resolve(root, set);
  return full.endsWith(".sqlite") ? full : join(full, `${kind}.sqlite`);
}

/** The lock beside a store's file. */
export const lockFile = (file: string) => join(dirname(file), `.${file.slice(dirname(file).length + 1)}.lock`);

import { existsSync } from "node:fs";
import type { RawDatabase } from "./raw";
import { withRaw } from "./raw";

/** Who may do what on the network, as the file keeps it. */
interface KeptAccess {
  readonly id: string;
  readonly name: string;
  readonly access: string | null;
  readonly passphrase: string | null;
}

async function accessIn(database: RawDatabase): Promise<KeptAccess[] | null> {
  const columns = await database.all<{ name: string }>("SELECT name FROM pragma_table_info('person')");
  if (!["access", "passphrase"].every((name) => columns.some((column) => column.name === name))) return null;
  return database.all<KeptAccess>(
    // Who is in the bin has none.
    "SELECT id, name, IIF(binned_ms IS NULL, access, NULL) AS access, IIF(binned_ms IS NULL, passphrase, NULL) AS passphrase FROM person",
  );
}

/** Access as it is now, or null where the file is not there or cannot be read. */
export const presentAccess = (file: string): Promise<KeptAccess[] | null> =>
  existsSync(file) ? withRaw(file, "read", accessIn).catch(() => null) : Promise.resolve(null);

/** Who may sign in after a restore, in sentences. */
export interface AccessAfter {
  /** Access stays as it is now: who the copy would have let in, or with other rights or words. */
  readonly kept: readonly string[];
  /** What is there now cannot be read: these have access as the copy has it. */
  readonly ofCopy: readonly string[];
}

const NONE: AccessAfter = { kept: [], ofCopy: [] };

/**
 * Keeps access as it is now in a copy that is about to take the place of the
 * store: who was shut out since stays out, and a passphrase that was changed
 * since stays changed. Where what is there now cannot be read, the copy's
 * access stands, and who that is, is said.
 */
export async function keepAccess(copy: RawDatabase, now: readonly KeptAccess[] | null): Promise<AccessAfter> {
  const then = await accessIn(copy);
  if (then === null) return NONE;
  const may = ({ access }: KeptAccess) => access !== null && access !== "";
  if (now === null) return { kept: [], ofCopy: then.filter(may).map(({ name }) => name) };
  const kept: string[] = [];
  for (const person of then) {
    const here = now.find(({ id }) => id === person.id);
    const [access, passphrase] = [here?.access ?? null, here?.passphrase ?? null];
    if (access === person.access && passphrase === person.passphrase) continue;
    await copy.all("UPDATE person SET access = ?, passphrase = ? WHERE id = ?", [access, passphrase, person.id]);
    kept.push(person.name);
  }
  return { kept, ofCopy: [] };
}

/** What a restore did about access, in words for whoever did it. @example accessWords({ kept: ["Ana"], ofCopy: [] }) // "Access stays as it is now, not as the copy has it: Ana." */
export function accessWords({ kept, ofCopy }: AccessAfter): string {
  if (kept.length > 0) return `Access stays as it is now, not as the copy has it: ${kept.join(", ")}.`;
  return ofCopy.length > 0
    ? `These may sign in again, as the copy has it: ${ofCopy.join(", ")}. Take away under People what is no longer meant.`
    : "";
}

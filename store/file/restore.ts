import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { accessWords, keepAccess, presentAccess } from "./access-kept";
import { copyStore } from "./copy";
import { lookAtStore } from "./look";
import { COMPANIONS, settleOnDisk } from "./paths";
import { StoreFileError } from "./problem";
import { withRaw } from "./raw";

/** What a restored store holds, and where what was there before now lies. */
export interface Restored {
  readonly aside: string | null;
  readonly horses: number;
  readonly sessions: number;
  readonly events: number;
  /** What became of access on the network, in words; empty where nothing changed. */
  readonly access: string;
}

const incomingOf = (file: string) => `${file}.restoring`;
const journalOf = (file: string) => join(dirname(file), `.${basename(file)}.restore.json`);

/**
 * Finishes a restore that was cut off after its copy was ready; does nothing
 * where there was none. The old file goes before its -wal: a file that lost
 * its -wal would open, without its last writes.
 */
export function finishRestore(file: string): void {
  const journal = journalOf(file);
  if (!existsSync(journal)) return;
  const incoming = incomingOf(file);
  if (existsSync(incoming)) {
    const { aside } = JSON.parse(readFileSync(journal, "utf8")) as { aside: string };
    for (const end of ["", ...COMPANIONS]) if (existsSync(`${file}${end}`)) renameSync(`${file}${end}`, `${aside}${end}`);
    settleOnDisk(aside);
    renameSync(incoming, file);
    settleOnDisk(file);
  }
  rmSync(journal, { force: true });
}

/**
 * Puts a backup in place of a store that nobody has open: the backup is
 * checked and copied first, the present store is set aside with its -wal and
 * -shm, then the copy takes its name. Cut off at any moment it leaves the old
 * store or the new one, and the next start finishes what was begun.
 * @param newId gives the mark by which devices learn that the store went back.
 * @throws StoreFileError where the backup is not a sound store of this version or an older one.
 */
export async function restoreStore(
  file: string,
  backup: string,
  known: readonly string[],
  stamp: string,
  newId: () => string,
): Promise<Restored> {
  finishRestore(file);
  if (!existsSync(backup)) throw new StoreFileError(`There is no file at ${backup}.`);
  const found = await lookAtStore(backup, known, true);
  if (found.state !== "store") throw new StoreFileError(`${backup} holds no data of Deft Tether. Nothing was changed.`);
  const incoming = incomingOf(file);
  const now = await presentAccess(file);
  await copyStore(backup, incoming, known, true);
  const counts = await withRaw(incoming, "write", async (database) => {
    await database.exec("PRAGMA journal_mode=DELETE; PRAGMA synchronous=FULL;");
    await database.all(
      "INSERT INTO store_meta (key, value) VALUES ('restore_epoch', ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
      [newId()],
    );
    // Who was signed in then may have been shut out since: everybody signs in anew.
    if ((await database.all("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'sign_in'")).length > 0)
      await database.exec("UPDATE sign_in SET ended_ms = used_ms WHERE ended_ms IS NULL");
    const access = accessWords(await keepAccess(database, now));
    const count = async (table: string) => (await database.all<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]?.n ?? 0;
    return { horses: await count("horse"), sessions: await count("session"), events: await count("event"), access };
  });
  settleOnDisk(incoming);
  const there = existsSync(file) || existsSync(`${file}-wal`);
  const aside = join(dirname(file), `${basename(file, ".sqlite")}.before-restore-${stamp}.sqlite`);
  // Written only once the copy is ready: from here on the restore goes forward, whatever happens.
  const journal = journalOf(file);
  writeFileSync(`${journal}.part`, JSON.stringify({ aside }));
  settleOnDisk(`${journal}.part`);
  renameSync(`${journal}.part`, journal);
  settleOnDisk(journal);
  finishRestore(file);
  return { aside: there ? aside : null, ...counts };
}

import { closeSync, existsSync, openSync, readSync, statSync } from "node:fs";
import { storeFailure } from "../failure";
import { isOfCode } from "../rows";
import { StoreFileError } from "./problem";
import { type RawDatabase, withRaw } from "./raw";

/** What lies where a store should be. */
export type Found =
  | { readonly state: "absent" }
  /** Tables begun by a first start that was cut off; nothing was ever in them. */
  | { readonly state: "begun" }
  | { readonly state: "store"; readonly migrations: readonly string[] };

/** The tables a first start of a version before 0.5 made one by one, so that a kill left some of them, all empty. */
export const BEGUN_TABLES: readonly string[] =
  "migration store_meta person place horse behaviour ladder ladder_version strand rung cue_phase session event recorder_clock session_summary block rung_side_summary".split(
    " ",
  );

const SQLITE_HEADER = "SQLite format 3\0";
const RESTORE = "npm run restore -- FILE";

function headerOf(file: string): string {
  const handle = openSync(file, "r");
  try {
    const bytes = Buffer.alloc(16);
    readSync(handle, bytes, 0, 16, 0);
    return bytes.toString("latin1");
  } finally {
    closeSync(handle);
  }
}

const damaged = (file: string) =>
  new StoreFileError(
    `The data in ${file} is damaged. Nothing was changed. Go back to a backup with ${RESTORE}; what is there now is then set aside, not lost.`,
  );

async function tablesOf(database: RawDatabase): Promise<string[]> {
  const rows = await database.all<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'");
  return rows.map(({ name }) => name);
}

async function read(database: RawDatabase, file: string, known: readonly string[], thorough: boolean): Promise<Found> {
  const [checked] = await database.all<Record<string, string>>(`PRAGMA ${thorough ? "integrity_check" : "quick_check"}(1)`);
  if (checked === undefined || Object.values(checked)[0] !== "ok") throw damaged(file);
  const tables = await tablesOf(database);
  const migrations = tables.includes("migration")
    ? (await database.all<{ name: string }>("SELECT name FROM migration ORDER BY name")).map(({ name }) => name)
    : [];
  const newer = migrations.filter((name) => !known.includes(name));
  if (newer.length > 0)
    throw new StoreFileError(
      `The data in ${file} was written by a newer version of Deft Tether (${newer.join(", ")}). Nothing was changed. Start that version, or go back to an older backup with ${RESTORE}.`,
    );
  if (migrations.length > 0) return { state: "store", migrations };
  if (tables.some((name) => !BEGUN_TABLES.includes(name)))
    throw new StoreFileError(
      `${file} is a database of another program. Nothing was changed. Move it away, or name another place with DEFT_DATA.`,
    );
  for (const table of tables)
    if ((await database.all(`SELECT 1 FROM "${table.replaceAll('"', '""')}" LIMIT 1`)).length > 0) throw damaged(file);
  return { state: "begun" };
}

/**
 * Looks at what lies at a store's path without changing it.
 * @param known the names of the migrations this version has.
 * @param thorough whether every index is compared with its table too; that takes several times as long.
 * @throws StoreFileError where it is emptied, damaged, of another program or of a newer version.
 */
export async function lookAtStore(file: string, known: readonly string[], thorough = false): Promise<Found> {
  if (!existsSync(file)) {
    if (existsSync(`${file}-wal`) && statSync(`${file}-wal`).size > 0)
      throw new StoreFileError(
        `The data file ${file} is gone, but what was last written to it still lies in ${file}-wal. Nothing was changed. Put the file back beside it, or go back to a backup with ${RESTORE}.`,
      );
    return { state: "absent" };
  }
  if (statSync(file).isDirectory())
    throw new StoreFileError(`${file} is a folder, not a data file. Move it away, or name another place with DEFT_DATA.`);
  if (statSync(file).size === 0)
    throw new StoreFileError(
      `The data file ${file} is empty. Nothing was changed. Go back to a backup with ${RESTORE}; where nothing was ever in it, remove it and start again.`,
    );
  try {
    if (headerOf(file) !== SQLITE_HEADER) throw damaged(file);
    return await withRaw(file, "read", (database) => read(database, file, known, thorough));
  } catch (error) {
    if (isOfCode(error, "store-file")) throw error;
    const failure = storeFailure(error);
    if (failure === "damaged") throw damaged(file);
    if (failure === "held") throw new StoreFileError(`The data in ${file} is held by another program. Close it and start again.`);
    throw new StoreFileError(
      `The data in ${file} cannot be read (${error instanceof Error ? error.message : "unknown"}). Nothing was changed. See that the file and its folder may be read and written.`,
    );
  }
}

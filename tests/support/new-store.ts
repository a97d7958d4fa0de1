import { copyFileSync, existsSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { closeStore, openStore, type Store } from "@/store";

let template: Promise<string> | null = null;

/** An empty file with every migration done, once for each process: two dozen steps take most of a second. */
async function migrated(): Promise<string> {
  const file = join(mkdtempSync(join(tmpdir(), "deft-empty-")), "empty.sqlite");
  const store = await openStore(file);
  // Whoever opens a file without an id gives it one.
  await store.sequelize.query("DELETE FROM store_meta WHERE key = 'store_id'");
  await store.sequelize.query("PRAGMA wal_checkpoint(TRUNCATE)");
  await closeStore(store);
  return file;
}

/** A new store, as opening a file that is not there makes it: with an id of its own. */
export async function newStore(
  file: string,
  ...more: Parameters<typeof openStore> extends [string, ...infer Rest] ? Rest : never
): Promise<Store> {
  if (existsSync(file)) throw new Error(`there is a file already: ${file}`);
  template ??= migrated();
  copyFileSync(await template, file);
  return openStore(file, ...more);
}

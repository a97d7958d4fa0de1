import { chmodSync, mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, it } from "vitest";
import { closeStore, openStore } from "..";
import { closeToOthers, makeForOwnerAlone } from "./own-only";

let folder: string;
let umask: number;
beforeEach(() => {
  umask = process.umask();
  folder = mkdtempSync(join(tmpdir(), "own-only-"));
});
afterEach(() => {
  process.umask(umask);
  rmSync(folder, { recursive: true });
});
const mode = (path: string) => (statSync(path).mode & 0o777).toString(8);

it("makes the data, what SQLite keeps beside it, and folders for the owner alone", async () => {
  makeForOwnerAlone();
  const within = join(folder, "data");
  mkdirSync(within);
  const file = join(within, "own.sqlite");
  const store = await openStore(file);
  expect([mode(within), mode(file), mode(`${file}-wal`), mode(`${file}-shm`)]).toEqual(["700", "600", "600", "600"]);
  expect(closeToOthers(file)).toEqual([]);
  await closeStore(store);
});

it("closes what an earlier version left readable, copies too, and leaves other files and a person's own folder", () => {
  const file = join(folder, "own.sqlite");
  mkdirSync(join(folder, "backups"));
  const [copy, other] = [join(folder, "backups", "own-daily-2026-01-01.sqlite"), join(folder, "backups", "notes.txt")];
  for (const path of [file, `${file}-wal`, copy, other]) {
    writeFileSync(path, "");
    chmodSync(path, 0o644);
  }
  chmodSync(folder, 0o755);
  expect(closeToOthers(file)).toEqual([expect.stringMatching(/can see which files/)]);
  expect([mode(file), mode(`${file}-wal`), mode(copy), mode(other), mode(folder)]).toEqual(["600", "600", "600", "644", "755"]);
});

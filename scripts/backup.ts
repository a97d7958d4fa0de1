import { existsSync, mkdirSync } from "node:fs";
import { dirname, join } from "node:path";
import sqlite3 from "sqlite3";
import { storeFile } from "@/store";

/** npm run backup [-- FILE]: a copy of the store, safe while the program runs. `--demo` copies the demo's. */
const parameters = process.argv.slice(2).filter((word) => word !== "--demo");
const file = storeFile(process.argv.includes("--demo") ? "demo" : "own", process.cwd());
const stamp = new Date().toISOString().replace(/[:.]/g, "-");
const target = parameters[0] ?? join(dirname(file), "backups", `deft-${stamp}.sqlite`);

function fail(words: string): never {
  process.stderr.write(`${words}\n`);
  process.exit(1);
}

if (!existsSync(file)) fail("There is no data yet, so there is nothing to back up.");
if (existsSync(target)) fail(`There is a file already at ${target}; it was left alone.`);
mkdirSync(dirname(target), { recursive: true });
const database = new sqlite3.Database(file, sqlite3.OPEN_READONLY, (error) => {
  if (error !== null) fail(`The data cannot be read: ${error.message}`);
});
database.run("VACUUM INTO ?", [target], (error) => {
  database.close();
  if (error !== null) fail(`The copy was not made: ${error.message}`);
  process.stdout.write(`A copy lies at ${target}. To go back to it, stop the program and put it in place of ${file}.\n`);
});

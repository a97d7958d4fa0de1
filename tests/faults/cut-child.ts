import fs from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import sqlite3 from "sqlite3";

/**
 * Does one thing to a store's file and kills itself before the step asked
 * for: each statement of SQLite and each change of a file name is a step. So
 * every moment at which a power cut could come is tried, not only lucky ones.
 * Usage: node cut-child.mjs WHAT FILE OTHER STEP (0 does all of it and prints the number of steps)
 */
const [what = "", file = "", other = "", at = "0"] = process.argv.slice(2);
let steps = 0;
function step(): void {
  steps++;
  if (steps === Number(at)) process.kill(process.pid, "SIGKILL");
}

const files = fs as unknown as Record<string, (...parameters: unknown[]) => unknown>;
for (const name of ["renameSync", "linkSync", "rmSync", "writeFileSync"]) {
  const original = files[name];
  if (original === undefined) throw new Error(`There is no ${name}.`);
  files[name] = (...parameters) => {
    step();
    return original(...parameters);
  };
}
syncBuiltinESMExports();
const statements = sqlite3.Database.prototype as unknown as Record<string, (...parameters: unknown[]) => unknown>;
for (const name of ["exec", "run", "all", "get"]) {
  const original = statements[name];
  if (original === undefined) throw new Error(`There is no ${name}.`);
  statements[name] = function (...parameters) {
    step();
    return original.apply(this, parameters);
  };
}

const { addPerson, closeStore, copyStore, MIGRATION_NAMES, openStore, restoreStore } = await import("@/store");
const fill = async (store: Parameters<typeof addPerson>[0]) => {
  for (const name of ["one", "two", "three"]) await addPerson(store, { name, role: "handler" });
};
if (what === "open" || what === "fill") await closeStore(await openStore(file, Date.now, what === "fill" ? { fill } : {}));
else if (what === "backup") await copyStore(file, other, MIGRATION_NAMES);
else if (what === "restore") await restoreStore(file, other, MIGRATION_NAMES, "stamp", () => "epoch");
else throw new Error(`Not known: ${what}`);
process.stdout.write(String(steps));

import { randomUUID as newId } from "node:crypto";
import { mkdirSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { MIGRATION_NAMES, makeForOwnerAlone, restoreStore, storeFile } from "@/store";
import { takeLock } from "./lock";
import { fail, saidPlainly } from "./said";

/** npm run restore -- FILE: puts a backup in place of the data; what was there is set aside. `--demo` for the demo's. */
makeForOwnerAlone();
const parameters = process.argv.slice(2).filter((word) => word !== "--demo");
const file = storeFile(process.argv.includes("--demo") ? "demo" : "own", process.cwd());

await saidPlainly(async () => {
  const [backup] = parameters;
  if (backup === undefined || parameters.length > 1) fail("Say which backup: npm run restore -- FILE");
  mkdirSync(dirname(file), { recursive: true });
  const lock = await takeLock(file);
  if (!lock.taken) fail("The program is running with this data; stop it first. Nothing was changed.");
  const stamp = new Date().toISOString().replace(/[:.]/g, "-");
  const { aside, horses, sessions, events, access } = await restoreStore(file, resolve(backup), MIGRATION_NAMES, stamp, newId);
  process.stdout.write(`The backup is in place: horses ${horses}, sessions ${sessions}, taps ${events}.\n`);
  if (aside !== null) process.stdout.write(`What was there before lies at ${aside}.\n`);
  process.stdout.write("Devices that tapped since the backup offer their taps again when they next connect.\n");
  if (access !== "") process.stdout.write(`${access}\n`);
  lock.release();
});

import { existsSync } from "node:fs";
import { closeStore, openStore, rebuildCaches, storeFile } from "@/store";
import { takeLock } from "./lock";

/** npm run rebuild: makes every cached sum anew from the events. */
const file = storeFile(process.argv.includes("--demo") ? "demo" : "own", process.cwd());
if (!existsSync(file)) {
  process.stdout.write("There is no data yet.\n");
  process.exit(0);
}
const lock = await takeLock(file);
if (!lock.taken) {
  process.stderr.write("The program is running with this data; stop it first.\n");
  process.exit(1);
}
const store = await openStore(file);
process.stdout.write(`${await rebuildCaches(store)} sessions summed up anew.\n`);
await closeStore(store);
lock.release();

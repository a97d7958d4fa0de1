import { existsSync } from "node:fs";
import { closeStore, notSummedIn, openStore, rebuildCaches, storeFile } from "@/store";
import { takeLock } from "./lock";
import { fail, saidPlainly } from "./said";

/** npm run rebuild: makes every cached sum anew from the events. */
const file = storeFile(process.argv.includes("--demo") ? "demo" : "own", process.cwd());
await saidPlainly(async () => {
  if (!existsSync(file)) {
    process.stdout.write("There is no data yet.\n");
    return;
  }
  const lock = await takeLock(file);
  if (!lock.taken) fail("The program is running with this data; stop it first.");
  const store = await openStore(file, Date.now, { say: (text) => process.stdout.write(`${text}\n`) });
  process.stdout.write(`${await rebuildCaches(store)} sessions summed up anew.\n`);
  for (const { id, why } of notSummedIn(store)) process.stdout.write(`Session ${id} could not be summed up: ${why}\n`);
  await closeStore(store);
  lock.release();
});

import { existsSync } from "node:fs";
import { closeStore, openStore, purgeBin, storeFile } from "@/store";
import { takeLock } from "./lock";
import { fail, saidPlainly } from "./said";

/** npm run -s purge: empties the bin at once, whatever its age, and gives its room in the file back. */
const file = storeFile(process.argv.includes("--demo") ? "demo" : "own", process.cwd());
await saidPlainly(async () => {
  if (!existsSync(file)) {
    process.stdout.write("There is no data yet.\n");
    return;
  }
  const lock = await takeLock(file);
  if (!lock.taken) fail("The program is running with this data; stop it first.");
  const store = await openStore(file, Date.now, { say: (text) => process.stdout.write(`${text}\n`) });
  const gone = await purgeBin(store, store.now());
  if (gone > 0) await store.sequelize.query("VACUUM");
  await closeStore(store);
  lock.release();
  process.stdout.write(
    gone === 0
      ? "The bin is empty.\n"
      : `${gone} ${gone === 1 ? "thing" : "things"} gone for good, with what went along. Backups made before still hold it.\n`,
  );
});

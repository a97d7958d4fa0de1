import { existsSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { copyStore, MIGRATION_NAMES, makeForOwnerAlone, storeFile } from "@/store";
import { fail, saidPlainly } from "./said";

/** npm run backup [-- FILE]: a copy of the store, safe while the program runs. `--demo` copies the demo's. */
makeForOwnerAlone();
const demo = process.argv.includes("--demo");
const parameters = process.argv.slice(2).filter((word) => word !== "--demo");
const file = storeFile(demo ? "demo" : "own", process.cwd());
const stamp = new Date().toISOString().replace(/[:.]/g, "-");
const target = resolve(parameters[0] ?? join(dirname(file), "backups", `${demo ? "demo" : "own"}-${stamp}.sqlite`));

await saidPlainly(async () => {
  if (!existsSync(file)) fail("There is no data yet, so there is nothing to back up.");
  await copyStore(file, target, MIGRATION_NAMES);
  process.stdout.write(
    `A copy lies at ${target}, and was checked. To go back to it, stop the program: npm run restore -- ${demo ? "--demo " : ""}${target}\n`,
  );
});

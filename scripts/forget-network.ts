import { existsSync } from "node:fs";
import { dirname } from "node:path";
import { forgetAuthority } from "@/network";
import { closeStore, endAllSignIns, openStore, storeFile, writeMeta } from "@/store";
import { takeLock } from "./lock";
import { fail, saidPlainly } from "./said";

/** npm run forget-network: the authority with its key, and every sign-in, gone. `--demo` for the demo's. */
const file = storeFile(process.argv.includes("--demo") ? "demo" : "own", process.cwd());

await saidPlainly(async () => {
  const lock = await takeLock(file);
  if (!lock.taken) fail("The program is running with this data; stop it first. Nothing was changed.");
  const there = forgetAuthority(dirname(file));
  if (existsSync(file)) {
    const store = await openStore(file);
    await endAllSignIns(store);
    await writeMeta(store, "network", "off");
    await closeStore(store);
  }
  lock.release();
  process.stdout.write(
    `${there ? "The certificate authority and its key are gone" : "There was no certificate authority"}; every sign-in is ended and the network is off.\n`,
  );
  process.stdout.write(
    "What a phone still trusts can vouch for nothing any more. To tidy up there, remove “Deft Tether on …” from its certificates.\n",
  );
});

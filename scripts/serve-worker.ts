// Reads a package into a store of its own, in a process beside the server: taps are answered meanwhile, and what it takes of memory is bounded.
import { closeStore, isOfCode, openStore, readPackage } from "@/store";
import type { ReaderSaid } from "./read-apart";

const SAID_EVERY_MS = 200;
const [path = "", file = ""] = process.argv.slice(2);
let cancelled = false;
let saidMs = 0;
const say = (said: ReaderSaid) => process.send?.(said);

process.on("message", (word) => {
  if (word === "give up") cancelled = true;
});
// Nobody is there to hear what comes of it.
process.on("disconnect", () => process.exit(1));

try {
  const store = await openStore(file);
  try {
    await readPackage(store, path, {
      onBytes: (bytes) => {
        if (Date.now() - saidMs < SAID_EVERY_MS) return;
        saidMs = Date.now();
        say({ bytes });
      },
      cancelled: () => cancelled,
    });
  } finally {
    await closeStore(store);
  }
  say({ done: true });
} catch (error) {
  const known = isOfCode(error, "not-such-a-file") || isOfCode(error, "cancelled");
  if (!known) console.error(error);
  say({ failed: known ? error.code : "unknown", message: error instanceof Error ? error.message : String(error) });
}
process.disconnect?.();

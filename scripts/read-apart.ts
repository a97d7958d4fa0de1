import { fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { NotSuchAFileError } from "@/core/formats";
import { CancelledError, type Reading } from "@/store";

/** What the reader beside the server says. */
export type ReaderSaid =
  | { readonly bytes: number }
  | { readonly done: true }
  | { readonly failed: "not-such-a-file" | "cancelled" | "unknown"; readonly message: string };

/** Of memory that a package may make the reader take, in MB: any yard needs a fraction of it. */
const MOST_MEMORY_MB = 256;
const LOOK_EVERY_MS = 200;

/**
 * Reads a package into a store of its own, in another process.
 * @param path of the package.
 * @param file where the store is made.
 * @throws NotSuchAFileError where it is no package or asks for more than any yard. CancelledError where whoever asked gave up.
 */
export function readApart(path: string, file: string, { onBytes, cancelled }: Reading): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = fork(fileURLToPath(new URL("./serve-worker.mjs", import.meta.url)), [path, file], {
      execArgv: [`--max-old-space-size=${MOST_MEMORY_MB}`],
      stdio: ["ignore", "ignore", "inherit", "ipc"],
    });
    let said: ReaderSaid | null = null;
    const look = setInterval(() => {
      if (cancelled?.() === true) child.send("give up");
    }, LOOK_EVERY_MS);
    child.on("message", (word) => {
      const told = word as ReaderSaid;
      if ("bytes" in told) onBytes?.(told.bytes);
      else said = told;
    });
    child.once("error", reject);
    child.once("exit", () => {
      clearInterval(look);
      if (said === null) return reject(new NotSuchAFileError("It asks for more memory than any yard needs."));
      if ("done" in said) return resolve();
      if ("failed" in said && said.failed === "cancelled") return reject(new CancelledError(said.message));
      if ("failed" in said && said.failed === "not-such-a-file") return reject(new NotSuchAFileError(said.message));
      reject(new Error("failed" in said ? said.message : "The package could not be read."));
    });
  });
}

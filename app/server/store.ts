import "server-only";
import { openStore, type Store, storeFile } from "@/store";

/** One open store for the whole process, whichever page or route asks first. */
const shared = globalThis as typeof globalThis & { deftStore?: Promise<Store> };

export function getStore(): Promise<Store> {
  shared.deftStore ??= openStore(process.env.DEFT_STORE_FILE ?? storeFile("own", process.cwd()));
  return shared.deftStore;
}

import "server-only";
import { connection } from "next/server";
import type { Restored } from "@/store";
import { inProcess } from "./in-process";

/** What the launcher does with the store as a whole; see getStore. */
export interface StoreKeeper {
  /** Puts a copy in place of the store, sets the present one aside and opens the other: nobody else is answered meanwhile. */
  goBackTo(name: string): Promise<Restored>;
}

const shared = inProcess<{ deftStoreKeeper?: StoreKeeper }>();

export async function getStoreKeeper(): Promise<StoreKeeper> {
  await connection();
  if (shared.deftStoreKeeper === undefined) throw new Error("The pages run under npm start or npm run demo, which keep the data.");
  return shared.deftStoreKeeper;
}

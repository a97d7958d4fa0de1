import "server-only";
import { connection } from "next/server";
import type { Store } from "@/store";
import { inProcess } from "./in-process";

/** The launcher opens the store and puts it here, so that the process has one store and one writer. */
const shared = inProcess<{ deftStore?: Promise<Store> }>();

/**
 * The store of this process. Nothing else opens one: building the pages must
 * not touch anybody's data, so a page that asks is left for its visit.
 */
export async function getStore(): Promise<Store> {
  await connection();
  if (shared.deftStore === undefined) throw new Error("The pages run under npm start or npm run demo, which open the data.");
  return shared.deftStore;
}

import { DeviceQueue } from "./queue";

/**
 * How many taps wait on this device, whatever data they are of: also where it
 * does not know any more which it was with. 0 where the browser does not tell
 * what it keeps.
 */
export async function waitingHere(): Promise<number> {
  if (typeof indexedDB.databases !== "function") return 0;
  let waiting = 0;
  for (const { name } of await indexedDB.databases()) {
    const store = /^deft-([0-9a-f-]{36})$/.exec(name ?? "")?.[1];
    if (store === undefined) continue;
    const queue = await DeviceQueue.open(store);
    waiting += (await queue.idsOf("waiting")).length;
    queue.close();
  }
  return waiting;
}

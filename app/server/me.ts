import "server-only";
import type { Me } from "@/core/pack";
import { listSignIns, type Store } from "@/store";
import { getNetwork } from "./network";
import type { Who } from "./who";

/** An address that was used within this time may still hold taps. */
const RECENTLY_MS = 30 * 86_400_000;

/**
 * Who a device is. Where the same person used the same kind of device under
 * an address this machine no longer has, that address is named: taps that
 * were not sent from there wait there.
 */
export async function meOf(store: Store, who: Who, host: string): Promise<Me> {
  if (!who.network) return { network: false, name: null, access: "owner", recorder: null, olderHosts: [] };
  const list = await listSignIns(store);
  const own = list.find(({ id }) => id === who.signIn);
  const { addresses, host: name, port } = (await getNetwork()).state();
  const present = new Set([name, ...addresses].map((one) => `${one}:${port}`));
  const older = list.filter(
    (one) =>
      one.name === own?.name &&
      one.deviceName === own.deviceName &&
      one.host !== host &&
      (!present.has(one.host) || host === `${name}:${port}`) &&
      one.usedMs > store.now() - RECENTLY_MS,
  );
  return {
    network: true,
    name: own?.name ?? "",
    access: who.role ?? "helper",
    recorder: who.recorder,
    olderHosts: [...new Set(older.map((one) => one.host))],
  };
}

"use client";

import { useEffect } from "react";
import { senderFor } from "./device/sender";

/** On every page: sends what an earlier page left on the device, and tries again when the network comes back. */
export function SyncAgent({ storeId }: { storeId: string }) {
  useEffect(() => {
    // From here on every button on the page answers; the browser tests wait for it.
    document.documentElement.dataset.ready = "yes";
    const sender = senderFor(storeId);
    sender.kick();
    void sender.prune();
    window.addEventListener("online", sender.reconnect);
    return () => window.removeEventListener("online", sender.reconnect);
  }, [storeId]);
  return null;
}

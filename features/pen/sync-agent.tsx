"use client";

import { useEffect } from "react";
import { senderFor } from "../device/sender";

/** On every page: sends what an earlier page left on the device, and tries again when the network comes back. */
export function SyncAgent({ storeId }: { storeId: string }) {
  useEffect(() => {
    // From here on every button on the page answers; the browser tests wait for it.
    document.documentElement.dataset.ready = "yes";
    const sender = senderFor(storeId);
    sender.kick();
    void sender.prune();
    // Where it does not come over, the next page tries again.
    void import("./keep-here").then(({ keepHere }) => keepHere()).catch(() => undefined);
    // Taps that are on this page alone go with it: the browser asks before it leaves.
    const beforeLeaving = (event: BeforeUnloadEvent) => {
      const { keeps, unkept } = sender.snapshot();
      if (!keeps && unkept.size > 0) event.preventDefault();
    };
    window.addEventListener("online", sender.reconnect);
    window.addEventListener("beforeunload", beforeLeaving);
    return () => {
      window.removeEventListener("online", sender.reconnect);
      window.removeEventListener("beforeunload", beforeLeaving);
    };
  }, [storeId]);
  return null;
}

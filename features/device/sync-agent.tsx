"use client";

import { useEffect } from "react";
import { install } from "./install";
import { senderFor } from "./sender";

/** On every page: sends what an earlier page left on the device, and tries again when the network comes back. */
export function SyncAgent({ storeId }: { storeId: string }) {
  useEffect(() => {
    // From here on every button on the page answers; the browser tests wait for it.
    document.documentElement.dataset.ready = "yes";
    const sender = senderFor(storeId);
    sender.kick();
    void sender.prune();
    // The pen is kept on this device, and what it needs to know, so that it opens with no server.
    void install().then(async (can) => {
      if (!can) return;
      const [, inHand] = /^\/horses\/([^/]+)\//.exec(window.location.pathname) ?? [];
      const { keepLastHorse } = await import("../pen/keep");
      if (inHand !== undefined && inHand !== "new") keepLastHorse(inHand);
      const { refreshKept } = await import("../pen/refresh");
      await refreshKept(inHand ?? null).catch(() => undefined);
    });
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

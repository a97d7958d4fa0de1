"use client";

import { useEffect } from "react";

/** Keeps the screen on where the browser can; it gives the lock up when hidden, so it is asked again. */
export function useWakeLock(on: boolean) {
  useEffect(() => {
    if (!on || !("wakeLock" in navigator)) return;
    const ask = () => {
      if (!document.hidden) navigator.wakeLock.request("screen").catch(() => undefined);
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => document.removeEventListener("visibilitychange", ask);
  }, [on]);
}

"use client";

import { useSyncExternalStore } from "react";
import { installedState, onInstalled, takeNewer } from "../device/install";

/** Offers a newer version of the program between two sessions; it never takes over in the middle of one. */
export function NewerVersion() {
  const state = useSyncExternalStore(onInstalled, installedState, () => "not looked" as const);
  if (state !== "newer waits") return null;
  return (
    <p role="status" className="flex flex-wrap items-center gap-4 border-b-2 border-ink bg-tarn-wash px-4 py-2">
      A newer version of the program is on this device.
      <button type="button" className="act-quiet" onClick={() => void takeNewer()}>
        Use it now
      </button>
    </p>
  );
}

"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import { installedState, onInstalled } from "../device/install";

const SEEN = "deft-limits-seen";

/** What this browser cannot do, each with what that means in the pen. */
export function limitsOf(browser: {
  readonly secure: boolean;
  readonly worker: boolean;
  readonly wakeLock: boolean;
  readonly keeps: boolean;
  readonly vibrates: boolean;
}): string[] {
  return [
    ...(browser.secure && browser.worker
      ? []
      : [
          browser.secure
            ? "This browser keeps no pages here, most often since the phone does not trust the computer yet: the pen opens only while the computer answers. An open page goes on recording without it."
            : "This address is not a secured one, so the browser keeps no pages: the pen opens only while the computer answers. An open page goes on recording without it.",
        ]),
    ...(browser.keeps ? [] : ["It keeps no taps on its disk: they last as long as the page, until the computer has them."]),
    ...(browser.wakeLock ? [] : ["It cannot keep the screen on: set the phone's own time to screen off longer."]),
    ...(browser.vibrates ? [] : ["It does not vibrate: a press is answered by sound."]),
  ];
}

/** The same of the browser this runs in. */
const here = (installed: boolean) =>
  limitsOf({
    secure: window.isSecureContext,
    worker: installed,
    wakeLock: "wakeLock" in navigator,
    keeps: "indexedDB" in window,
    vibrates: "vibrate" in navigator,
  });

/** Says once what this browser cannot do; then it can be looked up. */
export function BrowserLimits() {
  const [limits, setLimits] = useState<readonly string[]>([]);
  const [open, setOpen] = useState(false);
  const installed = useSyncExternalStore(onInstalled, installedState, () => "not looked" as const);
  useEffect(() => {
    if (installed === "not looked") return;
    const found = here(installed !== "not here");
    setLimits(found);
    try {
      setOpen(localStorage.getItem(SEEN) !== found.join(" "));
    } catch {
      setOpen(true);
    }
  }, [installed]);
  if (limits.length === 0) return null;
  const seen = () => {
    setOpen(false);
    try {
      localStorage.setItem(SEEN, limits.join(" "));
    } catch {
      // It is then said each time.
    }
  };
  if (!open)
    return (
      <button type="button" className="link mt-1" onClick={() => setOpen(true)}>
        What this browser cannot do
      </button>
    );
  return (
    <div className="mt-2 border-l-4 border-ochre pl-3">
      <ul>
        {limits.map((limit) => (
          <li key={limit}>{limit}</li>
        ))}
      </ul>
      <button type="button" className="act-quiet mt-2" onClick={seen}>
        Understood
      </button>
    </div>
  );
}

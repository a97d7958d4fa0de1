"use client";

import { useCallback, useEffect, useState } from "react";
import { tell } from "../../sound/signals";

/** How far apart the looks are, in seconds: at work they must not keep the eyes off the horse for long (common practice, no source). */
export const BEEP_SECONDS = 8;

/** Looks at each beep: since when they run, and which beep it is. */
export interface LooksState {
  readonly sinceMs: number | null;
  readonly beep: number;
  readonly toggle: () => void;
}

/** The beeps of momentary looks; they go on whichever row is shown. */
export function useLooks(): LooksState {
  const [sinceMs, setSince] = useState<number | null>(null);
  const [beep, setBeep] = useState(0);
  useEffect(() => {
    if (sinceMs === null) return;
    let heard = 0;
    const timer = setInterval(() => {
      const now = Math.floor((performance.now() - sinceMs) / (BEEP_SECONDS * 1000));
      if (now === heard) return;
      heard = now;
      tell("beep");
      setBeep(now);
    }, 200);
    return () => clearInterval(timer);
  }, [sinceMs]);
  const toggle = useCallback(() => {
    setBeep(0);
    setSince((since) => (since === null ? performance.now() : null));
  }, []);
  return { sinceMs, beep, toggle };
}

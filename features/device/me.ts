import type { Me } from "@/core/pack";

const KEY = "deft-me";

/** Who this device is to the server, as it was told last; null before that, and on the computer itself nobody by name. */
export function knownMe(): Me | null {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(KEY) ?? "null");
    return typeof value === "object" && value !== null && "network" in value ? (value as Me) : null;
  } catch {
    return null;
  }
}

export function keepMe(me: Me | null): void {
  try {
    if (me === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, JSON.stringify(me));
  } catch {
    // Storage is shut off: it is asked again each time.
  }
}

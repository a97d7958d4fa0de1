import { PARTS, type Part } from "@/core/events/parts";

const keyOf = (session: string) => `deft-part-${session}`;

/** The part this device took in a session; undefined where one person does all. */
export function partIn(session: string): Part | undefined {
  try {
    const kept = localStorage.getItem(keyOf(session));
    return PARTS.find((part) => part === kept);
  } catch {
    return undefined;
  }
}

export function takePart(session: string, part: Part | undefined): void {
  try {
    if (part === undefined) localStorage.removeItem(keyOf(session));
    else localStorage.setItem(keyOf(session), part);
  } catch {
    // Storage is shut off: taps then carry no part.
  }
}

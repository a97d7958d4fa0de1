import { v4 as newId } from "uuid";
import { knownMe } from "./me";

const KEY = "deft-device";
/** Corrections are logged as the review, so that they are told from what the recorder itself put right. */
const REVIEW = "review";

/** This device's own short name, kept in the browser. */
function deviceId(): string {
  try {
    const known = localStorage.getItem(KEY);
    if (known !== null) return known;
    const made = newId().slice(0, 8);
    localStorage.setItem(KEY, made);
    return made;
  } catch {
    // Storage may be shut off; the recorder then counts as new on each load.
    return newId().slice(0, 8);
  }
}

/**
 * Device and person: each recorder undoes its own. From the network both are
 * the server's to say, by who is signed in.
 */
export function recorderId(person: string): string {
  const own = knownMe()?.recorder ?? null;
  if (own === null) return `${deviceId()}:${person}`.slice(0, 100);
  return person === REVIEW ? `${own}:${REVIEW}` : own;
}

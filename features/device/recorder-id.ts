import { v4 as newId } from "uuid";

const KEY = "deft-device";

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

/** Device and person: each recorder undoes its own. */
export const recorderId = (person: string) => `${deviceId()}:${person}`.slice(0, 100);

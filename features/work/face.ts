import { useSyncExternalStore } from "react";
import { isOneOf } from "@/core/typed";

/** How much of the recorder is in sight: every pad, or those an answer needs. */
export const FACES = ["full", "plain"] as const;
export type Face = (typeof FACES)[number];

const KEY = "deft-recorder-face";

interface Shown {
  readonly face: Face;
  /** In the plain face: every pad for the moment. Not kept: the next load is plain again. */
  readonly opened: boolean;
}

const FULL: Shown = { face: "full", opened: false };

/** What was kept; anything that is no face is the full one. @example readFace("plain") // "plain" */
export const readFace = (text: string | null): Face => (isOneOf(FACES, text) ? text : "full");

const listeners = new Set<() => void>();
let shown: Shown | null = null;

function current(): Shown {
  if (shown === null) {
    try {
      shown = { face: readFace(localStorage.getItem(KEY)), opened: false };
    } catch {
      shown = FULL;
    }
  }
  return shown;
}

function show(next: Shown): void {
  shown = next;
  for (const tell of listeners) tell();
}

/** Chooses the face of this device. */
export function keepFace(face: Face): void {
  try {
    localStorage.setItem(KEY, face);
  } catch {
    // Without storage it holds until the page is closed.
  }
  show({ face, opened: false });
}

/** Every pad of the plain face for the moment, or no longer. */
export const openPads = (opened: boolean): void => show({ ...current(), opened });

export const useFace = (): Shown =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    current,
    () => FULL,
  );

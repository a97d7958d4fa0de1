import { useSyncExternalStore } from "react";
import { isTemplate, type MarkTemplate } from "@/core/hearing/template";
import { fieldsOf } from "@/core/typed";

const KEY = "deft-heard-mark";

/** What this device knows of its person's marker. Nothing of it goes to the server. */
export interface KeptMarker {
  readonly on: boolean;
  readonly template: MarkTemplate | null;
  /** How well it was taught, in words. */
  readonly sentence: string;
}

const NOTHING: KeptMarker = { on: false, template: null, sentence: "" };

/** What was kept; anything that is no template is none. */
export function readMarker(text: string | null): KeptMarker {
  try {
    const { on, template, sentence } = fieldsOf(JSON.parse(text ?? "{}"));
    if (!isTemplate(template)) return NOTHING;
    return { on: on === true, template, sentence: typeof sentence === "string" ? sentence : "" };
  } catch {
    return NOTHING;
  }
}

const listeners = new Set<() => void>();
let known: KeptMarker | null = null;

export function keptMarker(): KeptMarker {
  if (known === null) {
    try {
      known = readMarker(localStorage.getItem(KEY));
    } catch {
      known = NOTHING;
    }
  }
  return known;
}

export function keepMarker(next: KeptMarker): void {
  known = next;
  try {
    localStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // Without storage it holds until the page is closed.
  }
  for (const tell of listeners) tell();
}

export const useMarker = () =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    keptMarker,
    () => NOTHING,
  );

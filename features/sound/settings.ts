import { useSyncExternalStore } from "react";
import { fieldsOf, keysOf, recordOf } from "@/core/typed";

/** What this device sounds for; each can be off. */
export interface SoundSettings {
  readonly press: boolean;
  readonly dwell: boolean;
  readonly words: boolean;
  readonly reinforce: boolean;
  readonly sides: boolean;
  /** Words spoken by the browser's own voice instead of short sounds. */
  readonly speak: boolean;
}

export const SOUND_DEFAULTS: SoundSettings = { press: true, dwell: true, words: true, reinforce: true, sides: true, speak: false };

export const SOUND_FIELDS: readonly { readonly key: keyof SoundSettings; readonly label: string; readonly hint: string }[] = [
  { key: "press", label: "Presses", hint: "a click under each pad" },
  { key: "dwell", label: "Dwell", hint: "a soft tick each second, two at its end; the beat of a pulse" },
  { key: "words", label: "The word", hint: "its own sound when it changes; the block's end" },
  { key: "reinforce", label: "Reinforce this one", hint: "before an ask that earns it, where not each one does" },
  { key: "sides", label: "Sides and gaits", hint: "when they change" },
  { key: "speak", label: "Spoken", hint: "said aloud in place of the sounds, by this device's own voice" },
];

const KEY = "deft-sounds";
const listeners = new Set<() => void>();
let known: SoundSettings | null = null;

/** What this device was set to. */
export function soundSettings(): SoundSettings {
  if (known !== null) return known;
  try {
    const kept = fieldsOf(JSON.parse(localStorage.getItem(KEY) ?? "{}"));
    known = recordOf(keysOf(SOUND_DEFAULTS), (key) => {
      const on = kept[key];
      return typeof on === "boolean" ? on : SOUND_DEFAULTS[key];
    });
  } catch {
    known = SOUND_DEFAULTS;
  }
  return known;
}

export function setSound(key: keyof SoundSettings, on: boolean): void {
  known = { ...soundSettings(), [key]: on };
  try {
    localStorage.setItem(KEY, JSON.stringify(known));
  } catch {
    // Without storage the choice holds until the page is closed.
  }
  for (const tell of listeners) tell();
}

const subscribe = (tell: () => void) => {
  listeners.add(tell);
  return () => listeners.delete(tell);
};

export const useSoundSettings = () => useSyncExternalStore(subscribe, soundSettings, () => SOUND_DEFAULTS);

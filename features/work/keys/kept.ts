import { useSyncExternalStore } from "react";
import { fieldsOf, isRecord } from "@/core/typed";
import { type Bindings, KEY_ACTS, KEY_SETS, type KeySet, keyProblem, ONE } from "./sets";

const KEY = "deft-keys";

interface KeptKeys {
  readonly chosen: string;
  readonly changed: Readonly<Record<string, { readonly bindings: Bindings; readonly keyUp: boolean }>>;
}

const acts = new Set<string>([...KEY_ACTS.map(({ act }) => act), ONE]);

/** What was kept, with whatever is no binding left out. */
export function readKept(text: string | null): KeptKeys {
  const chosen = KEY_SETS[0]?.id ?? "";
  try {
    const kept = fieldsOf(JSON.parse(text ?? "{}"));
    const changed: Record<string, { bindings: Bindings; keyUp: boolean }> = {};
    const given = fieldsOf(kept.changed);
    for (const { id, keyUp } of KEY_SETS) {
      const one = fieldsOf(given[id]);
      if (!isRecord(one.bindings)) continue;
      const good = Object.entries(one.bindings).filter(([key, act]) => keyProblem(key) === null && acts.has(String(act)));
      changed[id] = { bindings: Object.fromEntries(good) as Bindings, keyUp: typeof one.keyUp === "boolean" ? one.keyUp : keyUp };
    }
    return { chosen: KEY_SETS.some(({ id }) => id === kept.chosen) ? String(kept.chosen) : chosen, changed };
  } catch {
    return { chosen, changed: {} };
  }
}

const listeners = new Set<() => void>();
let known: KeptKeys | null = null;

function kept(): KeptKeys {
  if (known === null) {
    try {
      known = readKept(localStorage.getItem(KEY));
    } catch {
      known = readKept(null);
    }
  }
  return known;
}

function keep(next: KeptKeys): void {
  known = next;
  current = null;
  try {
    localStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // Without storage the choice holds until the page is closed.
  }
  for (const tell of listeners) tell();
}

/** A set as this device has it. */
export function setNow(id: string): KeySet {
  const base = KEY_SETS.find((set) => set.id === id) ?? (KEY_SETS[0] as KeySet);
  return { ...base, ...kept().changed[base.id] };
}

let current: KeySet | null = null;

/** The set in use. */
export function chosenSet(): KeySet {
  current ??= setNow(kept().chosen);
  return current;
}

export const chooseSet = (id: string) => keep({ ...kept(), chosen: id });
export const keepSet = ({ id, bindings, keyUp }: KeySet) => keep({ ...kept(), changed: { ...kept().changed, [id]: { bindings, keyUp } } });

/** The set as it came with the app. */
export function resetSet(id: string): void {
  const { [id]: _, ...changed } = kept().changed;
  keep({ ...kept(), changed });
}

const subscribe = (tell: () => void) => {
  listeners.add(tell);
  return () => listeners.delete(tell);
};

export const useChosenSet = () => useSyncExternalStore(subscribe, chosenSet, () => KEY_SETS[0] as KeySet);

import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { PackedHorse } from "@/core/pack";

/** The yard as it lies on this device: another version of the program may have put it away. */
export interface LyingYard {
  readonly store: string;
  readonly yard: unknown;
  /** When it was fetched, and how the server's clock stood to this device's then. */
  readonly fetchedMs: number;
  readonly offsetMs: number;
}

/** A horse as it lies on this device. */
export interface LyingHorse {
  readonly key: string;
  readonly pack: unknown;
  readonly fetchedMs: number;
}

interface Shape extends DBSchema {
  yards: { key: string; value: LyingYard };
  horses: { key: string; value: LyingHorse };
}

const keyOf = (store: string, horse: string) => `${store} ${horse}`;
const PRESENT = "deft-store";
const LAST_HORSE = "deft-horse";

let opening: Promise<IDBPDatabase<Shape>> | null = null;

/** The device's own copy of the yard, one for all stores; opened anew after the browser has closed it. */
function database(): Promise<IDBPDatabase<Shape>> {
  opening ??= openDB<Shape>("deft-pen", 1, {
    upgrade(db) {
      db.createObjectStore("yards", { keyPath: "store" });
      db.createObjectStore("horses", { keyPath: "key" });
    },
    terminated() {
      opening = null;
    },
  }).catch((error: unknown) => {
    opening = null;
    throw error;
  });
  return opening;
}

const remember = (key: string, value: string) => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Storage is shut off: the pen then asks each time.
  }
};
const remembered = (key: string) => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};

/** The store this device was last with, or null. */
const presentStore = () => remembered(PRESENT);

/** The horse last in hand on this device, or null. */
export const lastHorse = () => remembered(LAST_HORSE);
export const keepLastHorse = (horse: string) => remember(LAST_HORSE, horse);

/** Puts something away; resolves only when it is on the disk of the device: the next thing may be a pen with no network, or a flat battery. */
async function put<Name extends "yards" | "horses">(name: Name, value: Shape[Name]["value"]): Promise<void> {
  const transaction = (await database()).transaction(name, "readwrite", { durability: "strict" });
  await Promise.all([transaction.store.put(value), transaction.done]);
}

export async function keepYard(kept: LyingYard): Promise<void> {
  await put("yards", kept);
  remember(PRESENT, kept.store);
}

/**
 * The yard this device was last with, or null where it never was. A browser
 * that is killed may lose the name of it, which it writes to the disk now and
 * then only; the newest copy is the one it was with.
 */
export async function lyingYard(): Promise<LyingYard | null> {
  const db = await database();
  const store = presentStore();
  const named = store === null ? undefined : await db.get("yards", store);
  if (named !== undefined) return named;
  const [newest] = (await db.getAll("yards")).sort((a, b) => b.fetchedMs - a.fetchedMs);
  if (newest === undefined) return null;
  remember(PRESENT, newest.store);
  return newest;
}

/** Keeps a horse; those that have left the yard are forgotten with {@link forgetOthers}. */
export async function keepHorse(store: string, pack: PackedHorse, fetchedMs: number): Promise<void> {
  await put("horses", { key: keyOf(store, pack.horse.id), pack, fetchedMs });
}

/** When a horse was fetched, or null where it is not here. */
export async function horseFetchedMs(store: string, horse: string): Promise<number | null> {
  return (await lyingHorse(store, horse))?.fetchedMs ?? null;
}

/** A horse as it lies here, or undefined. */
export const lyingHorse = async (store: string, horse: string): Promise<LyingHorse | undefined> =>
  (await database()).get("horses", keyOf(store, horse));

/** Every horse of a store as it lies here. */
export const lyingHorses = async (store: string): Promise<LyingHorse[]> =>
  (await database()).getAll("horses", IDBKeyRange.bound(`${store} `, `${store} \uffff`));

/** Which horse a kept one is. */
export const horseOf = ({ key }: LyingHorse, store: string): string => key.slice(store.length + 1);

/** Every horse of a store that is kept here, with when it was fetched. */
export async function keptHorses(store: string): Promise<ReadonlyMap<string, number>> {
  return new Map((await lyingHorses(store)).map((one) => [horseOf(one, store), one.fetchedMs]));
}

/** Takes the yard's copy off this device: who signs out leaves no plans behind. Taps lie elsewhere and stay. */
export async function forgetKept(): Promise<void> {
  const db = await database();
  await Promise.all([db.clear("yards"), db.clear("horses")]);
  for (const key of [PRESENT, LAST_HORSE])
    try {
      localStorage.removeItem(key);
    } catch {
      // Storage is shut off: nothing was kept there.
    }
}

/** Forgets horses of a store that are no longer in its yard. */
export async function forgetOthers(store: string, horses: readonly string[]): Promise<void> {
  const there = new Set(horses.map((id) => keyOf(store, id)));
  const db = await database();
  for (const { key } of await lyingHorses(store)) if (!there.has(key)) await db.delete("horses", key);
}

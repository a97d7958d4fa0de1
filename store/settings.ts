import { DEFAULT_SETTINGS, settingsFrom, type YardSettings } from "@/core/settings";
import { markAllStale } from "./caches";
import { rowsOf } from "./rows";
import type { Store, StoreParts } from "./store";

const WORD_KEY = "word-settings";

/** The thresholds of the word, for every device of this yard. */
export async function getSettings(store: StoreParts): Promise<YardSettings> {
  const [row] = await rowsOf(store.models.meta, "key = :key", { key: WORD_KEY });
  if (row === undefined) return DEFAULT_SETTINGS;
  try {
    return settingsFrom(JSON.parse(row.value));
  } catch {
    // Unreadable settings must not keep anybody from working; the defaults are safe.
    return DEFAULT_SETTINGS;
  }
}

/** Keeps the thresholds of the word. What is out of bounds falls back to its default. */
export async function setSettings(store: Store, settings: YardSettings): Promise<void> {
  const next = settingsFrom(settings);
  const before = await getSettings(store);
  await store.writer.write(async (transaction) => {
    await store.models.meta.upsert({ key: WORD_KEY, value: JSON.stringify(next) }, { transaction });
    // What is a pause changes every session's minutes: all of them are summed up anew.
    if (next.silenceMinutes !== before.silenceMinutes) await markAllStale(store, transaction);
  });
  if (next.silenceMinutes !== before.silenceMinutes) store.caches.catchUp();
}

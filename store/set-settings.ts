import { settingsFrom, type YardSettings } from "@/core/settings";
import { markAllStale } from "./caches";
import { getSettings, WORD_KEY } from "./settings";
import type { Store } from "./store";

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

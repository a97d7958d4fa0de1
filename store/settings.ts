import { DEFAULT_WORD_SETTINGS, type WordSettings, wordSettingsFrom } from "@/core/session";
import type { Store, StoreParts } from "./store";

const WORD_KEY = "word-settings";

/** The thresholds of the word, for every device of this yard. */
export async function getWordSettings(store: StoreParts): Promise<WordSettings> {
  const row = await store.models.meta.findByPk(WORD_KEY);
  if (row === null) return DEFAULT_WORD_SETTINGS;
  try {
    return wordSettingsFrom(JSON.parse(String(row.get("value"))));
  } catch {
    // Unreadable settings must not keep anybody from working; the defaults are safe.
    return DEFAULT_WORD_SETTINGS;
  }
}

/** Keeps the thresholds of the word. What is out of bounds falls back to its default. */
export async function setWordSettings(store: Store, settings: WordSettings): Promise<void> {
  const next = wordSettingsFrom(settings);
  const before = await getWordSettings(store);
  await store.writer.write(async (transaction) => {
    await store.models.meta.upsert({ key: WORD_KEY, value: JSON.stringify(next) }, { transaction });
    // What is a pause changes every session's minutes: all of them are summed up anew.
    if (next.silenceMinutes !== before.silenceMinutes)
      await store.models.sessionSummary.update({ last_position: -1 }, { where: {}, transaction });
  });
}

import { DEFAULT_SETTINGS, settingsFrom, type YardSettings } from "@/core/settings";
import { rowsOf } from "./rows";
import type { StoreParts } from "./store";

/** Where the thresholds of the word are kept. */
export const WORD_KEY = "word-settings";

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

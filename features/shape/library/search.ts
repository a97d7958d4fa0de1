import MiniSearch from "minisearch";
import type { LibraryEntry } from "./library-list";

type Sought = Pick<LibraryEntry, "key" | "name" | "finished" | "also">;

const unaccented = (term: string) =>
  term
    .toLowerCase()
    .normalize("NFKD")
    .replace(/\p{Diacritic}/gu, "");

/** An index over the library: the name weighs most, then the words trainers use, then how it looks when finished. */
export function searchOf(entries: readonly Sought[]): MiniSearch {
  const index = new MiniSearch({
    idField: "key",
    fields: ["name", "also", "finished"],
    extractField: (entry, field) => {
      const value = (entry as unknown as Record<string, unknown>)[field];
      return Array.isArray(value) ? value.join(" | ") : String(value);
    },
    processTerm: unaccented,
    searchOptions: {
      boost: { name: 3, also: 2 },
      prefix: true,
      // A slip of a finger in a word of four letters or more, two in a long one.
      fuzzy: (term) => (term.length < 4 ? 0 : term.length < 6 ? 1 : 2),
      combineWith: "AND",
      processTerm: unaccented,
    },
  });
  index.addAll(entries as Sought[]);
  return index;
}

/** The entries that answer what is typed, best first; all of them, as they stand, where nothing is. */
export function searched<Entry extends Sought>(index: MiniSearch, entries: readonly Entry[], typed: string): readonly Entry[] {
  if (typed.trim() === "") return entries;
  const byKey = new Map(entries.map((entry) => [entry.key, entry]));
  return index.search(typed).flatMap(({ id }) => byKey.get(String(id)) ?? []);
}

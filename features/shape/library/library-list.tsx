"use client";

import Link from "next/link";
import { useMemo, useState } from "react";
import type { Family } from "@/core/behaviour";
import { counted } from "@/core/words";
import { searched, searchOf } from "./search";

/** A behaviour of the library as the list shows it. */
export interface LibraryEntry {
  readonly key: string;
  readonly name: string;
  readonly family: Family;
  readonly finished: string;
  readonly rungs: number;
  readonly restsOn: readonly string[];
  /** The horse's own ladder for it, or null. */
  readonly ladderId: string | null;
  /** The words trainers use for it. */
  readonly also: readonly string[];
}

const FAMILY_WORDS: Record<Family, string> = {
  "in hand": "In hand",
  circle: "On the circle",
  free: "Free",
  "driving path": "The driving path",
};

/** Every behaviour the app knows how to begin, by family; typing narrows it. */
export function LibraryList({ horseId, entries }: { horseId: string; entries: readonly LibraryEntry[] }) {
  const [sought, setSought] = useState("");
  const index = useMemo(() => searchOf(entries), [entries]);
  const found = useMemo(() => searched(index, entries, sought), [index, entries, sought]);
  const families = [...new Set(entries.map(({ family }) => family))];
  return (
    <>
      <label htmlFor="sought" className="sr-only">
        Look for a behaviour
      </label>
      <input
        id="sought"
        type="search"
        value={sought}
        onChange={(event) => setSought(event.target.value)}
        placeholder="Look for a behaviour"
        autoComplete="off"
        className="field-box max-w-96"
      />
      <p className="mt-2 text-sm text-soft" aria-live="polite">
        {found.length === 0 ? "None of that name." : counted(found.length, "behaviour")}
      </p>
      {sought.trim() !== "" && (
        <p className="mt-1">
          <Link href={`/horses/${horseId}/shape/new?behaviour=${encodeURIComponent(sought.trim())}`} className="link">
            Begin “{sought.trim()}” with an empty ladder
          </Link>
        </p>
      )}
      {families.map((family) => {
        const own = found.filter((entry) => entry.family === family);
        if (own.length === 0) return null;
        return (
          <section key={family} className="mt-7" aria-labelledby={`family-${family}`}>
            <h2 id={`family-${family}`} className="border-b-2 border-ink pb-1 text-xl">
              {FAMILY_WORDS[family]}
            </h2>
            <ul>
              {own.map(({ key, name, finished, rungs, restsOn, ladderId }) => (
                <li key={key} className="grid gap-x-8 border-b border-hair py-2.5 md:grid-cols-[19rem_1fr_auto]">
                  <Link href={`/horses/${horseId}/shape/library/${key}`} className="font-head text-lg font-bold hover:underline">
                    {name}
                  </Link>
                  <span>
                    {finished}
                    {restsOn.length > 0 && <span className="block text-sm text-soft">Rests on {restsOn.join(", ")}.</span>}
                  </span>
                  <span className="text-right text-sm text-soft">
                    {rungs} rungs
                    {ladderId !== null && (
                      <Link href={`/horses/${horseId}/shape/${ladderId}`} className="link block">
                        its ladder
                      </Link>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}

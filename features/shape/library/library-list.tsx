"use client";

import Link from "next/link";
import { useState } from "react";
import type { Family } from "@/core/behaviour";

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
}

const FAMILY_WORDS: Record<Family, string> = {
  "in hand": "In hand",
  circle: "On the circle",
  free: "Free",
  "driving path": "The driving path",
};

const plain = (text: string) => text.toLowerCase().normalize("NFKD");

/** Every behaviour the app knows how to begin, by family; typing narrows it. */
export function LibraryList({ horseId, entries }: { horseId: string; entries: readonly LibraryEntry[] }) {
  const [sought, setSought] = useState("");
  const words = plain(sought).split(/\s+/).filter(Boolean);
  const found = entries.filter(({ name, finished }) => words.every((word) => plain(`${name} ${finished}`).includes(word)));
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
        {found.length === 0 ? "None of that name. A ladder of your own can begin empty." : `${found.length} behaviours`}
      </p>
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

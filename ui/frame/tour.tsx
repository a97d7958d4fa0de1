"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { useEffect, useState } from "react";

/** One stop of a walk round the sample yard: a page, and what to look at there. */
export interface TourStop {
  readonly href: string;
  readonly title: string;
  readonly text: string;
}

/** Kept in the tab alone: closing it ends the walk. */
const KEY = "deft-tour";

function kept(): readonly TourStop[] {
  try {
    const value: unknown = JSON.parse(sessionStorage.getItem(KEY) ?? "[]");
    return Array.isArray(value) ? (value as readonly TourStop[]) : [];
  } catch {
    return [];
  }
}

/** Begins a walk round; it is shown on the pages it stops at and nowhere else. */
export const beginTour = (stops: readonly TourStop[]): void => sessionStorage.setItem(KEY, JSON.stringify(stops));

/** On a page that is a stop of the walk: what to look at, and the way on. Above the page, in nobody's way; one press ends it. */
export function TourStrip() {
  const path = usePathname();
  const [stops, setStops] = useState<readonly TourStop[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read anew on each page
  useEffect(() => setStops(kept()), [path]);
  const at = stops.findIndex(({ href }) => href === path);
  const stop = stops[at];
  if (stop === undefined) return null;
  const next = stops[at + 1];
  const end = () => {
    sessionStorage.removeItem(KEY);
    setStops([]);
  };
  return (
    <aside aria-label="Walk round the sample yard" className="no-print mt-4 border-y-2 border-tarn bg-paper px-4 py-3">
      <p className="max-w-prose">
        <span className="figures text-sm text-soft">
          {at + 1} of {stops.length} ·{" "}
        </span>
        <strong>{stop.title}</strong> {stop.text}
      </p>
      <p className="mt-1.5 flex flex-wrap gap-x-6">
        {next !== undefined && (
          <Link href={next.href} className="link font-semibold">
            On to the next
          </Link>
        )}
        <button type="button" className="link" onClick={end}>
          {next === undefined ? "Done" : "End the walk"}
        </button>
      </p>
    </aside>
  );
}

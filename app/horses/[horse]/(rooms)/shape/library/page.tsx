import type { Metadata } from "next";
import Link from "next/link";
import { LibraryList } from "@/features/shape/library/library-list";
import { LIBRARY, templateOf } from "@/library";
import { SYNONYMS } from "@/library/synonyms";
import { getHorse, listLadders } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Library" };

export default async function LibraryPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const ladders = await listLadders(store, horse.id);
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 className="text-[2rem]">Library</h1>
        <Link href={`/horses/${horse.id}/shape/new`} className="link">
          Begin an empty ladder
        </Link>
      </div>
      <LibraryList
        horseId={horse.id}
        entries={LIBRARY.map(({ key, name, family, finished, rungs, prerequisites }) => ({
          key,
          name,
          family,
          finished,
          rungs: rungs.length,
          restsOn: prerequisites.map(({ behaviour }) => templateOf(behaviour)?.name ?? behaviour),
          ladderId: ladders.find(({ behaviour }) => behaviour.template === key)?.id ?? null,
          also: SYNONYMS[key] ?? [],
        }))}
      />
    </>
  );
}

import type { Metadata } from "next";
import { emptyDraft } from "@/features/shape/draft";
import { LadderEditor } from "@/features/shape/ladder-editor";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Plan a ladder" };

interface Props {
  params: Promise<{ horse: string }>;
  /** A behaviour's name to begin with, for example from the first look. */
  searchParams: Promise<{ behaviour?: string | string[] }>;
}

export default async function NewLadderPage({ params, searchParams }: Props) {
  const { horse } = await params;
  const { behaviour: named } = await searchParams;
  const store = await getStore();
  const { allowance } = await horseCare(store, await findOr404(getHorse(store, horse)));
  const draft = emptyDraft();
  const start = typeof named === "string" ? { ...draft, behaviour: { ...draft.behaviour, name: named.slice(0, 80) } } : draft;
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Plan a ladder</h1>
      <LadderEditor start={start} horseId={horse} worked={false} allowance={allowance} />
    </>
  );
}

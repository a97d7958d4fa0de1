import type { Metadata } from "next";
import { emptyDraft } from "@/features/shape/draft";
import { LadderEditor } from "@/features/shape/ladder-editor";

export const metadata: Metadata = { title: "Plan a ladder" };

export default async function NewLadderPage({ params }: { params: Promise<{ horse: string }> }) {
  const { horse } = await params;
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Plan a ladder</h1>
      <LadderEditor start={emptyDraft()} horseId={horse} worked={false} />
    </>
  );
}

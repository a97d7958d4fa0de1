import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { mendPlan } from "@/core/ladder/document";
import { emptyDraft } from "@/features/shape/editor/draft";
import { LadderEditor } from "@/features/shape/editor/ladder-editor";
import { WhatWasLost } from "@/features/shape/what-was-lost";
import { brokenLadder, getHorse } from "@/store";
import { findOr404 } from "../../../../../../server/find-or-404";
import { horseCare } from "../../../../../../server/horse-care";
import { editorSurroundings } from "../../../../../../server/shape-facts";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Mend the ladder" };

/** A ladder that this version cannot read, opened for repair: what could be read is in the editor, the rest is named. */
export default async function MendLadderPage({ params }: { params: Promise<{ horse: string; ladder: string }> }) {
  const { horse, ladder: id } = await params;
  const store = await getStore();
  const ladder = await findOr404(brokenLadder(store, id));
  if (ladder.horseId !== horse) notFound();
  const { unread, lost } = ladder;
  if (unread === null && !lost.involves && !lost.prerequisites) redirect(`/horses/${horse}/shape/${id}/edit`);
  const otherwise = emptyDraft().plan;
  const mended = unread === null ? { plan: ladder.plan ?? otherwise, lost: [] } : mendPlan(unread.text, otherwise);
  const { allowance } = await horseCare(store, await findOr404(getHorse(store, horse)));
  return (
    <>
      <h1 className="mb-3 text-[2rem]">Mend: {ladder.behaviour.name}</h1>
      <WhatWasLost plan={mended.lost} involves={lost.involves} prerequisites={lost.prerequisites} text={unread?.text ?? ""} />
      <LadderEditor
        key={ladder.revision}
        start={{ behaviour: ladder.behaviour, plan: mended.plan }}
        horseId={horse}
        edited={{ ladderId: id, revision: ladder.revision }}
        worked={null}
        allowance={allowance}
        surroundings={await editorSurroundings(store, horse, null)}
      />
    </>
  );
}

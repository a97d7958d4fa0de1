import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { LadderEditor } from "@/features/shape/ladder-editor";
import { asBehaviour, getHorse, getLadder, rungEvidence } from "@/store";
import { findOr404 } from "../../../../../../server/find-or-404";
import { horseCare } from "../../../../../../server/horse-care";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Edit the ladder" };

export default async function EditLadderPage({ params }: { params: Promise<{ horse: string; ladder: string }> }) {
  const { horse, ladder: id } = await params;
  const store = await getStore();
  const ladder = await findOr404(getLadder(store, id));
  if (ladder.horseId !== horse) notFound();
  const worked = (await rungEvidence(store, id, ladder.version)).some((sum) => sum.n > 0);
  const behaviour = asBehaviour(ladder.behaviour);
  const { allowance } = await horseCare(store, await findOr404(getHorse(store, horse)));
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Edit: {behaviour.name}</h1>
      <LadderEditor start={{ behaviour, plan: ladder.plan }} horseId={horse} ladderId={id} worked={worked} allowance={allowance} />
    </>
  );
}

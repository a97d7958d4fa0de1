import type { Metadata } from "next";
import { valuesOf } from "@/core/record";
import { LadderEditor } from "@/features/shape/editor/ladder-editor";
import { asBehaviour, getHorse, newestEvidence, rungEvidence } from "@/store";
import { findOr404 } from "../../../../../../server/find-or-404";
import { horseCare } from "../../../../../../server/horse-care";
import { ladderHere } from "../../../../../../server/ladder-here";
import { editorSurroundings } from "../../../../../../server/shape-facts";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Edit the ladder" };

export default async function EditLadderPage({ params }: { params: Promise<{ horse: string; ladder: string }> }) {
  const { horse, ladder: id } = await params;
  const store = await getStore();
  const ladder = await ladderHere(store, horse, id);
  const evidence = await rungEvidence(store, ladder, ladder.version);
  // A bar that follows looks at a hundred values at the most, and not every answer holds one.
  const trials = await newestEvidence(store, ladder, 1000);
  const behaviour = asBehaviour(ladder.behaviour);
  const { allowance } = await horseCare(store, await findOr404(getHorse(store, horse)));
  return (
    <>
      <h1 className="mb-3 text-[2rem]">Edit: {behaviour.name}</h1>
      <LadderEditor
        key={ladder.revision}
        start={{ behaviour, plan: ladder.plan }}
        horseId={horse}
        edited={{ ladderId: id, revision: ladder.revision }}
        worked={evidence.some((sum) => sum.n > 0) ? { plan: ladder.plan, evidence, values: valuesOf(trials) } : null}
        allowance={allowance}
        surroundings={await editorSurroundings(store, horse, ladder, trials)}
      />
    </>
  );
}

"use client";

import { useState } from "react";
import type { LadderPlan } from "@/core/ladder";
import { criterionSentence } from "@/core/strands";
import { type ChartChanges, type ChartEvidence, StrandChart } from "@/ui/strand-chart";

/** A version of a ladder with what it changed marked on the rope. */
export function VersionChart({
  plan,
  evidence,
  changes,
}: {
  plan: LadderPlan;
  evidence: readonly ChartEvidence[];
  changes: ChartChanges | null;
}) {
  const [selected, setSelected] = useState(1);
  return (
    <>
      <StrandChart plan={plan} evidence={evidence} selected={selected} onSelect={setSelected} changes={changes ?? undefined} />
      <p className="mt-1" aria-live="polite">
        <span className="text-soft">Rung {selected}: </span>
        {criterionSentence(
          plan.strands,
          plan.rungs[selected - 1]?.values ?? {},
          plan.phases.map(({ label }) => label),
        )}
      </p>
    </>
  );
}

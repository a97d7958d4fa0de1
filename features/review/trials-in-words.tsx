"use client";

import { type ReactNode, useState } from "react";
import type { SlimTrial } from "@/core/record";
import { wholeTrial } from "@/core/record/slim-trial";
import { OutcomeMark, OutcomeSymbols, trialWords } from "@/ui/ribbon";
import { chooseTrial } from "./chosen-trial";

/** The ribbon as a list: every trial in words, each leading to where it can be put right. Written when it is opened: a long session's is the longest part of the page. */
export function TrialsInWords({
  trials,
  phases,
  children,
}: {
  trials: readonly SlimTrial[];
  /** Names of the cue phases, by block. */
  phases: readonly (readonly string[] | undefined)[];
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-5" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="link inline-block">Every trial in words</summary>
      {open && (
        <>
          <OutcomeSymbols />
          <ol className="mt-2 columns-1 gap-10 text-[0.95rem] sm:columns-2 xl:columns-3">
            {trials.map(wholeTrial).map((trial) => (
              <li key={trial.eventId} className="flex items-start gap-2 py-0.5 break-inside-avoid">
                <span className="mt-0.5 shrink-0">
                  <OutcomeMark outcome={trial.outcome} size={18} />
                </span>
                <button type="button" className="text-left hover:underline" onClick={() => chooseTrial(trial.number)}>
                  {trialWords(trial, trial.blockIndex === null ? undefined : phases[trial.blockIndex])}
                  {trial.faults.length > 0 && <span className="text-brick"> ({trial.faults.join(", ")})</span>}
                </button>
              </li>
            ))}
          </ol>
          {children}
        </>
      )}
    </details>
  );
}

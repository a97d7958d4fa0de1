"use client";

import { useMemo, useRef } from "react";
import type { Rung } from "@/core/ladder";
import { type StepFault, type Strand, stepFaults } from "@/core/strands";

/** The faults of a ladder's steps; none while a value being typed is not of its strand yet. The same list for as long as it says the same. */
export function useFaults(strands: readonly Strand[], rungs: readonly Rung[]): readonly StepFault[] {
  const kept = useRef<{ text: string; faults: readonly StepFault[] }>({ text: "[]", faults: [] });
  return useMemo(() => {
    let faults: readonly StepFault[] = [];
    try {
      faults = stepFaults(
        strands,
        rungs.map((rung) => rung.values),
      );
    } catch (thrown) {
      // A value that is not of its strand is told at the value itself.
      if (!(thrown instanceof RangeError)) throw thrown;
    }
    const text = JSON.stringify(faults);
    if (text !== kept.current.text) kept.current = { text, faults };
    return kept.current.faults;
  }, [strands, rungs]);
}

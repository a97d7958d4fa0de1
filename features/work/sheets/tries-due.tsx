"use client";

import { dueTry, tryingWords } from "@/core/experiment/due";
import { useActs, useLog, useScreen, useStart } from "../state";

/** The blocks that are due of experiments on this horse, said where a block is chosen, each begun by its own button. Nothing for whom none runs. */
export function TriesDue() {
  const {
    part: { behaviour, ladderId },
    parts,
    today: { tries },
  } = useStart();
  const { record } = useLog();
  const { setSheet } = useScreen();
  const act = useActs();
  const due = tries.flatMap((one) => dueTry(one, record) ?? []);
  if (due.length === 0) return null;
  return (
    <section aria-label="Try both" className="mb-4 grid gap-2 border-l-4 border-tarn pl-3">
      {due.map((one) => (
        <div key={one.of.id}>
          <p className="text-sm">
            {one.of.ladder !== ladderId && (
              <strong>{parts.find((part) => part.ladderId === one.of.ladder)?.behaviour ?? behaviour}. </strong>
            )}
            {tryingWords(one)}
          </p>
          <button
            type="button"
            className="act-quiet mt-1 min-h-12 w-full"
            onClick={() => {
              setSheet(null);
              act.tryBoth(one);
            }}
          >
            Work block {one.tries.n}: {one.way}
          </button>
        </div>
      ))}
    </section>
  );
}

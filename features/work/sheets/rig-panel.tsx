"use client";

import { useState } from "react";
import { SIDE_WORDS } from "@/core/words";
import type { RigAsked } from "../rig";
import { useActs } from "../state";

/** The rig, looked at before work or before the other side: one press each, and it can be skipped. */
export function RigPanel({ asked }: { asked: RigAsked }) {
  const act = useActs();
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const { checks, side } = asked;
  const press = (text: string) => {
    const next = new Set(seen);
    if (!next.delete(text)) next.add(text);
    setSeen(next);
    // The last one that is looked at says that all are.
    if (next.size === checks.length)
      act.rig(
        checks.map((check) => check.text),
        [],
        side,
      );
  };
  return (
    <fieldset className="min-w-0 rounded-lg border-2 border-ochre bg-ground p-3">
      <legend className="px-1 font-head text-lg font-bold">The rig{side === null ? "" : `, ${SIDE_WORDS[side]}`}</legend>
      <div className="grid gap-1.5">
        {checks.map(({ text }) => (
          <button
            key={text}
            type="button"
            aria-pressed={seen.has(text)}
            onClick={() => press(text)}
            className={`min-h-14 rounded-lg border-[2.5px] border-ink px-3 text-left font-semibold ${seen.has(text) ? "bg-ink text-on-ink" : "bg-paper"}`}
          >
            {text}
          </button>
        ))}
      </div>
      <div className="mt-2 flex flex-wrap gap-x-5">
        {seen.size > 0 && (
          <button
            type="button"
            className="link min-h-12"
            onClick={() =>
              act.rig(
                [...seen],
                checks.flatMap(({ text }) => (seen.has(text) ? [] : [text])),
                side,
              )
            }
          >
            That is all; the rest is not right yet
          </button>
        )}
        <button type="button" className="link min-h-12" onClick={() => act.skipRig(side)}>
          Skip
        </button>
      </div>
    </fieldset>
  );
}

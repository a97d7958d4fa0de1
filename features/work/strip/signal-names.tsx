"use client";

import { SIGNS } from "@/core/know";
import type { TimedFact } from "@/core/record";
import { chip } from "./chip";

/** Which sign it was: a second tap, if there is time for one. */
export function SignalNames({ fact, onName }: { fact: TimedFact<"signal">; onName: (id: string, name: string) => void }) {
  const kind = fact.payload.class;
  return (
    <fieldset className="flex min-w-0 flex-wrap gap-1.5" aria-label={`Which sign of ${kind}`}>
      {SIGNS[kind].map((name) => (
        <button
          key={name}
          type="button"
          aria-pressed={fact.payload.name === name}
          onClick={() => onName(fact.id, name)}
          className={`${chip(fact.payload.name === name)} px-1.5! text-[0.85rem]!`}
        >
          {name}
        </button>
      ))}
    </fieldset>
  );
}

"use client";

import { SIGNS } from "@/core/know";
import type { SignalClass, TimedFact } from "@/core/session";
import { chip } from "./chip";

/** Which sign it was: a second tap, if there is time for one. */
export function SignalNames({ fact, onName }: { fact: TimedFact; onName: (id: string, name: string) => void }) {
  const kind = fact.payload.class as SignalClass;
  return (
    <fieldset className="flex min-w-0 gap-1.5 overflow-x-auto lg:flex-wrap" aria-label={`Which sign of ${kind}`}>
      {SIGNS[kind].map((name) => (
        <button
          key={name}
          type="button"
          aria-pressed={fact.payload.name === name}
          onClick={() => onName(fact.id, name)}
          className={chip(fact.payload.name === name)}
        >
          {name}
        </button>
      ))}
    </fieldset>
  );
}

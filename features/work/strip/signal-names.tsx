"use client";

import type { TimedFact } from "@/core/record";
import { namesFor } from "@/core/signs";
import { chip } from "@/ui/chip";
import { useLog, useStart } from "../state";

/** The names of a class: the latest three that were used first, then the product's and the yard's own. */
export function namesInOrder(known: readonly string[], used: readonly string[]): readonly string[] {
  const latest = [...new Set([...used].reverse())].filter((name) => known.includes(name)).slice(0, 3);
  return [...latest, ...known.filter((name) => !latest.includes(name))];
}

/** Which sign it was: a second tap, if there is time for one. */
export function SignalNames({ fact, onName }: { fact: TimedFact<"signal">; onName: (id: string, name: string) => void }) {
  const { part, today, yard } = useStart();
  const { record } = useLog();
  const kind = fact.payload.class;
  const own = [...yard.ownSigns, ...today.pinned, ...(part.plan.conversation?.pinned ?? [])]
    .filter((sign) => sign.class === kind)
    .map(({ name }) => name);
  const used = record.facts.flatMap((one) =>
    one.type === "signal" && one.id !== fact.id && one.payload.class === kind ? [one.payload.name] : [],
  );
  return (
    <fieldset className="flex min-w-0 flex-wrap gap-1.5" aria-label={`Which sign of ${kind}`}>
      {namesInOrder([...new Set([...namesFor(kind), ...own])], used).map((name) => (
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

import { adviceOfKey } from "@/core/advice";
import type { SessionRecord } from "@/core/record";
import { clockWords } from "@/ui/measure";

/** What the advice said during the session, and what was done with it. */
export function AdviceHistory({ record }: { record: SessionRecord }) {
  const words = record.facts.filter((fact) => fact.type === "word");
  if (words.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2 text-xl">The advice</h2>
      <ol className="figures max-w-prose">
        {words.map((fact) => (
          <li key={fact.id} className="grid grid-cols-[3.5rem_5rem_1fr] gap-x-3 border-t border-hair py-1">
            <span className="text-soft">{clockWords(fact.ms / 1000)}</span>
            <span className={`font-head font-bold ${fact.payload.taken === true ? "text-tarn" : ""}`}>
              {adviceOfKey(fact.payload.word)}
            </span>
            <span className="text-[0.95rem]">
              {fact.payload.reason ?? ""}
              {fact.payload.taken === true && <strong> Taken.</strong>}
              {fact.payload.did !== undefined && <strong> Did instead: {fact.payload.did}.</strong>}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

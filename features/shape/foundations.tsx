import Link from "next/link";
import type { PrerequisiteReadiness } from "@/core/behaviour";
import { type GraphPart, RestsOnGraph } from "./rests-on-graph";

/** What a ladder rests on, with what the numbers say of each. */
export function Foundations({
  horseId,
  readiness,
  warning,
  graph,
}: {
  horseId: string;
  readiness: readonly PrerequisiteReadiness[];
  warning: string | null;
  graph: readonly GraphPart[];
}) {
  if (readiness.length === 0) return null;
  return (
    <section className="mt-8 border-t-2 border-hair pt-3" aria-labelledby="rests-on">
      <h2 id="rests-on" className="text-xl">
        It rests on
      </h2>
      {warning !== null && <p className="mt-1 max-w-prose border-l-4 border-ochre pl-4 font-semibold">{warning}</p>}
      <ul className="mt-2 mb-4 grid max-w-4xl gap-1">
        {readiness.map(({ behaviour, wanted, sentence, ladderId }) => (
          <li key={`${behaviour} ${wanted}`}>
            {ladderId === null ? (
              <strong>{behaviour}</strong>
            ) : (
              <Link href={`/horses/${horseId}/shape/${ladderId}`} className="font-bold underline underline-offset-4">
                {behaviour}
              </Link>
            )}
            {wanted !== "" && `, ${wanted}`}
            <span className="text-soft"> · {sentence}</span>
          </li>
        ))}
      </ul>
      <RestsOnGraph parts={graph} />
    </section>
  );
}

import Link from "next/link";
import type { NextStart } from "@/core/advice";
import type { LadderPlan } from "@/core/ladder";
import { masterySentence } from "@/core/mastery";
import { criterionParts } from "@/core/strands";
import { Day } from "@/ui/day";

/** Where each ladder goes on next time, and why. */
export function Ahead({
  horseId,
  ladders,
  evidenceDays,
}: {
  horseId: string;
  ladders: readonly { id: string; name: string; plan: LadderPlan; next: NextStart; lastWallMs: number | null }[];
  /** How many days asks speak for moving on. */
  evidenceDays: number;
}) {
  return (
    <>
      <h1 className="text-[2rem]">Ahead</h1>
      {ladders.length === 0 ? (
        <p className="mt-4 text-lg">
          Nothing is planned yet.{" "}
          <Link href={`/horses/${horseId}/shape/new`} className="link">
            Plan a ladder
          </Link>
          .
        </p>
      ) : (
        <ul className="mt-5">
          {ladders.map(({ id, name, plan, next, lastWallMs }) => (
            <li key={id} className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-3 border-t-2 border-hair py-6 lg:grid-cols-[1fr_24rem]">
              <div>
                <h2 className="font-sans text-base font-normal text-soft">{name}</h2>
                <p className={`font-head text-3xl font-extrabold ${next.barred === null ? "text-tarn" : "text-brick"}`}>{next.headline}</p>
                <p className="mt-2 max-w-prose text-lg">{next.reason}</p>
                {next.beside !== undefined && <p className="max-w-prose text-sm text-soft">{next.beside}</p>}
                {next.barred === null && (
                  <p className="mt-4 max-w-prose text-lg">
                    {next.kind === "probe" ? "Test: " : "Ask for: "}
                    {criterionParts(
                      plan.strands,
                      plan.rungs[next.rung - 1]?.values ?? {},
                      plan.phases.map((p) => p.label),
                    ).map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
                  </p>
                )}
                {next.barred === null ? (
                  <Link href={`/horses/${horseId}/work`} className="act mt-5">
                    Work it
                  </Link>
                ) : (
                  <Link href={`/horses/${horseId}/know/limits`} className="link mt-4 inline-block">
                    The limits
                  </Link>
                )}
              </div>
              <dl className="grid content-start grid-cols-[8rem_1fr] gap-y-1.5">
                <dt className="text-soft">last worked</dt>
                <dd>{lastWallMs === null ? "never" : <Day ms={lastWallMs} />}</dd>
                <dt className="text-soft">moves on when</dt>
                <dd>{masterySentence(plan.mastery)}</dd>
                <dt className="text-soft">evidence from</dt>
                <dd>
                  this rung and version, the last {evidenceDays} days; for moving on, since it was last left; warm-up, probe and easy blocks
                  aside
                </dd>
              </dl>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

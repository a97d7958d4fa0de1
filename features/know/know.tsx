import Link from "next/link";
import { wilsonInterval } from "@/core/evidence";
import { shareSentence } from "@/core/session";
import { centimetresToHands } from "@/core/units";
import { ageCaution } from "@/core/welfare";
import { Whisker } from "@/ui/measure";

interface KnownHorse {
  readonly id: string;
  readonly name: string;
  readonly birth_year: number | null;
  readonly sex: string | null;
  readonly kind: string;
  readonly height_cm: number | null;
  readonly mass_kg: number | null;
  readonly history: string;
  readonly restrictions: string;
}

interface KnownLadder {
  readonly id: string;
  readonly name: string;
  readonly rung: number;
  readonly rungs: number;
  readonly headline: string;
  readonly sides: readonly { readonly side: "L" | "R"; readonly n: number; readonly met: number }[];
}

const SIDE_WORD = { L: "left", R: "right" } as const;

function Facts({ horse, year }: { horse: KnownHorse; year: number }) {
  const facts = [
    horse.birth_year === null ? null : ["Age", `${year - horse.birth_year} years, born ${horse.birth_year}`],
    horse.sex === null ? null : ["Sex", horse.sex],
    horse.kind === "" ? null : ["Kind", horse.kind],
    horse.height_cm === null ? null : ["Height", `${horse.height_cm} cm, ${centimetresToHands(horse.height_cm)} hands`],
    horse.mass_kg === null ? null : ["Mass", `${horse.mass_kg} kg`],
  ].filter((fact) => fact !== null);
  if (facts.length === 0) return null;
  return (
    <dl className="grid grid-cols-[5.5rem_1fr] gap-y-1.5">
      {facts.map(([term, text]) => (
        <div key={term} className="contents">
          <dt className="text-soft">{term}</dt>
          <dd className="figures">{text}</dd>
        </div>
      ))}
    </dl>
  );
}

function Sides({ ladder, horseId }: { ladder: KnownLadder; horseId: string }) {
  const worked = ladder.sides.some((side) => side.n > 0);
  return (
    <li className="border-t-2 border-hair py-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <Link href={`/horses/${horseId}/shape/${ladder.id}`} className="font-head text-lg font-bold hover:underline">
          {ladder.name}
        </Link>
        <span className="figures text-soft">
          rung {ladder.rung} of {ladder.rungs}
        </span>
      </div>
      {worked && (
        <dl className="mt-2 grid grid-cols-[3.2rem_minmax(0,13rem)_1fr] items-center gap-x-4 gap-y-1 text-[0.95rem]">
          {ladder.sides
            .filter((side) => side.n > 0)
            .map(({ side, n, met }) => (
              <div key={side} className="contents">
                <dt>{SIDE_WORD[side]}</dt>
                <dd className="min-w-0">
                  <Whisker share={met / n} interval={wilsonInterval(met, n)} />
                </dd>
                <dd className="text-sm text-soft">{shareSentence(met, n)}</dd>
              </div>
            ))}
        </dl>
      )}
      <p className="mt-1.5 font-semibold text-tarn">{ladder.headline}</p>
    </li>
  );
}

/** What is known of the horse, before any plan. */
export function Know({ horse, year, ladders }: { horse: KnownHorse; year: number; ladders: readonly KnownLadder[] }) {
  const caution = horse.birth_year === null ? null : ageCaution(horse.birth_year, year);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-[2rem]">{horse.name}</h1>
        <Link href={`/horses/${horse.id}/know/edit`} className="link">
          Edit
        </Link>
      </div>
      {(horse.restrictions !== "" || caution !== null) && (
        <div className="mt-4 max-w-3xl border-l-4 border-brick pl-4">
          <h2 className="text-base text-brick">Mind this today</h2>
          {horse.restrictions !== "" && <p className="whitespace-pre-wrap">{horse.restrictions}</p>}
          {caution !== null && <p>{caution.sentence}</p>}
        </div>
      )}
      <div className="mt-7 grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 lg:grid-cols-[22rem_1fr]">
        <section aria-label="The horse">
          <Facts horse={horse} year={year} />
          <h2 className="mt-6 mb-1 text-xl">History</h2>
          <p className="max-w-prose whitespace-pre-wrap">{horse.history === "" ? "Nothing written yet." : horse.history}</p>
        </section>
        <section>
          <h2 className="mb-2 text-xl">How it stands, side by side</h2>
          {ladders.length === 0 ? (
            <p>
              No ladder yet.{" "}
              <Link href={`/horses/${horse.id}/shape/new`} className="link">
                Plan the first one
              </Link>
              .
            </p>
          ) : (
            <>
              <ul className="border-b-2 border-hair">
                {ladders.map((ladder) => (
                  <Sides key={ladder.id} ladder={ladder} horseId={horse.id} />
                ))}
              </ul>
              <p className="mt-2 text-sm text-soft">
                Share met in the last 40 work trials on each side, with the 95 % interval. The trials may lie on different rungs.
              </p>
            </>
          )}
        </section>
      </div>
    </>
  );
}

"use client";

import { Problem } from "@/ui/form";
import { Away } from "./away";
import { NO_RESTRICTION, RestrictionForm } from "./restriction-form";
import { RestrictionRow, YardRow } from "./restriction-row";
import type { ShownRestriction } from "./shown";
import { useLimits } from "./use-limits";

/** Stands for the id of a restriction that is not written yet. */
const NEW = "new";

/** Everything that limits the work with this horse: advice with its dates, age, being put away. */
export function Limits({
  horse,
  today,
  restrictions,
  age,
  yard,
  yardAgainst,
  away,
}: {
  horse: { id: string; name: string };
  today: string;
  restrictions: readonly ShownRestriction[];
  age: { words: string; caution: string | null } | null;
  /** What the yard's own settings close for a young horse, and whether that was gone against today. */
  yard: readonly { sentence: string; today: boolean }[];
  yardAgainst: readonly string[];
  away: { kind: string; since: string | null; note: string } | null;
}) {
  const acts = useLimits(horse.id);
  return (
    <>
      <h1 className="text-[2rem]">Limits and dates</h1>
      <p className="mt-1 text-lg">
        {age === null
          ? "Its age is not noted, so no age caution can be given."
          : `${age.words} old. ${age.caution ?? "No age caution from five years on."}`}
      </p>
      <ul className="mt-5 border-b-2 border-hair">
        {yard.map(({ sentence, today: gone }, i) => (
          <YardRow key={sentence} sentence={sentence} gone={gone} against={yardAgainst} first={i === 0} acts={acts} />
        ))}
        {restrictions.map((restriction) => (
          <RestrictionRow key={restriction.id} horseId={horse.id} restriction={restriction} acts={acts} />
        ))}
        {restrictions.length + yard.length === 0 && <li className="border-t-2 border-hair py-3.5 text-soft">No restriction.</li>}
      </ul>
      <Problem className="mt-2">{acts.problem}</Problem>
      <div className="mt-5">
        {acts.open?.id === NEW ? (
          <RestrictionForm horseId={horse.id} start={NO_RESTRICTION} onDone={() => acts.setOpen(null)} />
        ) : (
          <button type="button" className="act-quiet" onClick={() => acts.setOpen({ what: "edit", id: NEW })}>
            Add a restriction
          </button>
        )}
      </div>
      <p className="mt-4 max-w-prose text-sm text-soft">
        A restriction switches off or caps what it names, in the plan, at work and ahead, with its reason beside it. It is the advice of
        whoever gave it: ask them before you change it.
      </p>
      <Away horseId={horse.id} name={horse.name} away={away} today={today} />
    </>
  );
}

import Link from "next/link";
import type { PastSpan, SidesOverTime } from "@/core/past";
import { counted } from "@/core/words";
import { Balance } from "./balance";
import { restsOn } from "./figure";
import { SpanChoice, spanKeys } from "./span-choice";

/** One balance with what it supports. */
export interface ShownSides {
  /** The ladder, or an empty text for all together. */
  readonly ladder: string;
  readonly name: string;
  readonly sides: SidesOverTime;
}

function One({ horseId, span, shown, big }: { horseId: string; span: PastSpan; shown: ShownSides; big: boolean }) {
  const { picture, trialsMore, unlike } = shown.sides;
  const filter = { ...(shown.ladder === "" ? {} : { ladder: shown.ladder }), holds: "sides" };
  return (
    <section className="grid grid-cols-[minmax(0,1fr)] items-center gap-x-8 gap-y-2 border-t border-hair py-5 sm:grid-cols-[20rem_minmax(0,1fr)]">
      <Balance picture={picture} name={shown.name} />
      <div>
        <h2 className={big ? "text-2xl" : "text-lg"}>{shown.name}</h2>
        <p className="mt-1 font-semibold" data-testid={big ? "sides-headline" : undefined}>
          {picture.headline}
        </p>
        <p>{picture.reason}</p>
        {trialsMore !== null && (
          <p className="text-sm text-soft">That is about {counted(trialsMore, "ask")} more, on both sides together.</p>
        )}
        {unlike.length > 0 && (
          <p className="mt-1 border-l-4 border-ochre pl-3 text-[0.95rem]">The sides were not worked alike. {unlike.join(" ")}</p>
        )}
        <p className="text-sm">
          <Link href={restsOn(horseId, filter, spanKeys(span))} className="link">
            The trials it rests on
          </Link>
        </p>
      </div>
    </section>
  );
}

/** Left against right, over all and for each behaviour. */
export function SidesView({ horseId, span, list }: { horseId: string; span: PastSpan; list: readonly ShownSides[] }) {
  const path = `/horses/${horseId}/review/sides`;
  const [all, ...each] = list;
  return (
    <>
      <h1 className="text-[2rem]">Left and right</h1>
      <div className="mt-3 mb-4">
        <SpanChoice path={path} span={span} />
      </div>
      {all !== undefined && <One horseId={horseId} span={span} shown={all} big />}
      {each.map((shown) => (
        <One key={shown.ladder} horseId={horseId} span={span} shown={shown} big={false} />
      ))}
      <details className="mt-3 max-w-prose text-sm text-soft">
        <summary>how</summary>
        Right less left within each rung, session by session. A horse that begins cold or tires makes the side that comes first look weaker
        or stronger, so what comes first is taken out: the orders are changed about between the sessions (a randomisation test, after Fisher
        1935). Called at p under 0.01, since it is looked at again and again, which takes nine sessions, half of them begun on each side.
        The lower pan is met more often; a dashed beam may hang by chance. Left out: first looks, what was written from memory, rungs that
        name one side.
      </details>
    </>
  );
}

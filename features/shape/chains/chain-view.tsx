import Link from "next/link";
import type { ChainDirection, ChainState } from "@/core/behaviour";
import { percent, Whisker } from "@/ui/measure";

/** A link as the page shows it. */
export interface ChainLinkFacts {
  readonly ladderId: string;
  readonly name: string;
  readonly rung: number;
  readonly criterion: string;
  readonly rule: string;
}

/** Shape says it: a closed ring holds, an open one does not. */
function RingSign({ holds, next }: { holds: boolean; next: boolean }) {
  return (
    <svg viewBox="-13 -13 26 26" width="30" height="30" aria-hidden="true">
      {holds ? (
        <circle r="9" fill="none" stroke="var(--sage)" strokeWidth="5" />
      ) : (
        <path d="M4 -8 A9 9 0 1 0 9 1" fill="none" stroke={next ? "var(--tarn)" : "var(--soft)"} strokeWidth="4" />
      )}
    </svg>
  );
}

/** The links one under another, each by its own criterion, with the next to train and the weak one named. */
export function ChainView({
  horseId,
  direction,
  links,
  state,
}: {
  horseId: string;
  direction: ChainDirection;
  links: readonly ChainLinkFacts[];
  state: ChainState;
}) {
  return (
    <>
      <p className="mt-3 max-w-prose font-head text-lg font-bold text-tarn">{state.sentence}</p>
      <p className="text-soft">
        Trained {direction}.{" "}
        {state.wholeChance !== null &&
          `If the links do not lean on each other, the whole holds about ${percent(state.wholeChance)} of the time.`}
      </p>
      <ol className="mt-5 max-w-4xl">
        {links.map(({ ladderId, name, rung, criterion, rule }, i) => {
          const link = state.links[i];
          if (link === undefined) return null;
          const marks = [
            link.holds ? "holds" : "does not hold yet",
            ...(state.next === i ? ["next to train"] : []),
            ...(state.weakest === i ? ["the weak link"] : []),
          ];
          return (
            <li key={`${i}-${ladderId}`} className="grid grid-cols-[2.2rem_1fr] gap-x-2 border-t-2 border-hair py-3">
              <RingSign holds={link.holds} next={state.next === i} />
              <div className="grid gap-x-8 sm:grid-cols-[1fr_18rem]">
                <div>
                  <Link href={`/horses/${horseId}/shape/${ladderId}`} className="font-head text-lg font-bold hover:underline">
                    {name}
                  </Link>
                  <span className="ml-2 text-soft">rung {rung}</span>
                  <p>{criterion}</p>
                  <p className={`font-semibold ${state.weakest === i ? "text-ochre" : state.next === i ? "text-tarn" : ""}`}>
                    {marks.join(", ")}
                  </p>
                </div>
                <div>
                  <Whisker share={link.share} interval={link.interval} />
                  <p className="text-sm">{link.sentence}</p>
                  <p className="text-sm text-soft">Its rule: {rule}</p>
                </div>
              </div>
            </li>
          );
        })}
      </ol>
    </>
  );
}

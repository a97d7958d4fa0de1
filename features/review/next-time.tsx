import type { NextStart } from "@/core/advice";
import type { SessionSummary } from "@/core/record";

/** How it went: of one ladder its count; of several there is no one count, and ladder by ladder stands below. */
function wentWords({ ladders, measures: { met, n } }: SessionSummary): string {
  return n === 0 || ladders.length > 1 ? "" : `${met} of ${n}. `;
}

/** What comes next: a ladder that may not be worked is not spoken of as if it were. */
const nextWords = ({ headline, barred }: NextStart) =>
  barred === null ? `Next time: ${headline.charAt(0).toLowerCase()}${headline.slice(1)}.` : `${headline}.`;

/** How it went and where the next session begins, in one sentence, and why. Nothing where no ladder was worked. */
export function NextTime({ next, summary, finished }: { next: NextStart | null; summary: SessionSummary; finished: boolean }) {
  if (next === null) return null;
  return (
    <section className="mt-4" aria-labelledby="next-time">
      <h2 id="next-time" className="text-2xl text-tarn">
        {finished && wentWords(summary)}
        {nextWords(next)}
      </h2>
      <p className="max-w-prose text-soft">{next.reason}</p>
      {next.beside !== undefined && <p className="text-sm text-soft">{next.beside}</p>}
    </section>
  );
}

import { relearnedOf, relearnedSentence } from "@/core/circle";
import { How } from "@/ui/measure";
import type { DatedDigest } from "./load-charts";

/** Whether the second direction in the pen came faster than the first. Nothing where there is nothing to say. */
export function LearnedAgain({ sessions }: { sessions: readonly DatedDigest[] }) {
  const relearned = relearnedOf(sessions.map(({ digest }) => digest));
  if (relearned.length === 0) return null;
  return (
    <section aria-label="In the pen" className="mt-8">
      <h2 className="text-2xl">In the pen</h2>
      <ul className="mt-2 grid gap-1">
        {relearned.map((one) => (
          <li key={one.sign}>{relearnedSentence(one)}</li>
        ))}
      </ul>
      <How of="learned again">
        Time from the beginning of a direction to the sign, the second direction against the first, session by session; exact sign test,
        said where it would come by chance in fewer than five of a hundred (the savings measure: Ebbinghaus 1885, from memory).
      </How>
    </section>
  );
}

import Link from "next/link";
import { counted } from "@/core/words";

/** More taps than a page draws in a moment: about two thousand asks of a timed session. */
export const MOST_DRAWN_TAPS = 12_000;

/** What stands in place of a session that is too long to be drawn: its sums are counted everywhere, its taps are files. */
export function TooLong({
  horseId,
  sessionId,
  taps,
  met,
  n,
}: {
  horseId: string;
  sessionId: string;
  taps: number;
  met: number;
  n: number;
}) {
  return (
    <div className="max-w-prose">
      <h1 className="text-[2rem]">A very long session</h1>
      <p className="mt-3 text-lg">
        It holds {counted(taps, "tap")}, more than a page can draw. All of them are kept and count
        {n > 0 ? `: ${met} of ${n} right` : ""}.
      </p>
      <p className="mt-3">To go on with this horse, begin a new session.</p>
      <p className="mt-4 flex flex-wrap gap-x-6 gap-y-2">
        <Link href={`/horses/${horseId}/work`} className="act">
          Begin a new session
        </Link>
        <Link href={`/horses/${horseId}/review/trials`} className="link">
          Its asks, in the list of all
        </Link>
        <a href={`/api/sessions/${sessionId}/trials.csv`} className="link" download>
          Its asks as a table
        </a>
        <a href={`/api/sessions/${sessionId}/events.csv`} className="link" download>
          Its taps as a table
        </a>
      </p>
    </div>
  );
}

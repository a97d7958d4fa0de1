import Link from "next/link";
import { toldShare } from "@/core/compare";
import { sumsOfSessions } from "@/core/evidence";
import { Day } from "@/ui/day";
import { minutesWords, Whisker } from "@/ui/measure";

export interface SessionLine {
  readonly id: string;
  readonly startedMs: number;
  readonly finished: boolean;
  readonly workSeconds: number;
  readonly n: number;
  readonly met: number;
  readonly about: readonly string[];
  /** Whether more than one behaviour was worked. */
  readonly mixed: boolean;
  readonly rungs: readonly string[];
}

const NO_SHARE = { share: null, interval: null };

/** The horse's sessions, newest first. */
export function SessionList({
  horseId,
  lines,
  older = false,
}: {
  horseId: string;
  lines: readonly SessionLine[];
  /** Whether this is a later page of the list. */
  older?: boolean;
}) {
  return (
    <>
      <h1 className="text-[2rem]">Review</h1>
      {lines.length === 0 ? (
        <p className="mt-4 text-lg">
          {older ? "No earlier session. " : "No session yet. "}
          <Link href={`/horses/${horseId}/work`} className="link">
            Work one
          </Link>
          .
        </p>
      ) : (
        <ul className="mt-5 border-b-2 border-hair">
          {lines.map((line) => (
            <li key={line.id} className="border-t border-hair">
              <Link
                href={`/horses/${horseId}/review/${line.id}`}
                className="figures group grid gap-x-6 py-2.5 hover:bg-paper sm:grid-cols-[11rem_1fr_8rem_10rem] sm:items-center"
              >
                <span className="font-semibold group-hover:underline">
                  <Day ms={line.startedMs} time />
                </span>
                <span className="text-soft">
                  {line.about.join(", ")} {line.rungs.length > 0 && `· rung ${line.rungs.join(", ")}`} · {minutesWords(line.workSeconds)}
                  {!line.finished && " · not finished"}
                </span>
                <span>{line.n > 0 && `${line.met} of ${line.n} met`}</span>
                {/* Several ladders make no one share. */}
                <Whisker {...(line.mixed ? NO_SHARE : toldShare(sumsOfSessions([{ met: line.met, of: line.n }])))} width={150} />
              </Link>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

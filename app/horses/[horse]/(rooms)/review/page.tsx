import type { Metadata } from "next";
import Link from "next/link";
import { type CircleDigest, workedOn } from "@/core/circle";
import { isWork } from "@/core/events";
import { SessionList } from "@/features/review/session-list";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse, listSessions } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { RunningLine } from "../../../../server/running-line";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Review" };

const PAGE = 50;

/** Where a page of the list begins: after the session made at this time under this number. */
function cursorOf(text: string | string[] | undefined): { createdMs: number; no: number } | undefined {
  const [, ms, no] = /^(-?\d{1,15}(?:\.\d{1,4})?)_(\d{1,10})$/.exec(typeof text === "string" ? text : "") ?? [];
  return ms === undefined ? undefined : { createdMs: Number(ms), no: Number(no) };
}

export default async function ReviewListPage({
  params,
  searchParams,
}: {
  params: Promise<{ horse: string }>;
  searchParams: Promise<{ after?: string | string[] }>;
}) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const after = cursorOf((await searchParams).after);
  // One more than is shown tells whether there is another page.
  const found = await listSessions(store, horse.id, { limit: PAGE + 1, after });
  const shown = found.slice(0, PAGE);
  const last = found.length > PAGE ? shown.at(-1)?.session : undefined;
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="" />
      <SessionList
        horseId={horse.id}
        older={after !== undefined}
        lines={shown.map(({ session, summary, blocks }) => {
          const { about, rungs } = workedOn(summary.circle === null ? null : (JSON.parse(summary.circle) as CircleDigest).form, blocks);
          return {
            id: session.id,
            startedMs: summary.started_ms ?? session.created_ms,
            finished: Boolean(summary.finished),
            workSeconds: summary.work_s,
            n: summary.n,
            met: summary.met,
            about,
            mixed: new Set(blocks.map((block) => block.behaviour)).size > 1,
            rungs: isWork(session.kind) ? rungs : [],
          };
        })}
      />
      {(after !== undefined || last !== undefined) && (
        <p className="mt-4 flex flex-wrap gap-x-6 gap-y-2">
          {after !== undefined && (
            <Link href={`/horses/${horse.id}/review`} className="link">
              The newest
            </Link>
          )}
          {last !== undefined && (
            <Link href={`/horses/${horse.id}/review?after=${last.created_ms}_${last.no}`} className="link">
              Earlier sessions
            </Link>
          )}
        </p>
      )}
    </>
  );
}

import type { Metadata } from "next";
import type { SessionRecord } from "@/core/session";
import { SessionList } from "@/features/review/session-list";
import { getHorse, listSessions } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { RunningLine } from "../../../../server/running-line";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Review" };

export default async function ReviewListPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const sessions = await listSessions(store, horse.id);
  return (
    <>
      <RunningLine horseId={horse.id} />
      <SessionList
        horseId={horse.id}
        lines={sessions.map(({ session, summary }) => {
          const { blocks } = JSON.parse(summary.record) as SessionRecord;
          return {
            id: session.id,
            startedMs: summary.started_ms ?? session.created_ms,
            finished: summary.finished,
            workSeconds: summary.work_s,
            n: summary.n,
            met: summary.met,
            behaviours: [...new Set(blocks.map((block) => block.behaviour))],
            rungs: session.kind === "work" ? [...new Set(blocks.map((block) => block.rung))] : [],
          };
        })}
      />
    </>
  );
}

"use client";

import { useState } from "react";
import type { Unfinished } from "@/core/pack";
import { Day } from "@/ui/day";
import { useWay, WayLink } from "@/ui/way";
import { LOGGED_WORDS, logApart } from "../../device/log-apart";

/** Every unfinished session with what can be done: go on with it, or end it where it was left. */
export function UnfinishedSessions({ horseId, storeId, sessions }: { horseId: string; storeId: string; sessions: readonly Unfinished[] }) {
  const way = useWay();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  if (sessions.length === 0) return null;
  const end = async (session: string) => {
    setBusy(true);
    setProblem(null);
    const logged = await logApart(storeId, session, [{ type: "session.end", payload: {} }], "");
    setBusy(false);
    if (logged !== "sent") setProblem(LOGGED_WORDS[logged]);
    way.refresh();
  };
  return (
    <section aria-label="Not finished" className="mt-4 grid gap-2 border-l-4 border-ochre pl-4">
      {sessions.map(({ id, startedMs, lastTapMs, n, met, behaviours, running }) => (
        <div key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <p className="figures min-w-0 grow basis-72">
            <strong>{running ? "Running" : "Not finished"}</strong>, <Day ms={startedMs} time />
            {behaviours.length > 0 && ` · ${behaviours.join(", ")}`}
            {n > 0 && ` · ${met} of ${n} met`}
            {!running && (
              <span className="block text-sm text-soft">
                last tap <Day ms={lastTapMs} time />
              </span>
            )}
          </p>
          <WayLink href={`/horses/${horseId}/work/${id}`} className={running ? "act" : "act-quiet"}>
            Go on with it
          </WayLink>
          {!running && (
            <button type="button" className="act-quiet" disabled={busy} onClick={() => void end(id)}>
              End it at its last tap
            </button>
          )}
        </div>
      ))}
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
    </section>
  );
}

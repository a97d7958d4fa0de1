"use client";

import { useState } from "react";
import type { BegunSession } from "@/core/pack";
import { useRequestIds } from "@/ui/form";
import { useWay } from "@/ui/way";
import { beginSession } from "../../device/begin-session";
import { goToSession } from "../../device/go-to-session";
import { runAddress } from "../../work/run-address";

/** One press begins a session with who, where and what of last time, and opens the chain in its recorder; a running session is gone on with. */
export function RunWhole({
  storeId,
  chainId,
  begun,
  running,
  closed,
}: {
  storeId: string;
  chainId: string;
  begun: Omit<BegunSession, "id">;
  /** A session of this horse that runs, by its id. */
  running: string | null;
  /** Why it is not to be run today, link by link. */
  closed: readonly string[];
}) {
  const way = useWay();
  const ids = useRequestIds();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const open = async () => {
    if (running !== null) return way.push(runAddress(begun.horse, running, chainId));
    setBusy(true);
    const id = ids.idFor(begun);
    const answer = await beginSession(storeId, { id, ...begun });
    setBusy(false);
    if (!answer.ok) return setProblem(answer.message);
    // On the device alone the run is opened under more.
    goToSession(way, answer, answer.where === "server" ? runAddress(begun.horse, id, chainId) : `/horses/${begun.horse}/work/${id}`);
  };
  return (
    <div className="no-print mt-3 grid justify-items-start gap-1.5">
      <button type="button" className="act" disabled={busy || closed.length > 0} onClick={() => void open()}>
        Run the whole
      </button>
      {closed.map((reason) => (
        <p key={reason} className="border-l-4 border-brick pl-2 text-sm">
          <strong>Not today.</strong> {reason}
        </p>
      ))}
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}

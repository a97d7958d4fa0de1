"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { LadderPlan } from "@/core/ladder";
import type { BehaviourInput } from "@/core/schemas";
import { send } from "@/ui/form";

/** Takes an older version of a ladder up again: the newest version asks what that one asked, and what was worked on it counts where its rungs are the same. */
export function TakeUpVersion({
  ladderId,
  version,
  revision,
  behaviour,
  plan,
}: {
  ladderId: string;
  version: number;
  revision: number;
  behaviour: BehaviourInput;
  plan: LadderPlan;
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const take = async () => {
    setBusy(true);
    const sent = await send("PUT", `/api/ladders/${ladderId}`, { behaviour, plan, revision, newVersion: true });
    setBusy(false);
    setProblem(sent.ok ? null : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <p className="no-print mb-3">
      <button type="button" className="act-quiet" disabled={busy} onClick={() => void take()}>
        Take version {version} up again
      </button>
      {problem !== null && (
        <span role="alert" className="ml-3 font-semibold text-brick">
          {problem}
        </span>
      )}
    </p>
  );
}

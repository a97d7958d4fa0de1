"use client";

import { useState } from "react";
import { type SessionRecord, WENT_ON } from "@/core/record";
import { minutesWords } from "@/ui/measure";
import { useWay } from "@/ui/way";
import { logApart } from "../device/log-apart";

/** Silences that count as pauses, each with the press that says it was work. */
export function SilentPauses({
  storeId,
  sessionId,
  record,
}: {
  storeId: string;
  sessionId: string;
  record: Pick<SessionRecord, "timeLine">;
}) {
  const way = useWay();
  const [busy, setBusy] = useState(false);
  const silent = record.timeLine.breaks.filter((pause) => pause.silent && pause.after !== undefined && pause.endMs !== null);
  if (silent.length === 0) return null;
  const wentOn = async (after: string) => {
    setBusy(true);
    await logApart(storeId, sessionId, [
      { type: "correct", payload: { event: after, payload: { [WENT_ON]: true }, reason: "we went on" } },
    ]);
    setBusy(false);
    way.refresh();
  };
  return (
    <div className="mt-3 border-l-4 border-hair pl-4">
      {silent.map(({ startMs, endMs, after }) => (
        <p key={after} className="flex flex-wrap items-baseline gap-x-4">
          Nothing was tapped for {minutesWords(((endMs ?? startMs) - startMs) / 1000)}: counted as a pause.
          <button type="button" className="link no-print" disabled={busy} onClick={() => void wentOn(after ?? "")}>
            We went on
          </button>
        </p>
      ))}
    </div>
  );
}

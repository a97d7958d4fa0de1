"use client";

import { useSyncExternalStore } from "react";
import { senderFor } from "./device/sender";

const NOTHING = { unkept: 0, waiting: null, refused: 0, held: null };

/** Where the taps are, said as it is: kept on this device, saved on the server. */
export function StatusLine({ storeId, total, keepProblem }: { storeId: string; total: number; keepProblem: string | null }) {
  const sender = senderFor(storeId);
  const state = useSyncExternalStore(sender.subscribe, sender.snapshot, () => NOTHING);
  const away = state.waiting === null ? null : state.waiting + state.unkept;
  const onServer = away === null ? null : Math.max(0, total - away - state.refused);
  const calm = state.held === null && keepProblem === null && state.refused === 0;
  return (
    <p
      role="status"
      className={`figures text-[0.8rem] leading-tight ${calm ? "text-soft" : "font-semibold text-brick"}`}
      data-waiting={away ?? "unknown"}
      data-on-server={onServer ?? "unknown"}
    >
      {keepProblem ?? (
        <>
          saved on this device {Math.max(0, total - state.unkept)}, on the server {onServer ?? "–"}
          {state.held !== null && `. ${state.held} The rest is sent when it is back.`}
          {state.refused > 0 && `. ${state.refused} not taken by the server; kept here.`}
        </>
      )}
    </p>
  );
}

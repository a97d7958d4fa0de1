"use client";

import { useSyncExternalStore } from "react";
import { senderFor } from "./device/sender";

const NOTHING = { waiting: 0, refused: 0, held: null };

/** Where the taps are, said as it is: kept on this device, saved on the server. */
export function StatusLine({
  storeId,
  total,
  unkept,
  keepProblem,
}: {
  storeId: string;
  total: number;
  unkept: number;
  keepProblem: string | null;
}) {
  const sender = senderFor(storeId);
  const state = useSyncExternalStore(sender.subscribe, sender.snapshot, () => NOTHING);
  const onServer = Math.max(0, total - state.waiting - unkept - state.refused);
  const calm = state.held === null && keepProblem === null && state.refused === 0;
  return (
    <p
      role="status"
      className={`figures text-[0.8rem] leading-tight ${calm ? "text-soft" : "font-semibold text-brick"}`}
      data-waiting={state.waiting + unkept}
      data-on-server={onServer}
    >
      {keepProblem ?? (
        <>
          saved on this device {total - unkept}, on the server {onServer}
          {state.held !== null && `. ${state.held} The rest is sent when it is back.`}
          {state.refused > 0 && `. ${state.refused} not taken by the server; kept here.`}
        </>
      )}
    </p>
  );
}

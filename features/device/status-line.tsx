"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import type { SessionEvent } from "@/core/schemas";
import { useWay, WayLink } from "@/ui/way";
import { NO_ANSWER } from "./reach";
import { NOTHING_SENT, type SendingState, senderFor } from "./sender";

/** Shorter waits are the way of a network; from here on it is said. */
const SAID_AFTER_SECONDS = 5;

/** Where a session's taps are. */
export interface Whereabouts {
  /** Written on this device. */
  readonly onDevice: number;
  readonly onServer: number | null;
  /** Not on the server yet, on the device or in this page's memory. */
  readonly away: number | null;
  readonly refused: number;
  /** In this page's memory alone. */
  readonly unkept: number;
}

/** Counts a session's taps by where they are, each one by its own standing: what is in memory is neither kept nor sent. */
export function whereabouts(events: readonly Pick<SessionEvent, "id">[], state: SendingState): Whereabouts {
  const count = (ids: ReadonlySet<string>) => (ids.size === 0 ? 0 : events.filter(({ id }) => ids.has(id)).length);
  const unkept = count(state.unkept);
  const refused = count(state.refused);
  const waiting = state.waiting === null ? null : count(state.waiting);
  return {
    onDevice: events.length - unkept,
    onServer: waiting === null ? null : events.length - unkept - waiting - refused,
    away: waiting === null ? null : waiting + unkept,
    refused,
    unkept,
  };
}

/** Seconds since anything got through, in fives, since each change is read out to who cannot see it; counts only while something waits. */
function useStuckSeconds(since: number | null): number {
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (since === null) return;
    const timer = setInterval(() => setNowMs(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [since]);
  return since === null ? 0 : Math.max(0, Math.floor((nowMs - since) / (SAID_AFTER_SECONDS * 1000)) * SAID_AFTER_SECONDS);
}

/**
 * Where the taps are, said as it is: kept on this device, saved on the server.
 * It counts what was tapped and not what is drawn: the last press is drawn a
 * frame later, and until then everything would seem to be saved.
 */
export function StatusLine({ storeId, tapped }: { storeId: string; tapped: () => readonly SessionEvent[] }) {
  const sender = senderFor(storeId);
  const way = useWay();
  const state = useSyncExternalStore(sender.subscribe, sender.snapshot, () => NOTHING_SENT);
  const { onDevice, onServer, away, refused, unkept } = whereabouts(tapped(), state);
  const stuck = useStuckSeconds(state.stuckSinceMs);
  const late = stuck >= SAID_AFTER_SECONDS;
  // In the pen it is the usual thing that the computer is out of reach: what is kept here is safe, and that is said.
  const apart = way.pen && state.held === NO_ANSWER && state.keeps;
  const calm = (state.held === null || apart) && state.keeps && refused === 0 && (!late || apart);
  // Short, since what it takes on a phone the criterion above gives way for.
  const held = state.held?.replace(/\.$/, "") ?? null;
  const unsent = held === null ? (late ? `Not sent for ${stuck} s` : null) : late ? `${held}, not sent for ${stuck} s` : held;
  const troubles = apart
    ? ["It goes up when that is in reach"]
    : [...(state.keeps ? [] : [`This device keeps none, ${unkept} only on this page`]), ...(unsent === null ? [] : [unsent])];
  return (
    <p
      role="status"
      className={`figures text-[0.8rem] leading-tight ${calm ? "text-soft" : "font-semibold text-brick"}`}
      data-waiting={away ?? "unknown"}
      data-on-server={onServer ?? "unknown"}
    >
      {onDevice} {onDevice === 1 ? "tap" : "taps"} safe on this device, {onServer ?? "–"} on the {way.pen ? "computer" : "server"}
      {troubles.map((trouble) => `. ${trouble}`).join("")}
      {refused > 0 && (
        <>
          . {refused} not taken by the server, kept here:{" "}
          <WayLink href="/settings#taps" className="underline">
            look
          </WayLink>
        </>
      )}
    </p>
  );
}

"use client";

import { useState } from "react";
import type { ShellStart } from "@/core/start";
import { useWay } from "@/ui/way";
import { senderFor } from "../device/sender";
import { lastPress } from "../device/undo";
import { useSessionLog } from "../device/use-session-log";
import { useWakeLock } from "../device/wake-lock";
import { click } from "../sound/feedback";

/** Everything a session of watching or touching is given when it opens. */
export type WatchStart = ShellStart;

/** What the one block of such a session is about. */
export interface WatchBlock {
  readonly behaviour: string;
  readonly rung: string;
  readonly sentence: string;
}

/** The state of a session without a ladder: one block, its taps, undo and finish. */
export function useWatch(start: WatchStart) {
  const way = useWay();
  const session = useSessionLog({
    storeId: start.session.storeId,
    sessionId: start.session.id,
    person: start.session.handler,
    events: start.session.events,
    clocks: start.session.clocks,
    position: start.session.position,
    silenceMinutes: start.yard.settings.silenceMinutes,
    begun: start.session.begun,
  });
  const { record, recorder, log, latest } = session;
  const [hint, setHint] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const block = record.blocks.at(-1) ?? null;
  const working = block !== null && record.finishMs === null;
  useWakeLock(working);

  const press = (...facts: Parameters<typeof log>) => {
    click();
    setHint(null);
    log(...facts);
  };
  const begin = ({ behaviour, rung, sentence }: WatchBlock) => {
    const facts: Parameters<typeof log> = [];
    if (record.header === null)
      facts.push({
        type: "session.start",
        payload: {
          horse: start.session.horse.name,
          handler: start.session.handler,
          place: start.session.place,
          method: "pressure-release",
        },
      });
    facts.push({ type: "block.start", payload: { block: 1, behaviour, rung, criterion: { sentence }, side: "", kind: "probe" } });
    press(...facts);
  };
  /** What undo would take back, newest first. */
  const undoable = () => lastPress(latest().events, recorder);
  const undo = () => {
    const targets = undoable();
    if (targets.length === 0) {
      click("refuse");
      setHint("Nothing left to undo on this device.");
    } else press(...targets.map((event) => ({ type: "undo" as const, payload: { event: event.id } })));
  };
  const finish = async (to: string) => {
    if (record.finishMs === null) log(...(working ? [{ type: "block.end" as const }] : []), { type: "session.end" });
    setBusy(true);
    const sent = await senderFor(start.session.storeId).flush(4000);
    setBusy(false);
    if (sent) {
      way.push(to);
      way.refresh();
    } else setHint("Finished and kept on this device. The server does not answer; it is sent as soon as it does.");
  };
  return { session, record, block, working, hint, setHint, busy, press, begin, undo, undoable, finish };
}

export type Watch = ReturnType<typeof useWatch>;

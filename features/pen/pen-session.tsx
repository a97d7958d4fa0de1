"use client";

import { useEffect, useState } from "react";
import type { BegunSession, SessionWhole } from "@/core/pack";
import { type OpenedSession, openSession, type SessionSoFar } from "@/core/start";
import { WayLink } from "@/ui/way";
import { noAnswerWords, startItWords } from "../device/own-machine";
import { bodyOf, reach } from "../device/reach";
import { senderFor } from "../device/sender";
import { SessionRecorder } from "../session/session-recorder";
import type { KeptYard } from "./opened";
import { ReadingPage } from "./reading";
import type { HeldHorse } from "./use-held";

/** A session's own facts: those this device keeps, otherwise the server's. */
export interface FoundSession {
  readonly begun: BegunSession;
  readonly createdMs: number;
}

const WAIT_MS = 4000;

/** A session whole from the server, or null where it does not answer or has none. */
export async function wholeSession(id: string): Promise<SessionWhole | null> {
  try {
    const response = await reach(`/api/sessions/${encodeURIComponent(id)}`, {}, WAIT_MS);
    return response.ok ? await bodyOf<SessionWhole>(response) : null;
  } catch {
    return null;
  }
}

/** Looks for a session on this device, then on the server; a session found there is kept here. */
export async function findSession(store: string, id: string): Promise<FoundSession | null> {
  const sender = senderFor(store);
  const kept = (await sender.sessions().catch(() => [])).find((one) => one.id === id);
  if (kept !== undefined) return { begun: kept.begun, createdMs: kept.startedMs ?? kept.madeMs };
  const whole = await wholeSession(id);
  if (whole === null) return null;
  await sender.keepSession(whole.begun, "saved");
  return { begun: whole.begun, createdMs: whole.createdMs };
}

/** The recorder over what the device keeps. */
export function PenSession({ yard, held, id }: { yard: KeptYard; held: HeldHorse; id: string }) {
  const [found, setFound] = useState<FoundSession | null | "looking">("looking");
  useEffect(() => {
    let gone = false;
    void findSession(yard.store, id).then((one) => !gone && setFound(one));
    return () => {
      gone = true;
    };
  }, [yard.store, id]);
  // What the recorder begins with is worked out once: it lives on by itself from there.
  const [opened, setOpened] = useState<OpenedSession | null>(null);
  useEffect(() => {
    if (opened !== null || found === "looking" || found === null || held.pack === null) return;
    const soFar: SessionSoFar = { storeId: yard.store, events: [], clocks: {}, position: 0 };
    setOpened(openSession(held.pack, yard.yard.facts, held.nowMs, found.begun, soFar, "own"));
  }, [opened, found, held, yard]);
  if (found === null)
    return (
      <main className="max-w-prose p-6">
        <h1 className="text-[2rem]">Not on this device</h1>
        <p className="mt-3 mb-5 text-lg">
          This session is not kept in this browser. {noAnswerWords()} It is not lost. {startItWords()}
        </p>
        <WayLink href="/pen?horses=1" className="act">
          To the horses
        </WayLink>
      </main>
    );
  return opened === null ? <ReadingPage /> : <SessionRecorder key={id} opened={opened} />;
}

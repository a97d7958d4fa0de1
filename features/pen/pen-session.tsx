"use client";

import { useEffect, useState } from "react";
import { dayIn } from "@/core/day";
import {
  type BegunSession,
  circleStart,
  packNow,
  recorderStart,
  type SessionSoFar,
  type SessionWhole,
  shellStart,
  touchesBefore,
} from "@/core/pack";
import { WayLink } from "@/ui/way";
import { CircleRecorder } from "../circle/circle-recorder";
import { noAnswerWords, startItWords } from "../device/own-machine";
import { bodyOf, reach } from "../device/reach";
import { senderFor } from "../device/sender";
import { WatchRecorder } from "../observe/watch-recorder";
import { packStart } from "../work/pack-start";
import { Recorder } from "../work/recorder";
import type { KeptYard } from "./keep";
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
  const [start, setStart] = useState<{ readonly begun: BegunSession; readonly pack: NonNullable<HeldHorse["pack"]> } | null>(null);
  useEffect(() => {
    if (start === null && found !== "looking" && found !== null && held.pack !== null) setStart({ begun: found.begun, pack: held.pack });
  }, [start, found, held.pack]);
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
  if (start === null) return <ReadingPage />;
  const { begun, pack } = start;
  const { facts } = yard.yard;
  const soFar: SessionSoFar = { storeId: yard.store, events: [], clocks: {}, position: 0 };
  const { kind } = begun;
  if (kind === "touch" || kind === "connection" || kind === "signs")
    return (
      <WatchRecorder
        kind={kind}
        start={shellStart(pack, facts, packNow(pack, facts, held.nowMs), begun, soFar)}
        touches={touchesBefore(pack, id)}
      />
    );
  if (kind === "circle")
    return <CircleRecorder start={circleStart(pack, facts, held.nowMs, begun, soFar)} today={dayIn(held.nowMs, facts.timeZone)} />;
  return <Kept key={id} pack={pack} yard={yard} begun={begun} soFar={soFar} nowMs={held.nowMs} />;
}

function Kept({
  pack,
  yard,
  begun,
  soFar,
  nowMs,
}: {
  pack: NonNullable<HeldHorse["pack"]>;
  yard: KeptYard;
  begun: BegunSession;
  soFar: SessionSoFar;
  nowMs: number;
}) {
  const [packed] = useState(() => {
    const start = recorderStart(pack, yard.yard.facts, nowMs, begun, soFar);
    // What other devices circled meanwhile this one cannot know.
    const used = start.used.map((line) => (line.startsWith("Circling") ? `${line} As far as this phone knows.` : line));
    return packStart({ ...start, used });
  });
  return <Recorder packed={packed} />;
}

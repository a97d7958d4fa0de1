"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import { counted } from "@/core/words";
import { Day } from "@/ui/day";
import { send } from "@/ui/form";
import { WayLink } from "@/ui/way";
import { keepMe } from "../device/me";
import { noAnswerWords } from "../device/own-machine";
import { NOTHING_SENT, senderFor } from "../device/sender";
import { BrowserLimits } from "./browser-limits";
import { forgetKept } from "./keep";
import type { KeptYard } from "./opened";

/** Who is signed in on this device, and the way out. */
function SignedInAs({ name, away }: { name: string; away: number }) {
  const [problem, setProblem] = useState<string | null>(null);
  const leave = async () => {
    const sent = await send("POST", "/api/sign-out", {});
    if (!sent.ok) return setProblem(`${noAnswerWords()} Sign out when it does.`);
    keepMe(null);
    await forgetKept().catch(() => undefined);
    window.location.assign("/sign-in");
  };
  return (
    <p className="mt-1">
      Signed in as {name}.{" "}
      <button type="button" className="link" onClick={() => void leave()}>
        Sign out
      </button>
      {away > 0 && " What waits here is sent once you sign in again."} <span role="status">{problem}</span>
    </p>
  );
}

/** What is on this device and what is on the computer, said as it is. */
export function WhereItIs({ kept }: { kept: KeptYard }) {
  const sender = senderFor(kept.store);
  const { waiting, unkept, refused, sessionsWaiting, held, keeps } = useSyncExternalStore(
    sender.subscribe,
    sender.snapshot,
    () => NOTHING_SENT,
  );
  const away = (waiting?.size ?? 0) + unkept.size;
  const [sessions, setSessions] = useState<number | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: counted anew as they are sent
  useEffect(() => {
    void sender.sessions().then(
      (list) => setSessions(list.length),
      () => setSessions(null),
    );
  }, [sender, sessionsWaiting, waiting]);
  return (
    <footer className="mt-8 border-t-2 border-hair pt-3 text-sm">
      <p
        role="status"
        data-testid="kept"
        data-away={waiting === null ? "unknown" : away}
        data-sessions-away={waiting === null ? "unknown" : sessionsWaiting.size}
      >
        {waiting === null
          ? "Counting what is on this device."
          : away === 0 && sessionsWaiting.size === 0 && refused.size === 0
            ? sessions === null || sessions === 0
              ? "Nothing on this device that the computer does not have."
              : `On this device: ${counted(sessions, "session")}. All of it is on the computer too.`
            : `On this device alone: ${counted(away + refused.size, "tap")}${sessionsWaiting.size > 0 ? ` and ${counted(sessionsWaiting.size, "session")}` : ""} the computer does not have. ${held ?? (away + sessionsWaiting.size > 0 ? "Sending." : "")}`}
        {!keeps && " This browser does not keep taps: they last as long as the page."}
      </p>
      <p className="mt-1 text-soft">
        The plans here are as the computer had them <Day ms={kept.fetchedMs} time />.{" "}
        {refused.size > 0 && (
          <WayLink href="/pen?taps=1" className="font-semibold text-brick underline">
            {counted(refused.size, "tap")} not taken: look
          </WayLink>
        )}
      </p>
      {kept.yard.me.network && <SignedInAs name={kept.yard.me.name ?? ""} away={away + sessionsWaiting.size} />}
      {kept.yard.me.olderHosts.length > 0 && (
        <p className="mt-1 border-l-4 border-ochre pl-3">
          This device was used under an older address too. What was not sent from there waits there:{" "}
          {kept.yard.me.olderHosts.map((host) => (
            <a key={host} href={`https://${host}/pen?taps=1`} className="link mr-3 break-all">
              {host}
            </a>
          ))}
        </p>
      )}
      <BrowserLimits />
    </footer>
  );
}
